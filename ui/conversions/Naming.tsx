'use client';
/** How what is made is called, where it stands, and what becomes of names that are borne already: asked once. */
import { useState } from 'react';
import { placeholders } from '@/core/item/title-pattern';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useHoped } from '../kit/hoped';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

type Clash = 'number' | 'leave' | null;

interface Props {
  id: string;
  naming: string;
  shelfId: string | null;
  clash: Clash;
  clashes: number;
  shelves: readonly { id: string; name: string }[];
  may: boolean;
}

export function Naming({ id, naming, shelfId, clash, clashes, shelves, may }: Props) {
  const [shelf, hopeShelf] = useHoped(shelfId);
  const [picked, pick] = useHoped(clash);
  const { busy, problem, runAndRefresh } = useAction();
  const [pattern, setPattern] = useState(naming);
  const change = (body: { naming?: string; shelfId?: string | null; clash?: Clash }) =>
    void runAndRefresh(() => call('PATCH /api/conversions/:id', { id, body }));
  const settleClash = (by: 'number' | 'leave') => {
    pick(by);
    change({ clash: by });
  };
  const settle = () => {
    if (pattern.trim() !== naming) change({ naming: pattern });
  };
  return (
    <fieldset disabled={!may} className="flex min-w-0 flex-col gap-2">
      <label className="flex flex-col gap-0.5 text-[12px] text-soft">
        Title, as a pattern
        <input
          className="field text-[13.5px] text-ink"
          value={pattern}
          onChange={(event) => setPattern(event.target.value)}
          onBlur={settle}
          onKeyDown={(event) => {
            if (event.key === 'Enter') settle();
          }}
        />
        <span>{placeholders.join(' ')}</span>
      </label>
      <label className="flex flex-col gap-0.5 text-[12px] text-soft">
        On the shelf
        <select
          className="field text-[13.5px] text-ink"
          value={shelf ?? ''}
          onChange={(event) => {
            hopeShelf(event.target.value || null);
            change({ shelfId: event.target.value || null });
          }}
        >
          <option value="">beside its source</option>
          {shelves.map((shelf) => (
            <option key={shelf.id} value={shelf.id}>
              {shelf.name}
            </option>
          ))}
        </select>
      </label>
      {clashes > 0 && (
        <fieldset className="border border-ochre px-3 py-2" disabled={busy}>
          <legend className="px-1 text-[12.5px] font-semibold text-ochre">
            {counted(clashes, 'name')} borne already
          </legend>
          <ClashChoice words="Put a number behind it" on={picked === 'number'} onPick={() => settleClash('number')} />
          <ClashChoice words="Leave these out" on={picked === 'leave'} onPick={() => settleClash('leave')} />
        </fieldset>
      )}
      <Notice problem={problem} />
    </fieldset>
  );
}

const ClashChoice = ({ words, on, onPick }: { words: string; on: boolean; onPick: () => void }) => (
  <label className="flex items-baseline gap-1.5 py-0.5">
    <input type="radio" name="clash" className="translate-y-[2px]" checked={on} onChange={onPick} />
    {words}
  </label>
);
