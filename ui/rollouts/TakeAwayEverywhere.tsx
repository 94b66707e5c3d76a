'use client';
/** Plans that items are taken away from every station; nothing goes before that plan is confirmed. */
import { useRouter } from 'next/navigation';
import type { Action } from '../kit/action';
import { call } from '../kit/call';

interface Props {
  items: readonly string[];
  /** of the plan; without, it says how many they are */ title?: string;
  /** of whoever shows what stands against it */ action: Action;
}

export function TakeAwayEverywhere({ items, title = '', action }: Props) {
  const router = useRouter();
  const plan = () =>
    void action.run(async () => {
      const { rollout } = await call('POST /api/rollouts/removal', { body: { items: [...items], title } });
      router.push(`/rollouts/${rollout}`);
    });
  return (
    <button
      className="button"
      disabled={action.busy}
      title="A plan that takes these away from every station; it is confirmed, and can be undone, as any other"
      onClick={plan}
    >
      Take away
    </button>
  );
}
