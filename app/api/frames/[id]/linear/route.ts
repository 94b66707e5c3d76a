import { linearPicture } from '@/server/frames/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };
/** Camera RGB of a frame, linear, 16 bits, interleaved; its size in a header. */
export const GET = route<C>(async (person, request, { params }) => {
  const picture = await linearPicture(
    person,
    (await params).id,
    Number(new URL(request.url).searchParams.get('w')) || 320,
  );
  return new Response(new Uint8Array(picture.data), {
    headers: {
      'content-type': 'application/octet-stream',
      'x-size': `${picture.width},${picture.height}`,
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});
