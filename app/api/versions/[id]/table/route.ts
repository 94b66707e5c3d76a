import { smallerLook, versionFor } from '@/server/items/service';
import { route } from '@/server/web';

type C = { params: Promise<{ id: string }> };

/** The version's table for the preview worker: 32-bit floats, with kind, size and domain in headers. */
export const GET = route<C>(async (person, request, { params }) => {
  const look = await smallerLook(await versionFor(person, (await params).id), Number(new URL(request.url).searchParams.get('points') ?? 0));
  return new Response(new Uint8Array(look.table.buffer as ArrayBuffer, look.table.byteOffset, look.table.byteLength), { headers: { 'content-type': 'application/octet-stream', 'x-look': JSON.stringify({ kind: look.kind, size: look.size, domain: look.domain }), 'cache-control': 'private, max-age=31536000, immutable' } });
});
