'use client';
/** Finds an item by typing, in a dialog; arrows and Enter, or a click. */
import { Check } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import type { ItemFound } from '@/core/api/search';
import { problemOf } from './call';
import { useItemsFound } from './items-found';
import { Modal, ModalFoot } from './Modal';
import { Notice } from './Notice';
import { Selvedge } from './Selvedge';
import { useSettled } from './settled';

interface Props {
  title: string;
  /** only items of this kind */ kind?: string;
  onPick: (item: { id: string; title: string }) => void;
  /** several are picked, one after the other, and taken together */
  onPickMany?: (items: { id: string; title: string }[]) => void;
  onClose: () => void;
}

const MOST_SHOWN = 12;
const SETTLED_MS = 80;

export function ItemPicker({ title, kind, onPick, onPickMany, onClose }: Props) {
  const [words, setWords] = useState('');
  const [place, setPlace] = useState(0);
  const [picked, setPicked] = useState<readonly ItemFound[]>([]);
  const asked = useSettled(words, SETTLED_MS);
  const { data, error } = useItemsFound({ words: asked, most: MOST_SHOWN, kind, keepOld: true });
  const items = data?.items ?? [];
  const at = Math.min(place, Math.max(0, items.length - 1));
  const keys: Record<string, () => void> = {
    ArrowDown: () => setPlace(Math.min(items.length - 1, at + 1)),
    ArrowUp: () => setPlace(Math.max(0, at - 1)),
    Enter: () => {
      const item = items[at];
      if (item) pick(item);
    },
  };
  const isPicked = (item: ItemFound): boolean => picked.some(({ id }) => id === item.id);
  const pick = (item: ItemFound) => {
    if (!onPickMany) onPick(item);
    else setPicked(isPicked(item) ? picked.filter(({ id }) => id !== item.id) : [...picked, item]);
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
            picked={onPickMany ? isPicked(item) : null}
            onPick={() => pick(item)}
          />
        ))}
      </ul>
      {data && !items.length && (
        <p className="py-3 text-soft">{words ? 'Nothing matches.' : 'Nothing stands on the shelves yet.'}</p>
      )}
      {onPickMany && (
        <>
          <p role="status" className="mt-2 text-[12px] text-soft">
            {picked.length
              ? `Picked: ${picked.map((item) => item.title).join(', ')}`
              : 'Enter or a click picks; pick as many as you like.'}
          </p>
          <ModalFoot>
            <button className="button main" disabled={!picked.length} onClick={() => onPickMany([...picked])}>
              Take {picked.length || ''}
            </button>
          </ModalFoot>
        </>
      )}
    </Modal>
  );
}

interface FoundProps {
  item: ItemFound;
  id: string;
  isAt: boolean;
  /** null where one alone is picked */ picked: boolean | null;
  onPoint: () => void;
  onPick: () => void;
}

const Found = ({ item, id, isAt, picked, onPoint, onPick }: FoundProps) => (
  <li
    id={id}
    role="option"
    aria-selected={picked ?? isAt}
    className={`flex cursor-pointer items-center gap-3 px-2 py-1.5 ${isAt ? 'bg-verd-wash' : ''}`}
    onMouseEnter={onPoint}
    onClick={onPick}
  >
    {picked !== null && <Check aria-hidden size={14} className={`shrink-0 text-verd ${picked ? '' : 'invisible'}`} />}
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
