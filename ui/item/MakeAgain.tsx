'use client';
/** Plans to make an item again of what it was made from, which is newer now. */
import { useConvert } from '../conversions/convert-action';
import { useAction } from '../kit/action';
import { Notice } from '../kit/Notice';

export function MakeAgain({ itemId }: { itemId: string }) {
  const action = useAction();
  const { again } = useConvert(action);
  return (
    <>
      <button className="button ml-auto !h-[24px]" disabled={action.busy} onClick={() => again([itemId])}>
        Make it again
      </button>
      <Notice problem={action.problem} />
    </>
  );
}
