'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

/** What lies at the station comes as an arrival; the files stay where they are. */
export function TakeIn({ stationId, count }: { stationId: string; count: number }) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  return (
    <>
      <button
        className="button"
        disabled={busy}
        onClick={() => {
          setBusy(true);
          void call('POST /api/stations/:id/found', { id: stationId })
            .then((r) => router.push(`/intake/${r.arrival}`))
            .catch((error: unknown) => {
              setProblem(problemOf(error));
              setBusy(false);
            });
        }}
      >
        Take in {count} {count === 1 ? 'file' : 'files'}
      </button>
      <Notice problem={problem} className="mt-2 basis-full" />
    </>
  );
}
