import { framePart } from '@/server/frames/full';
import { route } from '@/server/http';

/** A part of a frame at full size (?x, y, w, h as shown), as its file has it; what it takes to develop it in a header. */
export const GET = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const numberIn = (k: string): number => Number(query.get(k));
  const { data, ...about } = await framePart(person, (await params).id, {
    x: numberIn('x'),
    y: numberIn('y'),
    w: numberIn('w'),
    h: numberIn('h'),
  });
  return new Response(new Uint8Array(data), {
    headers: {
      'content-type': 'application/octet-stream',
      'x-part': JSON.stringify(about),
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});
