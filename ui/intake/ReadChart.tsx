'use client';
/** Reads a chart that came back with a delivery, and goes to the chart that it is. */
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

export function ReadChart({ arrival, entry, name }: { arrival: string; entry: number; name: string }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const read = () =>
    run(async () => {
      const { id } = await call('POST /api/arrivals/:id/chart', { id: arrival, body: { entry } });
      router.push(`/convert/charts/${id}`);
    });
  return (
    <>
      <button type="button" className="block text-[12px] underline" disabled={busy} onClick={() => void read()}>
        {busy ? `Reading ${name}` : `Read the chart ${name}`}
      </button>
      <Notice problem={problem} className="mt-1" />
    </>
  );
}
