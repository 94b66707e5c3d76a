/** What lies in the folders that the descriptors name. Unchanged files are told by stat alone and not read again. */
import { createHash } from 'node:crypto';
import type { Stats } from 'node:fs';
import { readFile, rename, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Instructions, InventoryFile, ListingReport } from '@/core/sync/protocol';
import { hashFile, inside, walk } from './files';

type Cache = Record<string, { size: number; mtimeMs: number; ino: number; sha256: string }>;

export async function takeInventory(
  root: string,
  state: string,
  places: readonly string[],
): Promise<{ files: InventoryFile[]; digest: string }> {
  const cacheFile = join(state, 'inventory.json');
  const old = JSON.parse(await readFile(cacheFile, 'utf8').catch(() => '{}')) as Cache;
  const fresh: Cache = {};
  const files: InventoryFile[] = [];
  let changed = false;
  for (const place of places) {
    const at = await inside(root, place).catch(() => null);
    const stats = at ? await stat(at).catch(() => null) : null;
    if (!stats) continue;
    for await (const entry of stats.isFile() ? one(place, stats) : walk(root, place)) {
      if (fresh[entry.path]) continue;
      const had = old[entry.path];
      const same = had && had.size === entry.size && had.mtimeMs === entry.mtimeMs && had.ino === entry.ino;
      const sha256 = same ? had.sha256 : await hashFile(join(root, entry.path)).catch(() => null);
      if (!sha256) continue;
      if (!same) changed = true;
      fresh[entry.path] = { size: entry.size, mtimeMs: entry.mtimeMs, ino: entry.ino, sha256 };
      files.push({ path: entry.path, size: entry.size, sha256 });
    }
  }
  files.sort((a, b) => (a.path < b.path ? -1 : 1));
  const hash = createHash('sha256');
  for (const f of files) hash.update(`${f.path}\0${f.size}\0${f.sha256}\n`);
  if (changed || Object.keys(old).length !== files.length) {
    await writeFile(`${cacheFile}.part`, JSON.stringify(fresh));
    await rename(`${cacheFile}.part`, cacheFile);
  }
  return { files, digest: hash.digest('hex') };
}

async function* one(
  path: string,
  stats: Stats,
): AsyncGenerator<{ path: string; size: number; mtimeMs: number; ino: number }> {
  yield { path, size: stats.size, mtimeMs: stats.mtimeMs, ino: stats.ino };
}

/** The editors' own indexes of files that are there, as text. */
export async function readIndexes(root: string, paths: readonly string[]): Promise<{ path: string; text: string }[]> {
  const all = await Promise.all(
    paths.map(async (path) => {
      const file = await inside(root, path).catch(() => null);
      const text = file ? await readFile(file, 'utf8').catch(() => null) : null;
      return text === null || text.length > 500_000 ? [] : [{ path, text }];
    }),
  );
  return all.flat();
}

/** The editors' own listing files, as they are; whether an editor runs is what its list says while its process lives. */
export async function readListings(root: string, listings: Instructions['listings']): Promise<ListingReport[]> {
  return Promise.all(
    listings.map(async (listing): Promise<ListingReport> => {
      const file = await inside(root, listing.path).catch(() => null);
      const text = file ? await readFile(file, 'utf8').catch(() => null) : null;
      if (!file || !text || text.length > 2_000_000)
        return { editor: listing.editor, text: null, running: false, at: null };
      let running = false;
      try {
        const { running: says, pid } = JSON.parse(text) as { running?: boolean; pid?: number };
        running = !!says && (typeof pid !== 'number' || alive(pid));
      } catch {
        /* half-written: the next report has it */
      }
      return { editor: listing.editor, text, running, at: (await stat(file)).mtime.toISOString() };
    }),
  );
}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
