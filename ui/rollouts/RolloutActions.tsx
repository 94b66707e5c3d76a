'use client';
/** Confirm, drop, undo; each names in numbers what will happen. */
import type { RolloutVerb } from '@/core/api/rollouts';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  id: string;
  status: string;
  files: number;
  stations: number;
  isUndo: boolean;
  may: boolean;
}

export function RolloutActions({ id, status, files, stations, isUndo, may }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [undoing, setUndoing] = useState(false);
  const act = (verb: RolloutVerb) =>
    void run(async () => {
      const next = await call('POST /api/rollouts/:id', { id, body: { verb } });
      setUndoing(false);
      if (verb === 'drop') router.push('/rollouts');
      else if (next.id !== id) router.push(`/rollouts/${next.id}`);
      else router.refresh();
    });
  const sentence = `${counted(files, 'file')} on ${counted(stations, 'station')}`;
  if (!may) return null;
  return (
    <>
      {(status === 'planned' || status === 'planning') && (
        <button className="button quiet danger" disabled={busy} onClick={() => act('drop')}>
          Drop the plan
        </button>
      )}
      {status === 'planned' && (
        <button className="button quiet" disabled={busy} onClick={() => act('again')}>
          Plan it again
        </button>
      )}
      {status === 'planned' && (
        <button className="button main" disabled={busy || !files} onClick={() => act('confirm')}>
          Confirm: write {sentence}
        </button>
      )}
      {(status === 'done' || status === 'confirmed') && !isUndo && (
        <button className="button" disabled={busy || status === 'confirmed'} onClick={() => setUndoing(true)}>
          Undo the rollout
        </button>
      )}
      {undoing && (
        <Modal title="Undo this rollout?" width={420} top="30vh" onClose={() => setUndoing(false)}>
          <p>
            It takes back {sentence}: what was not there before is removed, what was overwritten comes back. A file
            changed there since is left alone.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button main" disabled={busy} onClick={() => act('undo')}>
              Take back {sentence}
            </button>
          </ModalFoot>
        </Modal>
      )}
      {!undoing && <Notice problem={problem} className="basis-full" />}
    </>
  );
}
