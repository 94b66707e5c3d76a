import { searchItems } from '@/server/search/service';
import { route } from '@/server/http';

/** Items by a few letters, for choosing one. */
export const GET = route(async (person, request) => {
  const query = new URL(request.url).searchParams;
  const { rows } = await searchItems(
    person,
    { q: query.get('q') ?? '', kind: query.get('kind') ?? undefined, ...(query.get('q') ? {} : { recent: '1' }) },
    Math.min(30, Number(query.get('most') ?? 12)),
  );
  return {
    items: rows.map((spine) => ({
      id: spine.id,
      title: spine.title,
      kind: spine.kind,
      headings: spine.headings,
      shelf: spine.shelf,
      selvedge: spine.selvedge,
    })),
  };
});
