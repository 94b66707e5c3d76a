'use client';
/** Leaves out what waits at a station and cannot be carried out there, all of it or one step. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  rollout: string;
  station: { id: string; name: string };
  /** how many steps wait there */ waiting: number;
}

export function LeaveOutStation({ rollout, station, waiting }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [asked, setAsked] = useState(false);
  const leave = () =>
    void run(async () => {
      await call('POST /api/rollouts/:id/leave', { id: rollout, body: { station: station.id } });
      setAsked(false);
      router.refresh();
    });
  return (
    <>
      <button className="button quiet font-sans text-[12.5px]" onClick={() => setAsked(true)}>
        Leave out what waits
      </button>
      {asked && (
        <Modal title={`Leave ${station.name} out?`} width={420} top="30vh" onClose={() => setAsked(false)}>
          <p>
            {counted(waiting, 'file')} that {waiting === 1 ? 'waits' : 'wait'} there will not be written by this
            rollout, and later ones go on. What the station has written meanwhile counts as written.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button main" disabled={busy} onClick={leave}>
              Leave out {counted(waiting, 'file')}
            </button>
          </ModalFoot>
        </Modal>
      )}
    </>
  );
}

export function LeaveOutStep({
  rollout,
  station,
  step,
  path,
}: {
  rollout: string;
  station: string;
  step: number;
  path: string;
}) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const leave = () =>
    void run(async () => {
      await call('POST /api/rollouts/:id/leave', { id: rollout, body: { station, steps: [step] } });
      router.refresh();
    });
  return (
    <>
      <button className="text-[12px] underline" disabled={busy} aria-label={`Leave out ${path}`} onClick={leave}>
        leave out
      </button>
      <Notice problem={problem} />
    </>
  );
}
