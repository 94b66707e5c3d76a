import { serve } from '@/server/http';
import { searchShelves, spineOf, type Search } from '@/server/search/service';

/** What Shelves shows for a search as in its address, without the rest of the page: the answer to a letter typed. */
export const GET = serve('GET /api/search/spines', async ({ person, query }) => {
  const { flat, rows, counts } = await searchShelves(person, Object.fromEntries(query) as Search);
  return { flat, counts, spines: rows.map(spineOf) };
});
