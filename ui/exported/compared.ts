'use client';
/** Asks the worker that compares a preset with an editor's exports; the newest question counts. */
import { useEffect, useRef, useState } from 'react';
import type { ExportedAnswer, ExportedRequest } from '@/browser-workers/exported.worker';

export type Compared = Extract<ExportedAnswer, { figures: unknown }>;
export type Comparison =
  | { is: 'none' }
  | { is: 'working' }
  | { is: 'done'; compared: Compared }
  | { is: 'failed'; error: string; remedy: string };

type Asked = Omit<ExportedRequest, 'id'>;

/** @param asked null as long as something is missing */
export function useComparison(asked: Asked | null): Comparison {
  const worker = useRef<Worker | null>(null);
  const [answer, setAnswer] = useState<ExportedAnswer | null>(null);
  const [isBroken, setBroken] = useState(false);
  const [question, setQuestion] = useState<{ of: Asked | null; id: number }>({ of: null, id: 0 });
  if (question.of !== asked) setQuestion({ of: asked, id: question.id + 1 });
  useEffect(() => {
    const made = new Worker(new URL('../../browser-workers/exported.worker.ts', import.meta.url), {
      type: 'module',
      name: 'exported',
    });
    made.onmessage = ({ data }: MessageEvent<ExportedAnswer>) => setAnswer(data);
    made.onerror = () => setBroken(true);
    worker.current = made;
    return () => {
      made.terminate();
      worker.current = null;
    };
  }, []);
  useEffect(() => {
    if (question.of) worker.current?.postMessage({ ...question.of, id: question.id } satisfies ExportedRequest);
  }, [question]);
  if (!question.of) return { is: 'none' };
  if (isBroken) return { is: 'failed', error: 'The comparison could not be started.', remedy: 'Reload the page.' };
  if (answer?.id !== question.id) return { is: 'working' };
  return 'error' in answer
    ? { is: 'failed', error: answer.error, remedy: answer.remedy }
    : { is: 'done', compared: answer };
}
