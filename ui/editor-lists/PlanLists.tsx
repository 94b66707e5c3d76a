'use client';
/** Plans a rollout of lists that editors keep themselves: favorites, or opening rules. */
import type { ListPlace } from '@/core/api/editor-lists';
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  what: 'favorites' | 'opening';
  places: readonly ListPlace[];
  words: string;
  /** what is said of the button to those who do not see its row */ label?: string;
  /** ours goes over what was changed there */ over?: boolean;
  main?: boolean;
}

export function PlanLists({ what, places, words, label, over = false, main = false }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const plan = () =>
    void run(async () => {
      const { rollout } =
        what === 'favorites'
          ? await call('POST /api/favorites/plan', { body: { places: [...places], putBack: over } })
          : await call('POST /api/opening/plan', { body: { places: [...places], insist: over } });
      router.push(`/rollouts/${rollout}`);
    });
  return (
    <>
      <button
        className={main ? 'button main' : 'button quiet'}
        disabled={busy}
        {...(label ? { 'aria-label': label } : {})}
        onClick={plan}
      >
        {words}
      </button>
      <Notice problem={problem} className="mt-1 basis-full" />
    </>
  );
}
