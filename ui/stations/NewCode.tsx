'use client';
import { useState } from 'react';
import { call, problemOf } from '../kit/call';

export function NewCode({ stationId }: { stationId: string }) {
  const [code, setCode] = useState<string | null>(null);
  return code ? (
    <span>
      Code <b className="font-mono">{code}</b>, for 30 minutes
    </span>
  ) : (
    <button
      className="button"
      onClick={() =>
        void call('POST /api/stations/:id/code', { id: stationId })
          .then((r) => setCode(r.code))
          .catch((e: unknown) => setCode(problemOf(e).message))
      }
    >
      New code for its agent
    </button>
  );
}
