import { itemsCsv } from '@/server/search/csv';
import type { Search } from '@/server/search/service';
import { route } from '@/server/http';

export const GET = route(
  async (person, request) =>
    new Response(await itemsCsv(person, Object.fromEntries(new URL(request.url).searchParams) as Search), {
      headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': 'attachment; filename="items.csv"' },
    }),
);
