import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { Problem } from '@/core/problem';
import { backupFor, restoreFor } from '@/server/backup/service';
import { dataFolder } from '@/server/data-folder';
import { route, serve } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The backup, as it is made; a fault on the way breaks the download off, so that half of one is not taken for a whole. */
export const GET = route(async (person) => {
  const { stream, done } = await backupFor(person);
  done.catch((e: Error) => stream.destroy(e));
  return new Response(Readable.toWeb(stream) as ReadableStream, {
    headers: {
      'content-type': 'application/octet-stream',
      // pictures and tables are most of it: compressing takes four times as long as all the rest, and gains little
      'cache-control': 'no-store, no-transform',
      'content-disposition': `attachment; filename="etagere-${new Date().toISOString().slice(0, 16).replace(/[T:]/g, '-')}.backup"`,
    },
  });
});
export const POST = serve('POST /api/backup', async ({ person, request }) => {
  if (!request.body) throw new Problem('input-missing', 'No file came.', 'backup', 'Choose a backup.');
  return restoreFor(person, Readable.fromWeb(request.body as NodeStream), dataFolder());
});
