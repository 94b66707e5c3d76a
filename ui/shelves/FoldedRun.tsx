'use client';
/** What stands under headings that are folded: one narrow spine, which unfolds them. */
import type { Label } from './model/headings';
import type { Spine } from './model/spine';
import { BoardLabel } from './SpineCard';

interface Props {
  /** the first of them */ spine: Spine;
  count: number;
  label: Label | null;
  onUnfold: () => void;
}

export function FoldedRun({ spine, count, label, onUnfold }: Props) {
  const words = spine.headings.join(' / ');
  return (
    <div className="pt-1">
      <button
        type="button"
        className="spine items-center justify-center border-dashed bg-sheet px-2 !text-center text-soft hover:text-ink"
        aria-expanded={false}
        aria-label={`${words}: unfold ${count}`}
        onClick={onUnfold}
      >
        <span className="font-serif text-[24px]">{count}</span>
        <span className="line-clamp-4 text-[11.5px] [overflow-wrap:anywhere]">{words}</span>
      </button>
      <div className="ledge -mx-1.5" />
      {label && <BoardLabel label={label} onFold={null} />}
    </div>
  );
}
