import { bytesOf, serve } from '@/server/http';
import { MOST_PICTURE, takeExport } from '@/server/sightings/result';

/** The exported picture as the body. */
export const POST = serve('POST /api/sightings/:id/result', async ({ person, id, request }) =>
  takeExport(person, id, await bytesOf(request, MOST_PICTURE)),
);
