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
}: {
  stationId: string;
  editor: string;
  running: boolean;
  restart: boolean;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const say = async (verbs: ('launch' | 'quit')[], word: string) => {
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
            <button className="button" disabled={!!busy} onClick={() => void say(['quit'], 'Quitting')}>
              {!restart && busy ? busy : 'Quit'}
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
