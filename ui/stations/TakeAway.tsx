'use client';
/** Plans that files of ours are taken away at a station; nothing goes before that plan is confirmed. */
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  station: string;
  paths: readonly string[];
  /** of one file among others, which its name tells apart */ one?: boolean;
}

export function TakeAway({ station, paths, one = false }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const plan = () =>
    void run(async () => {
      const { rollout } = await call('POST /api/stations/:id/removal', { id: station, body: { paths: [...paths] } });
      router.push(`/rollouts/${rollout}`);
    });
  return (
    <>
      <button
        className="underline"
        disabled={busy}
        {...(one ? { 'aria-label': `Take away: ${paths[0]}` } : {})}
        onClick={plan}
      >
        {one ? 'Take it away' : 'Take them away'}
      </button>
      <Notice problem={problem} className="mt-1 basis-full" />
    </>
  );
}
