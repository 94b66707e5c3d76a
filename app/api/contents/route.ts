import { collectContents, measureContents, USUAL_AGE_DAYS } from '@/server/blobs/collect';
import { serve } from '@/server/http';

export const GET = serve('GET /api/contents', async ({ person }) => ({
  ...(await measureContents(person)),
  days: USUAL_AGE_DAYS,
}));
export const DELETE = serve('DELETE /api/contents', ({ person }) => collectContents(person));
