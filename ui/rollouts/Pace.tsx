'use client';
/** How a rollout that is under way goes on: halted and gone on with, let go to the rest of its stations, or stopped. */
import type { RolloutVerb } from '@/core/api/rollouts';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  id: string;
  paused: boolean;
  /** nothing is written before then; null once it has begun */ begins: string | null;
  /** the station that it went to first, while the rest waits */ first: {
    name: string;
    /** so many files wait there still */ waiting: number;
    /** and of those that are there, so many are listed by their editors, of how many */ listed: number;
    there: number;
    /** the rest goes by itself once all is listed */ goesOn: boolean;
  } | null;
  /** files that wait, at all stations */ waiting: number;
}

export function Pace({ id, paused, begins, first, waiting }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const act = (verb: RolloutVerb) =>
    void runAndRefresh(() =>
      call('POST /api/rollouts/:id', { id, body: { verb, first: null, goesOn: false, at: null } }),
    );
  return (
    <section aria-label="How it goes on" className="mb-4 max-w-[760px] border-l-[3px] border-line pl-3">
      <p className="mb-2">
        {paused ? `Halted: ${counted(waiting, 'file')} ${waiting === 1 ? 'waits' : 'wait'}. ` : ''}
        {begins ? <Begins at={begins} /> : first && firstWords(first)}
        {!paused && !first && !begins
          ? `${counted(waiting, 'file')} ${waiting === 1 ? 'waits' : 'wait'} for the agents.`
          : ''}
      </p>
      <div className="flex flex-wrap gap-2">
        {begins && (
          <button className="button main" disabled={busy} onClick={() => act('begin')}>
            Begin now
          </button>
        )}
        {first && !begins && (
          <button className="button main" disabled={busy || first.waiting > 0} onClick={() => act('release')}>
            Let the rest go
          </button>
        )}
        <button className="button" disabled={busy} onClick={() => act(paused ? 'resume' : 'pause')}>
          {paused ? 'Go on' : 'Halt'}
        </button>
        <button className="button quiet danger" disabled={busy} onClick={() => act('stop')}>
          Stop here
        </button>
      </div>
      <Notice problem={problem} className="mt-2" />
    </section>
  );
}

/** In the time of whoever looks: what the server draws first is in its own, and is drawn anew in the browser. */
function Begins({ at }: { at: string }) {
  const date = new Date(at);
  const words = date.toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  return (
    <>
      It begins on{' '}
      <time dateTime={at} suppressHydrationWarning>
        {words}
      </time>
      ; nothing is written before.
    </>
  );
}

function firstWords({ name, waiting, listed, there, goesOn }: NonNullable<Props['first']>): string {
  if (waiting)
    return `It goes to ${name} first, where ${counted(waiting, 'file')} ${waiting === 1 ? 'waits' : 'wait'} still.`;
  if (listed < there)
    return `It is at ${name}, where ${listed} of ${there} are listed so far. The rest ${goesOn ? 'goes by itself once all are' : 'waits for a word'}.`;
  return `It is at ${name}, and all of it is listed there. The rest ${goesOn ? 'goes in a moment' : 'waits for a word'}.`;
}
