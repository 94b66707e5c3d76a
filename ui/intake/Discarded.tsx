'use client';
/** Arrivals that were discarded lately, each to be brought back for as long as its contents are kept. */
import type { ReactNode } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  arrivals: { id: string; name: string; when: ReactNode }[];
  may: boolean;
}

export function Discarded({ arrivals, may }: Props) {
  const action = useAction();
  return (
    <details className="mt-8">
      <summary className="cursor-pointer text-[17px] [font-family:var(--font-serif)]">
        Discarded in the last 30 days: {arrivals.length}
      </summary>
      <Notice problem={action.problem} className="my-2" />
      <ul>
        {arrivals.map(({ id, name, when }) => (
          <li key={id} className="flex items-center gap-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">{name}</span>
            <span className="text-soft">discarded {when}</span>
            {may && (
              <button
                className="button"
                aria-label={`Bring back ${name}`}
                disabled={action.busy}
                onClick={() => void action.runAndRefresh(() => call('POST /api/arrivals/:id/back', { id }))}
              >
                Bring back
              </button>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
