'use client';
/** What a search found: as it came with the page, or fetched since, so that a letter typed does not ask for the page again. */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { AnswerOf } from '@/core/api';
import { call } from '../../kit/call';

export type SearchResult = AnswerOf<'GET /api/search/spines'>;
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
  const isGiven = given.search === search;
  const { data, error } = useQuery({
    queryKey: ['spines', search],
    queryFn: async ({ signal }) => ({
      search,
      ...(await call('GET /api/search/spines', { query: search, signal })),
    }),
    enabled: !isGiven,
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const queries = useQueryClient();
  useEffect(() => {
    // the page came anew, since something changed: what was fetched beside it is no longer true
    void queries.invalidateQueries({ queryKey: ['spines'] });
  }, [given, queries]);
  const report = useRef(onFault);
  useEffect(() => {
    report.current = onFault;
  });
  useEffect(() => {
    if (error) report.current(error);
  }, [error]);
  const found = isGiven ? given : (data ?? given);
  return { ...found, late: found.search !== search };
}
