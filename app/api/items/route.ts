import { searchItems, spineOf, type Search } from '@/server/search/service';
import { route } from '@/server/http';

/** A page of a search, for lists that are scrolled: the search as in the address of Shelves, with limit and offset. */
export const GET = route(async (person, request) => {
  const params = new URL(request.url).searchParams;
  const { rows } = await searchItems(
    person,
    Object.fromEntries(params) as Search,
    Number(params.get('limit') ?? 100),
    Number(params.get('offset') ?? 0),
  );
  return { rows: rows.map(spineOf) };
});
