import { fileNameOf } from '@/core/paths';
import { entryPaper } from '@/server/arrivals/shown';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

/** A paper of the arrival: its text, or with `save` the file as it came. What is no plain text is always saved. */
export const GET = route<C>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const { path, text, bytes } = await entryPaper(person, (await params).id, Number(query.get('entry')));
  if (text !== null && !query.has('save'))
    return new Response(text, { headers: { 'content-type': 'text/plain; charset=utf-8' } });
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(path))}`,
    },
  });
});
