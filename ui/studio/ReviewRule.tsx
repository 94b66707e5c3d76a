'use client';
/** Whether another person looks at a rollout before it goes. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

export function ReviewRule({ asked, may }: { asked: boolean; may: boolean }) {
  const { busy, problem, runAndRefresh } = useAction();
  return (
    <>
      <Notice problem={problem} className="mb-2" />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={asked}
          disabled={!may || busy}
          onChange={(event) => {
            const body = { asked: event.target.checked };
            void runAndRefresh(() => call('PATCH /api/studio/review', { body }));
          }}
        />
        Another person confirms what one has planned
      </label>
      <p className="mt-1 text-[12.5px] text-soft">
        Undoing a rollout, halting and stopping it stay with everybody who may confirm.
      </p>
    </>
  );
}
