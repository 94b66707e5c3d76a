import { MOST_BYTES, readEditorChart } from '@/server/editor-charts/reading';
import { bytesOf, serve } from '@/server/http';

/** The picture as the body, its name in ?name. */
export const POST = serve('POST /api/editor-charts/:id/readings', async ({ person, id, query, request }) =>
  readEditorChart(person, id, query.get('name') ?? '', await bytesOf(request, MOST_BYTES)),
);
