'use client';
/** Files that are not ours: told of no more until somebody changes them, or told of again. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  station: string;
  paths: readonly string[];
  /** they are ignored now */ ignored?: boolean;
  /** of one file among others, which its name tells apart */ one?: boolean;
}

function wordsFor(ignored: boolean, one: boolean): string {
  if (ignored) return one ? 'Tell of it again' : 'Tell of them again';
  return one ? 'Ignore it' : 'Ignore them all';
}

export function IgnoreThere({ station, paths, ignored = false, one = false }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const verb = ignored ? 'tell' : 'ignore';
  const words = wordsFor(ignored, one);
  const set = () =>
    void runAndRefresh(() =>
      call('POST /api/stations/:id/ignored', { id: station, body: { verb, paths: [...paths] } }),
    );
  return (
    <>
      <button
        className="underline"
        disabled={busy}
        {...(one ? { 'aria-label': `${words}: ${paths[0]}` } : {})}
        onClick={set}
      >
        {words}
      </button>
      <Notice problem={problem} className="mt-1 basis-full" />
    </>
  );
}
