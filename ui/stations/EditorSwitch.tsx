'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

/** Starts and quits an editor at a station of the demo. */
export function EditorSwitch({
  stationId,
  editor,
  running,
  restart,
  waits,
}: {
  stationId: string;
  editor: string;
  running: boolean;
  restart: boolean;
  /** something lies in its hand-off folder */ waits: boolean;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const say = async (verbs: ('launch' | 'quit' | 'import')[], word: string) => {
    setBusy(word);
    setProblem(null);
    try {
      for (const verb of verbs) await call('POST /api/stations/:id/editor', { id: stationId, body: { editor, verb } });
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(null);
  };
  return (
    <>
      <span className="inline-flex gap-2">
        {running ? (
          <>
            {restart && (
              <button
                className="button main"
                disabled={!!busy}
                onClick={() => void say(['quit', 'launch'], 'Restarting')}
              >
                {busy ?? 'Restart'}
              </button>
            )}
            {waits && (
              <button className="button main" disabled={!!busy} onClick={() => void say(['import'], 'Taking in')}>
                {busy ?? 'Take in what waits'}
              </button>
            )}
            <button className="button" disabled={!!busy} onClick={() => void say(['quit'], 'Quitting')}>
              {!restart && !waits && busy ? busy : 'Quit'}
            </button>
          </>
        ) : (
          <button className="button" disabled={!!busy} onClick={() => void say(['launch'], 'Starting')}>
            {busy ?? 'Start'}
          </button>
        )}
      </span>
      <Notice problem={problem} className="mt-2" />
    </>
  );
}
