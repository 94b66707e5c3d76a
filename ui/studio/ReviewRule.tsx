'use client';
/** Whether another person looks at a rollout before it goes. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useHoped } from '../kit/hoped';
import { Notice } from '../kit/Notice';

export function ReviewRule({ asked, may }: { asked: boolean; may: boolean }) {
  const { busy, problem, runAndRefresh } = useAction();
  const [shown, hope] = useHoped(asked);
  const set = async (body: { asked: boolean }) => {
    hope(body.asked);
    if (!(await runAndRefresh(() => call('PATCH /api/studio/review', { body })))) hope(asked);
  };
  return (
    <>
      <Notice problem={problem} className="mb-2" />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={shown}
          disabled={!may || busy}
          onChange={(event) => void set({ asked: event.target.checked })}
        />
        Another person confirms what one has planned
      </label>
      <p className="mt-1 text-[12.5px] text-soft">
        Undoing a rollout, halting and stopping it stay with everybody who may confirm.
      </p>
    </>
  );
}
