import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { route } from '@/server/http';
import { profilePicture } from '@/server/versions/picture';

type C = { params: Promise<{ id: string }> };

/** A frame of camera data, developed by the profile: PNG. */
export const GET = route<C>(async (person, request, { params }) => {
  const frame = new URL(request.url).searchParams.get('frame') ?? '';
  if (!isUuid(frame)) throw new Problem('not-found', 'There is no such frame.', frame, 'Choose another frame.');
  const picture = await profilePicture(person, (await params).id, frame);
  return new Response(new Uint8Array(picture), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
