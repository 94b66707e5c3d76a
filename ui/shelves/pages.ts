'use client';
/** Rows of a long list, fetched in pages as they come into view; the first page came with the screen. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { call } from '../kit/call';
import type { Spine } from './spine';

export const PAGE = 100;

/** `search` is the address of the list; with another one it begins anew. */
export function usePages(search: string, first: Spine[], total: number): { at: (i: number) => Spine | undefined; need: (from: number, to: number) => void; length: number } {
  const pages = useRef(new Map<number, Spine[]>()), asked = useRef(new Set<number>()), [, draw] = useState(0), [end, setEnd] = useState<number | null>(null);
  useEffect(() => { pages.current = new Map([[0, first]]); asked.current = new Set([0]); setEnd(first.length < PAGE ? first.length : null); draw((n) => n + 1); }, [search, first]);
  const need = useCallback((from: number, to: number) => {
    for (let p = Math.floor(from / PAGE); p <= Math.floor(to / PAGE); p++) {
      if (asked.current.has(p) || (end !== null && p * PAGE >= end)) continue;
      asked.current.add(p);
      void call<{ rows: Spine[] }>(`/api/items?${search}&limit=${PAGE}&offset=${p * PAGE}`).then(({ rows }) => { pages.current.set(p, rows); if (rows.length < PAGE) setEnd((e) => Math.min(e ?? Infinity, p * PAGE + rows.length)); draw((n) => n + 1); }).catch(() => asked.current.delete(p));
    }
  }, [search, end]);
  const at = useCallback((i: number): Spine | undefined => (i < first.length && !pages.current.has(0) ? first[i] : pages.current.get(Math.floor(i / PAGE))?.[i % PAGE]), [first]);
  return { at, need, length: end ?? Math.max(total, first.length) };
}
