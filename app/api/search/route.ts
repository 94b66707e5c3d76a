import { serve } from '@/server/http';
import { searchItems } from '@/server/search/service';

/** Items by a few letters, for choosing one. */
export const GET = serve('GET /api/search', async ({ person, query }) => {
  const words = query.get('q') ?? '';
  const { rows } = await searchItems(
    person,
    { q: words, kind: query.get('kind') ?? undefined, ...(words ? {} : { recent: '1' }) },
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
