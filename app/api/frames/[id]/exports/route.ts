import { addExport, MOST_BYTES } from '@/server/frames/exports';
import { bytesOf, serve } from '@/server/http';

/** An editor's export of the frame as the body, its label in ?label. */
export const POST = serve('POST /api/frames/:id/exports', async ({ person, id, query, request }) =>
  addExport(person, id, query.get('label') ?? '', await bytesOf(request, MOST_BYTES)),
);
