import { exportPicture, removeExport } from '@/server/frames/exports';
import { route, serve } from '@/server/http';

type Context = { params: Promise<{ id: string }> };

export const GET = route<Context>(async (person, request, { params }) => {
  const width = Number(new URL(request.url).searchParams.get('w')) || 900;
  const picture = await exportPicture(person, (await params).id, width);
  return new Response(new Uint8Array(picture), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
export const DELETE = serve('DELETE /api/exports/:id', ({ person, id }) => removeExport(person, id));
