'use client';
/** Plans what is due by a standing order, at all of its stations or at one, and leads to the plan. */
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  order: { id: string; name: string };
  /** where it is planned; at all of its stations where none is said */ station?: { id: string; name: string };
  due: number;
}

export function PlanDue({ order: { id, name }, station, due }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const plan = () =>
    void run(async () => {
      const { rollout } = await call('POST /api/orders/:id/plan', { id, body: { station: station?.id ?? null } });
      router.push(`/rollouts/${rollout}`);
    });
  const where = station ? ` at ${station.name}` : '';
  return (
    <>
      <button className="button" disabled={busy} onClick={plan} aria-label={`Plan what is due by ${name}${where}`}>
        Plan {counted(due, 'file')} due
      </button>
      <Notice problem={problem} className="basis-full" />
    </>
  );
}
