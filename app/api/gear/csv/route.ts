import { coverageCsv } from '@/server/gear/csv';
import { route } from '@/server/http';

export const GET = route(
  async (person) =>
    new Response(await coverageCsv(person), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="coverage.csv"',
      },
    }),
);
