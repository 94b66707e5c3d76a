'use client';
/** Says that a rollout was carried out by hand at a station without an agent. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  rollout: string;
  station: string;
  files: number;
}

export function NoteByHand({ rollout, station, files }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const note = () =>
    void runAndRefresh(() => call('POST /api/rollouts/:id/by-hand', { id: rollout, body: { station } }));
  return (
    <div className="mt-4">
      <button className="button main" disabled={busy} onClick={note}>
        Note {counted(files, 'file')} as done by hand
      </button>
      <Notice problem={problem} className="mt-2" />
    </div>
  );
}
