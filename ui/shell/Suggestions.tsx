'use client';
/** Items that answer to what stands in the search box, below it. */
import type { ItemFound } from '@/core/api/search';
import { Selvedge } from '../kit/Selvedge';
import { kindWords } from '../shelves/model/spine';

export const SUGGESTIONS = 'suggestions';
export const suggestionId = (place: number): string => `suggestion-${place}`;

interface Props {
  items: readonly ItemFound[];
  /** the one that Enter opens; null for none */ place: number | null;
  words: string;
  onPoint: (place: number) => void;
  onOpen: (item: ItemFound) => void;
}

export function Suggestions({ items, place, words, onPoint, onOpen }: Props) {
  return (
    <div className="absolute inset-x-0 top-full z-30 border border-t-0 border-line-strong bg-sheet shadow-lg">
      <ul id={SUGGESTIONS} role="listbox" aria-label="Items found" className="max-h-[60vh] overflow-auto">
        {items.map((item, at) => (
          <li
            key={item.id}
            id={suggestionId(at)}
            role="option"
            aria-selected={at === place}
            className={`flex cursor-pointer items-center gap-3 px-2 py-1.5 ${at === place ? 'bg-verd-wash' : ''}`}
            onMouseMove={() => onPoint(at)}
            // the box keeps the focus, so that nothing closes before the click counts
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onOpen(item)}
          >
            <Selvedge threads={item.selvedge} className="h-[26px] w-[32px] shrink-0" />
            <span className="min-w-0 flex-1 truncate font-serif text-[15px]">{item.title}</span>
            <span className="max-w-[45%] truncate text-[12px] text-soft">
              {kindWords[item.kind] ?? item.kind}, {item.shelf}
            </span>
          </li>
        ))}
      </ul>
      <p className="border-t border-line px-2 py-1.5 text-[12px] text-soft">
        {items.length ? `Press Enter to see all results for “${words}”.` : `Nothing matches “${words}”.`}
      </p>
    </div>
  );
}
