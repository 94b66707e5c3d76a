'use client';
/** What a search found: as it came with the page, or fetched since, so that a letter typed does not ask for the page again. */
import { useEffect, useRef, useState } from 'react';
import { call } from '../../kit/call';
import type { FacetCount, Spine } from '../model/spine';

export interface SearchResult {
  flat: boolean;
  spines: Spine[];
  counts: { n: number; more: boolean; facets: FacetCount[] };
}
/** `search` says what was asked for, in the form of `searchOf`. */
export interface GivenResult extends SearchResult {
  search: string;
}

/** The last that was found stays until the next is here; `late` says that it is on its way. */
export function useSearchResult(
  search: string,
  given: GivenResult,
  onFault: (e: unknown) => void,
): SearchResult & { late: boolean; /** what the rows are the answer to */ search: string } {
  const [held, setHeld] = useState<GivenResult | null>(null);
  const fault = useRef(onFault);
  useEffect(() => {
    fault.current = onFault;
  });
  useEffect(() => {
    if (given.search === search) return;
    const stop = new AbortController();
    call<SearchResult>(`/api/search/spines?${search}`, 'GET', undefined, stop.signal)
      .then((result) => {
        if (!stop.signal.aborted) setHeld({ ...result, search });
      })
      .catch((error: unknown) => {
        if (!stop.signal.aborted) fault.current(error);
      });
    return () => stop.abort();
  }, [search, given]);
  const now = [given, held].find((one) => one?.search === search) ?? null;
  const out = now ?? held ?? given;
  return { ...out, late: !now };
}
