import { entryPicture } from '@/server/arrivals/shown';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

/** What a file of the arrival does to a frame: WebP, 320 pixels wide, or 900 with `w`. */
export const GET = route<C>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const frame = query.get('frame') ?? '';
  const { id } = await params;
  const picture = await entryPicture(person, id, Number(query.get('entry')), frame, Number(query.get('w')));
  return new Response(new Uint8Array(picture), {
    headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=86400' },
  });
});
