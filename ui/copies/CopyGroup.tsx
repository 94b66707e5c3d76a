'use client';
/** Items that do the same, side by side on one frame: merge them into the one that stays, or say that they are meant. */
import { useState } from 'react';
import { must } from '@/core/must';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { kindWords, type Spine } from '../shelves/model/spine';
import { Copy } from './Copy';
import { knownBest } from './model/known';

const MOST_SHOWN = 12;
const MOST_A_ROW = 4;

interface Props {
  items: Spine[];
  /** how far apart they are in effect, in ΔE00 */ mean: number;
  max: number;
  frame: { id: string; name: string } | null;
  may: boolean;
  /** whether the pictures are there at once */ show: boolean;
}

export function CopyGroup({ items, mean, max, frame, may, show }: Props) {
  const [keep, setKeep] = useState(() => knownBest(items).id);
  const { busy, problem, runAndRefresh } = useAction();
  const [open, setOpen] = useState(show);
  const first = must(items[0]);
  const ids = items.map((item) => item.id);
  const kept = must(items.find((item) => item.id === keep));
  const merge = () =>
    runAndRefresh(() => call('POST /api/copies', { body: { keep, others: ids.filter((id) => id !== keep) } }));
  const leave = () => runAndRefresh(() => call('POST /api/copies/meant', { body: { items: ids } }));
  const canBeSeen = frame !== null && ['look', 'preset'].includes(first.kind);
  return (
    <section
      aria-label={`Copies: ${items.map((item) => item.title).join(', ')}`}
      className="mb-6 border-t border-line-strong pt-3"
    >
      <div className="mb-2 flex flex-wrap items-baseline gap-3">
        <h2 className="text-[17px]">
          {items.length} {(kindWords[first.kind] ?? 'item').toLowerCase()}s with one effect
        </h2>
        <span className="text-soft">
          ΔE00 {mean.toFixed(2)} in the mean, {max.toFixed(2)} at most
        </span>
        {canBeSeen && (
          <button className="button quiet ml-auto" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Hide the pictures' : 'Side by side'}
          </button>
        )}
      </div>
      <div
        className="grid gap-4"
        style={{ gridTemplateColumns: `repeat(${Math.min(MOST_A_ROW, items.length)}, minmax(0, 1fr))` }}
        role="radiogroup"
        aria-label="Which one stays"
      >
        {items.slice(0, MOST_SHOWN).map((spine) => (
          <Copy
            key={spine.id}
            spine={spine}
            group={first.id}
            frame={open ? frame : null}
            isKept={spine.id === keep}
            onKeep={may ? () => setKeep(spine.id) : null}
          />
        ))}
      </div>
      <Notice problem={problem} className="mt-3" />
      {may && (
        <div className="mt-3 flex gap-2">
          <button className="button main" disabled={busy} onClick={() => void merge()}>
            Merge into {kept.title}
          </button>
          <button className="button" disabled={busy} onClick={() => void leave()}>
            Keep them apart
          </button>
        </div>
      )}
    </section>
  );
}
