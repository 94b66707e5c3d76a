'use client';
/** The looks, presets and profiles that the bench knows: those that came with the page, and those fetched since. */
import { useCallback, useEffect, useState } from 'react';
import { call } from '../../kit/call';
import type { Candidate } from '../model/candidate';
import { versionsOf, type Column } from '../model/column';
import type { Candidates } from '../model/names';

/** Which ones are asked for: one query of the route. */
export type Wanted =
  { versions: string } | { shelf: string } | { like: string } | { item: string } | { cameras: string };

const fetchCandidates = async (wanted: Wanted): Promise<Candidate[]> => {
  const answer = await call('GET /api/bench/candidates', { query: wanted });
  return answer.candidates;
};

export function useCandidates(
  known: readonly Candidate[],
  columns: readonly Column[],
  onError: (error: unknown) => void,
): { candidates: Candidates; fetchMore: (wanted: Wanted) => Promise<Candidate[]> } {
  const [candidates, setCandidates] = useState<Candidates>(() => new Map(known.map((one) => [one.versionId, one])));

  const hold = useCallback((list: readonly Candidate[]) => {
    setCandidates((held) => new Map([...held, ...list.map((one): [string, Candidate] => [one.versionId, one])]));
  }, []);
  const fetchMore = useCallback(
    async (wanted: Wanted) => {
      const list = await fetchCandidates(wanted);
      hold(list);
      return list;
    },
    [hold],
  );

  // those that the address names and that are not known yet
  const missing = columns
    .flatMap(versionsOf)
    .filter((version) => !candidates.has(version))
    .sort()
    .join();
  useEffect(() => {
    if (missing) void fetchCandidates({ versions: missing }).then(hold, onError);
  }, [missing, hold, onError]);

  return { candidates, fetchMore };
}
