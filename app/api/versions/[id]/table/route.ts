import { tableFor } from '@/server/items/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

/** The version's table for the preview worker, for sRGB values: 32-bit floats, with kind, size and domain in headers. `as`: read in another encoding than the one that holds. */
export const GET = route<C>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const { tag, make } = await tableFor(
    person,
    (await params).id,
    Number(query.get('points') ?? 0),
    query.get('as') ?? '',
  );
  const headers = { etag: `"${tag}"`, 'cache-control': 'private, max-age=0, must-revalidate' };
  if (request.headers.get('if-none-match') === headers.etag) return new Response(null, { status: 304, headers });
  const look = await make();
  return new Response(new Uint8Array(look.table.buffer as ArrayBuffer, look.table.byteOffset, look.table.byteLength), {
    headers: {
      ...headers,
      'content-type': 'application/octet-stream',
      'x-look': JSON.stringify({ kind: look.kind, size: look.size, domain: look.domain }),
    },
  });
});
