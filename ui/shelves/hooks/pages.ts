'use client';
/** Rows of a long list, fetched in pages as they come into view; the first page came with the screen. */
import { useCallback, useMemo, useRef, useState } from 'react';
import { LIST_PAGE } from '@/core/item/list-page';
import { call } from '../../kit/call';
import type { Spine } from '../model/spine';

interface Held {
  first: Spine[];
  search: string;
  pages: ReadonlyMap<number, Spine[]>;
  end: number | null;
}

const fresh = (search: string, first: Spine[]): Held => ({
  search,
  first,
  pages: new Map([[0, first]]),
  end: first.length < LIST_PAGE ? first.length : null,
});

/** `search` is the address of the list; with another one, or another first page, it begins anew. */
export function usePages(
  search: string,
  first: Spine[],
  total: number,
): { at: (i: number) => Spine | undefined; need: (from: number, to: number) => void; length: number } {
  const [held, setHeld] = useState<Held>(() => fresh(search, first));
  const asked = useRef<{ first: Spine[]; search: string; pages: Set<number> }>({ first, search, pages: new Set([0]) });
  const live = useMemo(
    () => (held.search === search && held.first === first ? held : fresh(search, first)),
    [held, search, first],
  );
  const need = useCallback(
    (from: number, to: number) => {
      if (asked.current.first !== first || asked.current.search !== search)
        asked.current = { first, search, pages: new Set([0]) };
      const mine = asked.current;
      for (let p = Math.floor(from / LIST_PAGE); p <= Math.floor(to / LIST_PAGE); p++) {
        if (mine.pages.has(p) || (live.end !== null && p * LIST_PAGE >= live.end)) continue;
        mine.pages.add(p);
        void call('GET /api/items', { query: `${search}&limit=${LIST_PAGE}&offset=${p * LIST_PAGE}` })
          .then(({ rows }) =>
            setHeld((held) => {
              const base = held.search === search && held.first === first ? held : fresh(search, first);
              return {
                ...base,
                pages: new Map([...base.pages, [p, rows]]),
                end: rows.length < LIST_PAGE ? Math.min(base.end ?? Infinity, p * LIST_PAGE + rows.length) : base.end,
              };
            }),
          )
          .catch(() => mine.pages.delete(p));
      }
    },
    [search, first, live],
  );
  const at = useCallback(
    (i: number): Spine | undefined => live.pages.get(Math.floor(i / LIST_PAGE))?.[i % LIST_PAGE],
    [live],
  );
  return { at, need, length: live.end ?? Math.max(total, first.length) };
}
