'use client';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from './call';

interface Asked {
  words: string;
  /** how many are wanted */ most: number;
  /** only items of this kind */ kind?: string | undefined;
  /** whether what answered to other words stays in sight meanwhile; not where a quick Enter would open it */
  keepOld: boolean;
  /** not asked at all where false */ wanted?: boolean;
}

/** Items that answer to words, the best first; without words, those that were used lately. */
export function useItemsFound({ words, most, kind, keepOld, wanted = true }: Asked) {
  return useQuery({
    queryKey: ['items found', words, most, kind],
    queryFn: ({ signal }) =>
      call('GET /api/search', { query: { q: words, most: String(most), ...(kind ? { kind } : {}) }, signal }),
    enabled: wanted,
    ...(keepOld ? { placeholderData: keepPreviousData } : {}),
  });
}
