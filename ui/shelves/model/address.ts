/** What the address of Shelves holds. */
import { facetKeys } from '@/core/item/facets';

/** What narrows the list. */
export const narrowing: readonly string[] = ['q', 'ribbon', 'recent', 'fresh', 'shelf', 'archived', ...facetKeys];
const kept = [...narrowing, 'folded', 'sort', 'down', 'view'];

/** The part of an address that a search depends on, always in one order. */
export function searchOf(get: (key: string) => string | null | undefined): string {
  const query = new URLSearchParams();
  for (const key of kept) {
    const value = get(key);
    if (value) query.set(key, value);
  }
  return query.toString();
}
