/** What lies in the folders, and in the lists of bundles, that the descriptors name. Unchanged files are told by stat alone and not read again. */
import { createHash } from 'node:crypto';
import type { Stats } from 'node:fs';
import { readFile, rename, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { bundleListOf, entriesIn, entryAt, entryIn, type BundleList } from '@/core/sync/bundle';
import type { Instructions, InventoryFile, ListingReport, LookedFor } from '@/core/sync/protocol';
import { readBundle, shaOf } from './bundle-file';
import { hashFile, inside, walk } from './files';
import { tell } from './log';

interface Cached {
  size: number;
  mtimeMs: number;
  ino: number;
  sha256: string;
}
/** A bundle's entries as they were when it was last read. */
interface CachedList {
  size: number;
  mtimeMs: number;
  ino: number;
  entries: InventoryFile[];
}
type Cache = Record<string, Cached>;
type Lists = Record<string, CachedList>;

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
  for (const place of places.filter((one) => !bundleListOf(one))) {
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
  if (changed || Object.keys(old).length !== files.length) {
    await writeFile(`${cacheFile}.part`, JSON.stringify(fresh));
    await rename(`${cacheFile}.part`, cacheFile);
  }
  files.push(...(await takeEntries(root, state, places)));
  files.sort((a, b) => (a.path < b.path ? -1 : 1));
  const hash = createHash('sha256');
  for (const f of files) hash.update(`${f.path}\0${f.size}\0${f.sha256}\n`);
  return { files, digest: hash.digest('hex') };
}

async function* one(
  path: string,
  stats: Stats,
): AsyncGenerator<{ path: string; size: number; mtimeMs: number; ino: number }> {
  yield { path, size: stats.size, mtimeMs: stats.mtimeMs, ino: stats.ino };
}

/**
 * The entries of lists in bundles, as files below their place. A bundle that cannot be read, such as one that is being
 * written, has what it had.
 */
async function takeEntries(root: string, state: string, places: readonly string[]): Promise<InventoryFile[]> {
  const cacheFile = join(state, 'bundles.json');
  const old = JSON.parse(await readFile(cacheFile, 'utf8').catch(() => '{}')) as Lists;
  const fresh: Lists = {};
  for (const place of places) {
    const list = bundleListOf(place);
    const file = list && (await inside(root, list.file).catch(() => null));
    const stats = file ? await stat(file).catch(() => null) : null;
    if (!list || !stats) continue;
    const { size, mtimeMs, ino } = stats;
    const had = old[place];
    if (had?.size === size && had.mtimeMs === mtimeMs && had.ino === ino) fresh[place] = had;
    else fresh[place] = { size, mtimeMs, ino, entries: (await entriesAt(root, place, list)) ?? had?.entries ?? [] };
  }
  if (!isDeepStrictEqual(old, fresh)) {
    await writeFile(`${cacheFile}.part`, JSON.stringify(fresh));
    await rename(`${cacheFile}.part`, cacheFile);
  }
  return Object.values(fresh).flatMap(({ entries }) => entries);
}

/** null where the bundle cannot be read. */
async function entriesAt(root: string, place: string, list: BundleList): Promise<InventoryFile[] | null> {
  try {
    const found = await readBundle(root, list.file);
    return entriesIn(found?.text ?? '{}', list).map(({ key, bytes }) => ({
      path: `${place}/${key}`,
      size: bytes.length,
      sha256: shaOf(bytes),
    }));
  } catch (error) {
    tell((error as Error).message);
    return null;
  }
}

/** Longer ones are not told: no editor's index is. */
const MOST_INDEX = 500_000;

/**
 * The editors' own indexes and short lists that are there, as text; of an entry of a bundle, its canonical form. What is no
 * UTF-8 is told with U+FFFD, by which the server leaves it as it is.
 */
export async function readIndexes(root: string, paths: readonly string[]): Promise<{ path: string; text: string }[]> {
  const all = await Promise.all(
    paths.map(async (path) => {
      const text = await textAt(root, path).catch(() => null);
      return text === null || text.length > MOST_INDEX ? [] : [{ path, text }];
    }),
  );
  return all.flat();
}

/** Entries as text, by their path, while the bundle that holds them stays as it was: bundles are large. */
const entryTexts = new Map<string, { stamp: string; text: string | null }>();

async function textAt(root: string, path: string): Promise<string | null> {
  const entry = entryAt(path);
  if (!entry) return await readFile(await inside(root, path), 'utf8');
  const { size, mtimeMs, ino } = await stat(await inside(root, entry.file));
  const stamp = `${root} ${size} ${mtimeMs} ${ino}`;
  const known = entryTexts.get(path);
  if (known?.stamp === stamp) return known.text;
  const found = await readBundle(root, entry.file);
  const bytes = found && entryIn(found.text, entry);
  const text = bytes && Buffer.from(bytes).toString('utf8');
  entryTexts.set(path, { stamp, text });
  return text;
}

/** Of the editors that the server asks for, those whose own lists lie here. */
export async function findEditors(root: string, lookedFor: readonly LookedFor[]): Promise<string[]> {
  const all = await Promise.all(
    lookedFor.map(async ({ editor, path }) => {
      const found = await inside(root, path)
        .then((file) => stat(file))
        .catch(() => null);
      return found?.isFile() ? [editor] : [];
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
