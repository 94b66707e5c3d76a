import { renderingFor, type Rendering } from '@/server/items/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

function answerOf(rendering: Rendering, headers: Record<string, string>): Response {
  if (rendering.kind === 'preset')
    return Response.json(rendering.preset, { headers: { ...headers, 'x-look': JSON.stringify({ kind: 'preset' }) } });
  const { kind, size, domain, table } = rendering.look;
  const bytes = new Uint8Array(table.buffer as ArrayBuffer, table.byteOffset, table.byteLength);
  const about = { 'content-type': 'application/octet-stream', 'x-look': JSON.stringify({ kind, size, domain }) };
  return new Response(bytes, { headers: { ...headers, ...about } });
}

/**
 * What a worker renders a version by, for sRGB values: of a look its table, as 32-bit floats, with kind, size and domain in a
 * header; of a preset its settings as JSON, with the look that it calls. `as`: read in another encoding than the one that holds.
 */
export const GET = route<C>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const { tag, make } = await renderingFor(
    person,
    (await params).id,
    Number(query.get('points') ?? 0),
    query.get('as') ?? '',
  );
  const headers = { etag: `"${tag}"`, 'cache-control': 'private, max-age=0, must-revalidate' };
  if (request.headers.get('if-none-match') === headers.etag) return new Response(null, { status: 304, headers });
  return answerOf(await make(), headers);
});
