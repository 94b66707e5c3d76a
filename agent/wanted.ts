/** Sends the contents that the server asks for: only files in the watched places, only as the inventory told them. */
import { createHash } from 'node:crypto';
import { readFile, realpath, stat } from 'node:fs/promises';
import { join, sep } from 'node:path';
import { isInside, MOST_CONTENT, type Instructions } from '@/core/sync/protocol';
import type { Server } from './server';

export async function sendWanted(
  server: Pick<Server, 'sendContent'>,
  root: string,
  told: Instructions,
): Promise<number> {
  let sent = 0;
  const base = await realpath(root);
  for (const asked of told.wanted ?? []) {
    if (
      !isInside(asked.path) ||
      !told.places.some((p) => asked.path.startsWith(`${p.path}/`)) ||
      asked.size > MOST_CONTENT
    )
      continue;
    const file = join(root, asked.path);
    const real = await realpath(file).catch(() => null);
    // a link that leaves the root is not followed
    if (!real || !real.startsWith(base + sep) || (await stat(real)).size !== asked.size) continue;
    const bytes = await readFile(real);
    if (createHash('sha256').update(bytes).digest('hex') !== asked.sha256) continue;
    await server.sendContent(asked.sha256, asked.path, bytes);
    sent++;
  }
  return sent;
}
