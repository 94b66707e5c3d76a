/** Sends the contents that the server asks for: only files in the watched places, only as the inventory told them. */
import { readFile, realpath, stat } from 'node:fs/promises';
import { join, sep } from 'node:path';
import { entryBelow, entryIn, type EntryAddress } from '@/core/sync/bundle';
import { isInside, MOST_CONTENT, type Instructions } from '@/core/sync/protocol';
import { readBundle, shaOf } from './bundle-file';
import type { Server } from './server';

export async function sendWanted(
  server: Pick<Server, 'sendContent'>,
  root: string,
  told: Instructions,
): Promise<number> {
  let sent = 0;
  for (const asked of told.wanted ?? []) {
    const place = told.places.find((one) => asked.path.startsWith(`${one.path}/`));
    if (!isInside(asked.path) || !place || asked.size > MOST_CONTENT) continue;
    const entry = entryBelow(place.path, asked.path);
    const bytes = entry ? await entryBytes(root, entry) : await fileBytes(root, asked.path, asked.size);
    if (!bytes || shaOf(bytes) !== asked.sha256) continue;
    await server.sendContent(asked.sha256, asked.path, bytes);
    sent++;
  }
  return sent;
}

async function entryBytes(root: string, entry: EntryAddress): Promise<Buffer | null> {
  try {
    const found = await readBundle(root, entry.file);
    const bytes = found && entryIn(found.text, entry);
    return bytes && Buffer.from(bytes);
  } catch {
    // a bundle that cannot be read just now is asked for again
    return null;
  }
}

/** A link that leaves the root is not followed. */
async function fileBytes(root: string, path: string, size: number): Promise<Buffer | null> {
  const base = await realpath(root);
  const real = await realpath(join(root, path)).catch(() => null);
  if (!real || !real.startsWith(base + sep) || (await stat(real)).size !== size) return null;
  return readFile(real);
}
