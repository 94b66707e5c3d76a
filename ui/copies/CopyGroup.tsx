'use client';
/** Items that do the same, side by side on one frame: merge them into the one that stays, or say that they are meant. */
import { must } from '@/core/must';
import Link from 'next/link';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { FramePreview } from '../kit/FramePreview';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { apart, kindWords, type Spine } from '../shelves/model/spine';

export function CopyGroup({
  items,
  mean,
  max,
  frame,
  may,
  show,
}: {
  items: Spine[];
  mean: number;
  max: number;
  frame: { id: string; name: string } | null;
  may: boolean;
  show: boolean;
}) {
  // what is approved, has a ribbon or is placed is the one that people know
  const weight = (spine: Spine): number =>
    (spine.status === 'approved' ? 4 : 0) + (spine.house ? 2 : 0) + (spine.mine ? 1 : 0) + spine.stations * 3;
  const [keep, setKeep] = useState(must([...items].sort((a, b) => weight(b) - weight(a))[0]).id);
  const { busy, problem, runAndRefresh } = useAction();
  const [open, setOpen] = useState(show);
  const ids = items.map((item) => item.id);
  const merge = () =>
    runAndRefresh(() => call('POST /api/copies', { body: { keep, others: ids.filter((id) => id !== keep) } }));
  const leave = () => runAndRefresh(() => call('POST /api/copies/meant', { body: { items: ids } }));
  const kept = must(items.find((s) => s.id === keep));
  return (
    <section
      aria-label={`Copies: ${items.map((s) => s.title).join(', ')}`}
      className="mb-6 border-t border-line-strong pt-3"
    >
      <div className="mb-2 flex flex-wrap items-baseline gap-3">
        <h2 className="text-[17px]">
          {items.length} {(kindWords[must(items[0]).kind] ?? 'item').toLowerCase()}s with one effect
        </h2>
        <span className="text-soft">
          ΔE00 {mean.toFixed(2)} in the mean, {max.toFixed(2)} at most
        </span>
        {frame && ['look', 'preset'].includes(must(items[0]).kind) && (
          <button className="button quiet ml-auto" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Hide the pictures' : 'Side by side'}
          </button>
        )}
      </div>
      <div
        className="grid gap-4"
        style={{ gridTemplateColumns: `repeat(${Math.min(4, items.length)}, minmax(0, 1fr))` }}
        role="radiogroup"
        aria-label="Which one stays"
      >
        {items.slice(0, 12).map((spine) => (
          <label
            key={spine.id}
            data-copy={spine.title}
            className={`block border bg-paper p-3 ${spine.id === keep ? 'border-verd' : 'border-line'}`}
          >
            {open && frame ? (
              <FramePreview
                frame={frame.id}
                version={spine.versionId}
                strength={100}
                width={320}
                label={`${spine.title} on ${frame.name}`}
              />
            ) : (
              <Selvedge threads={spine.selvedge} className="h-[64px]" />
            )}
            <span className="mt-2 flex items-start gap-2">
              {may && (
                <input
                  type="radio"
                  name={`keep-${must(items[0]).id}`}
                  className="mt-1"
                  checked={spine.id === keep}
                  onChange={() => setKeep(spine.id)}
                />
              )}
              <span className="min-w-0">
                <Link
                  href={`/items/${spine.id}`}
                  className="font-serif text-[15.5px] underline [overflow-wrap:anywhere]"
                >
                  {spine.title}
                </Link>
                <span className="block text-[12px] text-soft">
                  {[
                    apart(spine),
                    `on ${spine.shelf}`,
                    `version ${spine.number}`,
                    spine.stations ? `on ${spine.stations} stations` : '',
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
                <State of={spine.status} />
              </span>
            </span>
          </label>
        ))}
      </div>
      <Notice problem={problem} className="mt-3" />
      {may && (
        <div className="mt-3 flex gap-2">
          <button className="button main" disabled={busy} onClick={() => void merge()}>
            Merge into {kept.title}
          </button>
          <button className="button" disabled={busy} onClick={() => void leave()}>
            They are meant
          </button>
        </div>
      )}
    </section>
  );
}
