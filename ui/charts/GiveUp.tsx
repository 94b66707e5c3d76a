'use client';
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

/** Gives up a chart that nothing was read from. */
export function GiveUp({ id }: { id: string }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const giveUp = () =>
    run(async () => {
      await call('DELETE /api/editor-charts/:id', { id });
      router.push('/convert/charts');
      router.refresh();
    });
  return (
    <>
      <Notice problem={problem} />
      <button className="button" disabled={busy} onClick={() => void giveUp()}>
        Give this chart up
      </button>
    </>
  );
}
