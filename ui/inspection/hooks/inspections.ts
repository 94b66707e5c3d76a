'use client';
/** Asks for the health of many items, a few at a time, and tells of each as it comes. */
import { useCallback, useEffect, useState } from 'react';
import { inParallel } from '@/core/parallel';
import { call } from '../../kit/call';
import type { Found, FoundOf, InspectedItem } from '../model/item';

const AT_ONCE = 4;
const waiting: Found = { is: 'waiting' };

async function ask(versionId: string, signal: AbortSignal): Promise<Found> {
  try {
    const { inspection } = await call('GET /api/versions/:id/inspection', { id: versionId, signal });
    return inspection ? { is: 'found', inspection } : { is: 'none' };
  } catch {
    return { is: 'failed' };
  }
}

interface Inspections {
  foundOf: FoundOf;
  /** how many have been answered, well or not */ answered: number;
  /** whether some could not be asked for */ failed: boolean;
  again: () => void;
}

export function useInspections(items: readonly InspectedItem[]): Inspections {
  const [found, setFound] = useState<ReadonlyMap<string, Found>>(new Map());
  const [round, setRound] = useState(0);
  const asked = items.map(({ versionId }) => versionId).join(',');
  useEffect(() => {
    const stop = new AbortController();
    const isKnown = (id: string): boolean => ['found', 'none'].includes(found.get(id)?.is ?? '');
    const missing = asked.split(',').filter((id) => id && !isKnown(id));
    void inParallel(missing, AT_ONCE, async (id) => {
      if (stop.signal.aborted) return;
      const answer = await ask(id, stop.signal);
      if (!stop.signal.aborted) setFound((before) => new Map(before).set(id, answer));
    });
    return () => stop.abort();
  }, [asked, round]); // eslint-disable-line react-hooks/exhaustive-deps -- what is known already is no reason to begin anew
  const foundOf = useCallback<FoundOf>(({ versionId }) => found.get(versionId) ?? waiting, [found]);
  const states = items.map((item) => foundOf(item).is);
  return {
    foundOf,
    answered: states.filter((is) => is !== 'waiting').length,
    failed: states.includes('failed'),
    again: () => setRound((before) => before + 1),
  };
}
