import { baseTable } from '@/server/bench/service';
import { route } from '@/server/web';

/** The table that develops a frame's camera data: 32-bit floats; size, neutral and white in a header. */
export const GET = route(async (person, request) => {
  const p = new URL(request.url).searchParams;
  const b = await baseTable(person, {
    frame: p.get('frame') ?? '',
    version: p.get('version') ?? 'plain',
    wb: p.get('wb') ?? 'as',
    anchor: p.get('anchor') ? Number(p.get('anchor')) : null,
    ...(p.has('stages') ? { stages: p.get('stages')! } : {}),
  });
  return new Response(new Uint8Array(b.look.table.buffer as ArrayBuffer), {
    headers: {
      'content-type': 'application/octet-stream',
      'x-base': JSON.stringify({ size: b.look.size, neutral: b.neutral, white: b.white, shot: b.shot }),
      'cache-control': 'private, max-age=3600',
    },
  });
});
