'use client';
/** Which spines are chosen: one by one, from one to another, or all that a search found. */
import { useRef, useState } from 'react';
import { call } from '../../kit/call';
import { chosenBetween, nothingChosen, toggled, type Selection } from '../model/selection';
import type { Spine } from '../model/spine';

/** No more than these are changed together. */
export const MOST_CHOSEN = 5000;
const PAGE = 500;

export interface Choosing {
  selection: Selection;
  toggle: (spine: Spine) => void;
  /** all between the last that was chosen and this one */ chooseTo: (spine: Spine) => void;
  chooseAll: () => void;
  chooseNothing: () => void;
}

/** All that a search found, in its order, up to the most that can be chosen. */
async function allOf(search: string): Promise<Spine[]> {
  const all: Spine[] = [];
  for (let offset = 0; offset < MOST_CHOSEN; offset += PAGE) {
    const { rows } = await call('GET /api/items', { query: `${search}&limit=${PAGE}&offset=${offset}` });
    all.push(...rows);
    if (rows.length < PAGE) break;
  }
  return all;
}

/**
 * @param known the spines that are on the page, in their order
 * @param search what they were found by
 */
export function useSelection(known: readonly Spine[], search: string, onFault: (error: unknown) => void): Choosing {
  const [selection, setSelection] = useState<Selection>(nothingChosen);
  const anchor = useRef<string | null>(null);
  const isKnown = (id: string | null): boolean => known.some((spine) => spine.id === id);
  const chooseTo = async (spine: Spine): Promise<void> => {
    const from = anchor.current;
    anchor.current = spine.id;
    // one that was scrolled away stands somewhere in what was found
    const list = from === null || isKnown(from) ? known : await allOf(search);
    setSelection((before) => chosenBetween(before, list, from, spine));
  };
  const chooseAll = async (): Promise<void> => {
    const all = await allOf(search);
    setSelection(new Map(all.map((spine) => [spine.id, spine])));
  };
  return {
    selection,
    toggle: (spine) => {
      anchor.current = spine.id;
      setSelection((before) => toggled(before, spine));
    },
    chooseTo: (spine) => void chooseTo(spine).catch(onFault),
    chooseAll: () => void chooseAll().catch(onFault),
    chooseNothing: () => {
      anchor.current = null;
      setSelection(nothingChosen);
    },
  };
}
