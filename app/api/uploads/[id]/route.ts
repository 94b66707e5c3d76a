import { Problem } from '@/core/problem';
import { finishUpload, MAX_PART, uploadPart, uploadState } from '@/server/arrivals/service';
import { bytesOf, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, _r, { params }) => uploadState(person, (await params).id));
/** One part: raw bytes, with ?offset=. */
export const PUT = route<C>(async (person, request, { params }) => {
  const offset = Number(new URL(request.url).searchParams.get('offset'));
  if (!Number.isSafeInteger(offset) || offset < 0 || Number(request.headers.get('content-length') ?? 0) > MAX_PART)
    throw new Problem('upload-part', 'The part is too large or has no place.', 'offset', 'Drop the file again.');
  return uploadPart(person, (await params).id, offset, Buffer.from(await bytesOf(request, MAX_PART)));
});
export const POST = route<C>(async (person, _r, { params }) => finishUpload(person, (await params).id));
