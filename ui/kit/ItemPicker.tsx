'use client';
/** Finds an item by typing, in a dialog; arrows and Enter, or a click. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import type { ItemFound } from '@/core/api/search';
import { call, problemOf } from './call';
import { Modal } from './Modal';
import { Notice } from './Notice';
import { Selvedge } from './Selvedge';
import { useSettled } from './settled';

interface Props {
  title: string;
  /** only items of this kind */ kind?: string;
  onPick: (item: { id: string; title: string }) => void;
  onClose: () => void;
}

const MOST_SHOWN = 12;
const SETTLED_MS = 80;

function useItems(words: string, kind: string | undefined) {
  const asked = useSettled(words, SETTLED_MS);
  return useQuery({
    queryKey: ['items found', asked, kind],
    queryFn: ({ signal }) =>
      call('GET /api/search', { query: { q: asked, most: String(MOST_SHOWN), ...(kind ? { kind } : {}) }, signal }),
    placeholderData: keepPreviousData,
  });
}

export function ItemPicker({ title, kind, onPick, onClose }: Props) {
  const [words, setWords] = useState('');
  const [place, setPlace] = useState(0);
  const { data, error } = useItems(words, kind);
  const items = data?.items ?? [];
  const at = Math.min(place, Math.max(0, items.length - 1));
  const keys: Record<string, () => void> = {
    ArrowDown: () => setPlace(Math.min(items.length - 1, at + 1)),
    ArrowUp: () => setPlace(Math.max(0, at - 1)),
    Enter: () => {
      const item = items[at];
      if (item) onPick(item);
    },
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const act = keys[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  return (
    <Modal title={title} width={520} onClose={onClose}>
      <input
        autoFocus
        className="field w-full"
        aria-label="Find an item"
        placeholder="Type a few letters"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setPlace(0);
        }}
        role="combobox"
        aria-expanded="true"
        aria-controls="picker-list"
        aria-activedescendant={items[at] ? `picker-${at}` : undefined}
        onKeyDown={onKeyDown}
      />
      <Notice problem={error && problemOf(error)} className="mt-2" />
      <ul id="picker-list" role="listbox" aria-label="Items found" className="mt-2 max-h-[46vh] overflow-auto">
        {items.map((item, i) => (
          <Found
            key={item.id}
            item={item}
            id={`picker-${i}`}
            isAt={i === at}
            onPoint={() => setPlace(i)}
            onPick={() => onPick(item)}
          />
        ))}
      </ul>
      {data && !items.length && (
        <p className="py-3 text-soft">{words ? 'Nothing matches.' : 'Nothing stands on the shelves yet.'}</p>
      )}
    </Modal>
  );
}

interface FoundProps {
  item: ItemFound;
  id: string;
  isAt: boolean;
  onPoint: () => void;
  onPick: () => void;
}

const Found = ({ item, id, isAt, onPoint, onPick }: FoundProps) => (
  <li
    id={id}
    role="option"
    aria-selected={isAt}
    className={`flex cursor-pointer items-center gap-3 px-2 py-1.5 ${isAt ? 'bg-verd-wash' : ''}`}
    onMouseEnter={onPoint}
    onClick={onPick}
  >
    <Selvedge threads={item.selvedge} className="h-[30px] w-[36px] shrink-0" />
    <span className="min-w-0">
      <span className="block truncate font-serif text-[15px]">{item.title}</span>
      <span className="block truncate text-[12px] text-soft">
        {item.kind.replace('-', ' ')} on {item.shelf}
        {item.headings.length ? `, ${item.headings.join(' / ')}` : ''}
      </span>
    </span>
  </li>
);
