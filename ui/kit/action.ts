'use client';
/** Something that is done at the server: whether it is under way, what went wrong, what it came to. */
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { problemOf, type ProblemText } from './call';

export interface Action {
  busy: boolean;
  problem: ProblemText | null;
  /** what was done, in words */ said: string;
  /** Does the work and says so; a problem is kept for the screen. Whether it went well. */
  run: (work: () => Promise<unknown>, said?: string) => Promise<boolean>;
  /** The same, and the page is fetched anew afterwards. */
  runAndRefresh: (work: () => Promise<unknown>, said?: string) => Promise<boolean>;
  say: (words: string) => void;
  report: (error: unknown) => void;
  clear: () => void;
}

export function useAction(): Action {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');

  const run = useCallback(async (work: () => Promise<unknown>, words = '') => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      if (words) setSaid(words);
      return true;
    } catch (error) {
      setProblem(problemOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  }, []);

  const runAndRefresh = useCallback(
    async (work: () => Promise<unknown>, words = '') => {
      const well = await run(work, words);
      if (well) router.refresh();
      return well;
    },
    [run, router],
  );

  const say = useCallback((words: string) => setSaid(words), []);
  const report = useCallback((error: unknown) => setProblem(problemOf(error)), []);
  const clear = useCallback(() => {
    setProblem(null);
    setSaid('');
  }, []);
  return { busy, problem, said, run, runAndRefresh, say, report, clear };
}
