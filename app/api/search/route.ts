import { searchItems } from '@/server/items/search';
import { route } from '@/server/web';

/** Items by a few letters, for choosing one. */
export const GET = route(async (person, request) => {
  const p = new URL(request.url).searchParams;
  const { rows } = await searchItems(
    person,
    { q: p.get('q') ?? '', kind: p.get('kind') ?? undefined, ...(p.get('q') ? {} : { recent: '1' }) },
    Math.min(30, Number(p.get('most') ?? 12)),
  );
  return {
    items: rows.map((r) => ({
      id: r.id,
      title: r.title,
      kind: r.kind,
      headings: r.headings,
      shelf: r.shelf,
      selvedge: r.selvedge,
    })),
  };
});
