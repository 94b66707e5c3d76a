'use client';
/** What is left out at a station since its camera is not used there: one word that it is brings it in. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  rollout: string;
  station: { id: string; name: string };
}

export function CameraUsed({ rollout, station }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const say = () =>
    void runAndRefresh(() => call('POST /api/rollouts/:id/used', { id: rollout, body: { station: station.id } }));
  return (
    <>
      <button
        className="text-[12px] underline"
        disabled={busy}
        aria-label={`These cameras are used at ${station.name}: plan it again`}
        onClick={say}
      >
        it is used there
      </button>
      <Notice problem={problem} />
    </>
  );
}
