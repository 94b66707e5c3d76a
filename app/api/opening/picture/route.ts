import { Problem } from '@/core/problem';
import { route } from '@/server/http';
import { openedPicture } from '@/server/opening/on-frame';

function startOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('input-invalid', 'The start of a rule is no JSON.', 'start', 'Reload the page.');
  }
}

/** `?frame=` as a rule's `?start=` (JSON) begins it, as PNG; its lens is corrected by the lens database `?database=` (SHA-256), if one is given. `?piece=yes`: a piece of it at full size. */
export const GET = route(async (person, request) => {
  const query = new URL(request.url).searchParams;
  const said = (name: string): string => query.get(name) ?? '';
  const start = startOf(query.get('start') ?? '{}');
  const asked = { start, database: said('database'), piece: said('piece') === 'yes' };
  const { tag, make } = await openedPicture(person, said('frame'), asked);
  const headers = { etag: `"${tag}"`, 'cache-control': 'private, max-age=0, must-revalidate' };
  if (request.headers.get('if-none-match') === headers.etag) return new Response(null, { status: 304, headers });
  return new Response(new Uint8Array(await make()), { headers: { ...headers, 'content-type': 'image/png' } });
});
