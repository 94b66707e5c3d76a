import { Problem } from '@/core/problem';
import { finishUpload, MAX_PART, uploadPart, uploadState } from '@/server/arrivals/service';
import { bytesOf, serve } from '@/server/http';

export const GET = serve('GET /api/uploads/:id', ({ person, id }) => uploadState(person, id));
/** One part: raw bytes, with ?offset=. */
export const PUT = serve('PUT /api/uploads/:id', async ({ person, id, query, request }) => {
  const offset = Number(query.get('offset'));
  const size = Number(request.headers.get('content-length') ?? 0);
  if (!Number.isSafeInteger(offset) || offset < 0 || size > MAX_PART)
    throw new Problem('upload-part', 'The part is too large or has no place.', 'offset', 'Drop the file again.');
  return uploadPart(person, id, offset, Buffer.from(await bytesOf(request, MAX_PART)));
});
export const POST = serve('POST /api/uploads/:id', ({ person, id }) => finishUpload(person, id));
