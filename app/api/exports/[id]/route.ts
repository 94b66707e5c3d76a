import { exportPicture, removeExport } from '@/server/frames/exports';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };
export const GET = route<C>(
  async (person, request, { params }) =>
    new Response(
      new Uint8Array(
        await exportPicture(person, (await params).id, Number(new URL(request.url).searchParams.get('w')) || 900),
      ),
      { headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' } },
    ),
);
export const DELETE = route<C>(async (person, _r, { params }) =>
  removeExport(person, (await params).id).then(() => ({})),
);
