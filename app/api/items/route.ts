import { serve } from '@/server/http';
import { searchItems, spineOf, type Search } from '@/server/search/service';

/** A page of a search, for lists that are scrolled: the search as in the address of Shelves, with limit and offset. */
export const GET = serve('GET /api/items', async ({ person, query }) => {
  const limit = Number(query.get('limit') ?? 100);
  const offset = Number(query.get('offset') ?? 0);
  const { rows } = await searchItems(person, Object.fromEntries(query) as Search, limit, offset);
  return { rows: rows.map(spineOf) };
});
