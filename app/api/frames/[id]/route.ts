import { changeFrame } from '@/server/frames/care';
import { framePicture } from '@/server/frames/service';
import { route, serve } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, request, { params }) => {
  const png = await framePicture(person, (await params).id, Number(new URL(request.url).searchParams.get('w')) || 900);
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

export const PATCH = serve('PATCH /api/frames/:id', ({ person, id, body }) => changeFrame(person, id, body));
