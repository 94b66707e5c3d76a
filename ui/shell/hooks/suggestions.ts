'use client';
import { useState, type ChangeEvent, type KeyboardEvent } from 'react';
import type { ItemFound } from '@/core/api/search';
import { useItemsFound } from '../../kit/items-found';
import { SUGGESTIONS, suggestionId } from '../Suggestions';

const MOST_SUGGESTED = 8;

const hrefOf = (item: ItemFound): string => `/items/${item.id}`;
const allThatAnswer = (words: string): string => `/shelves?${new URLSearchParams({ q: words })}`;

/** What the search box suggests for the words in it: a combobox with a list, of which none is chosen until an arrow says so. */
export function useSuggestions(go: (href: string) => void) {
  const [typed, setTyped] = useState('');
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<number | null>(null);
  const words = typed.trim();
  const { data } = useItemsFound({ words, most: MOST_SUGGESTED, keepOld: true, wanted: words !== '' });
  const items = data?.items ?? [];
  const place = chosen !== null && chosen < items.length ? chosen : null;
  const isOpen = open && words !== '' && data !== undefined;
  const leave = (href: string) => {
    setTyped('');
    setOpen(false);
    setChosen(null);
    go(href);
  };
  /** Round and round, over the box itself, where nothing is chosen. */
  const step = (by: 1 | -1) => {
    const stops = items.length + 1;
    const next = ((place ?? -1) + 1 + by + stops) % stops;
    setOpen(true);
    setChosen(next === 0 ? null : next - 1);
  };
  const keys: Record<string, () => void> = {
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    Escape: () => (isOpen ? setOpen(false) : setTyped('')),
  };
  return {
    typed,
    isOpen,
    enter: () => {
      const item = place === null ? undefined : items[place];
      if (item) leave(hrefOf(item));
      else leave(words ? allThatAnswer(words) : '/shelves');
    },
    box: {
      role: 'combobox',
      'aria-expanded': isOpen,
      'aria-controls': SUGGESTIONS,
      'aria-autocomplete': 'list' as const,
      'aria-activedescendant': isOpen && place !== null ? suggestionId(place) : undefined,
      onChange: (event: ChangeEvent<HTMLInputElement>) => {
        setTyped(event.target.value);
        setOpen(true);
        setChosen(null);
      },
      onFocus: () => setOpen(true),
      onBlur: () => setOpen(false),
      onKeyDown: (event: KeyboardEvent) => {
        const act = keys[event.key];
        if (!act) return;
        event.preventDefault();
        act();
      },
    },
    list: { items, place, words, onPoint: setChosen, onOpen: (item: ItemFound) => leave(hrefOf(item)) },
  };
}
