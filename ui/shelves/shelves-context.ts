'use client';
/** What every part of the shelves may ask for. */
import { createContext, useContext, type KeyboardEvent } from 'react';
import type { Action } from '../kit/action';
import type { Folded } from './hooks/folded';
import type { GivenResult, SearchResult } from './hooks/search-result';
import type { Step } from './model/first-steps';
import type { Selection } from './model/selection';
import type { ShelfView, Spine } from './model/spine';

/** What came with the page. */
export interface ShelvesProps {
  shelves: ShelfView[];
  given: GivenResult;
  frames: { id: string; name: string }[];
  total: number;
  /** the first steps of the studio, while they are not all done */ steps: readonly Step[];
  /** how many items are new to whoever looks, to 201 */ fresh: number;
  licences: { id: string; name: string }[];
  may: {
    convert: boolean;
    rollOut: boolean;
    edit: boolean;
    shelf: boolean;
    archive: boolean;
    house: boolean;
    approve: boolean;
  };
}

/** Which dialog is open. */
export type Asking =
  | { what: 'rename the shelf'; shelf: ShelfView }
  | { what: 'make a shelf' }
  | { what: 'save the search' }
  | { what: 'change the chosen' }
  | { what: 'confirm encodings' };

export interface ShelvesContext extends ShelvesProps {
  params: URLSearchParams;
  /** Changes the address; null takes a part of it off. */ go: (change: Record<string, string | null>) => void;
  view: 'spines' | 'table';
  /** the one shelf that is looked at */ shelf: ShelfView | undefined;
  /** something narrows the list */ filtered: boolean;
  result: SearchResult & { late: boolean; search: string };
  frame: { id: string; name: string } | undefined;
  /** the spines that are on screen, as far as is known */ inView: readonly Spine[];
  setInView: (spines: Spine[]) => void;
  /** those that bear the same title as another */ twins: ReadonlySet<string>;
  current: Spine | undefined;
  lookAt: (spine: Spine) => void;
  selection: Selection;
  toggle: (spine: Spine) => void;
  /** chooses all between the last that was chosen and this one; null where nothing is chosen */
  chooseTo: ((spine: Spine) => void) | null;
  chooseNothing: () => void;
  /** shelves, and headings on them */ folded: Folded;
  hasRibbon: (spine: Spine) => boolean;
  setRibbon: (spine: Spine) => void;
  action: Action;
  ask: (asking: Asking | null) => void;
  /** Moves items before another on a shelf, or to its end. */
  move: (ids: readonly string[], shelf: string, before: string | null) => Promise<boolean>;
  onSpineKey: (event: KeyboardEvent<HTMLElement>, spine: Spine) => void;
}

export const ShelvesValue = createContext<ShelvesContext | null>(null);

export function useShelves(): ShelvesContext {
  const value = useContext(ShelvesValue);
  if (!value) throw new Error('a part of the shelves stands outside of them');
  return value;
}

/** A shelf with an order of its own, which one can put spines on by hand. */
export const isOrdered = (shelf: ShelfView | undefined): shelf is ShelfView => !!shelf && !shelf.query;
