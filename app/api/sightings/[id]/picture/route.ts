import { route } from '@/server/http';
import { sightingPicture, sightingPictures } from '@/server/sightings/pictures';

type C = { params: Promise<{ id: string }> };

/** `?of=`: the picture that the editor is given, what came back, ours, or the difference of both. */
export const GET = route<C>(async (person, request, { params }) => {
  const asked = new URL(request.url).searchParams.get('of');
  const which = sightingPictures.find((one) => one === asked) ?? 'given';
  const png = await sightingPicture(person, (await params).id, which);
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' },
  });
});
