import type { ItemFound } from '@/core/api/search';

/** An item as a search finds it, known by its title. */
export const itemFound = (title: string): ItemFound => ({
  id: title,
  title,
  kind: 'look',
  headings: [],
  shelf: 'House looks',
  selvedge: null,
});
