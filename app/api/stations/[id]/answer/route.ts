import { bytesOf, serve } from '@/server/http';
import { MOST_ZIP, takeCarriedAnswer } from '@/server/stations/carried';

/** The ZIP as the body. */
export const POST = serve('POST /api/stations/:id/answer', async ({ person, id, request }) =>
  takeCarriedAnswer(person, id, await bytesOf(request, MOST_ZIP)),
);
