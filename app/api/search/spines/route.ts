import { searchShelves, spineOf, type Search } from '@/server/search/service';
import { route } from '@/server/http';

/** What Shelves shows for a search as in its address, without the rest of the page: the answer to a letter typed. */
export const GET = route(async (person, request) => {
  const { flat, rows, counts } = await searchShelves(
    person,
    Object.fromEntries(new URL(request.url).searchParams) as Search,
  );
  return { flat, counts, spines: rows.map(spineOf) };
});
