import { baseTable } from '@/server/bench/service';
import { route } from '@/server/http';

/** The table that develops a frame's camera data: 32-bit floats; size, neutral and white in a header. */
export const GET = route(async (person, request) => {
  const query = new URL(request.url).searchParams;
  const base = await baseTable(person, {
    frame: query.get('frame') ?? '',
    version: query.get('version') ?? 'plain',
    white: query.get('white') ?? 'as',
    anchor: query.get('anchor') ? Number(query.get('anchor')) : null,
    stages: query.get('stages') ?? undefined,
  });
  return new Response(new Uint8Array(base.look.table.buffer as ArrayBuffer), {
    headers: {
      'content-type': 'application/octet-stream',
      'x-base': JSON.stringify({ size: base.look.size, neutral: base.neutral, white: base.white, shot: base.shot }),
      'cache-control': 'private, max-age=3600',
    },
  });
});
