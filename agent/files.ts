/** Files below the station's root, safely: no step outwards, no link followed that leaves the root. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { lstat, open, readdir, realpath, type FileHandle } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import { isInside } from '@/core/sync/protocol';

export class Unsafe extends Error {}

/** Absolute path of a root-relative one; throws Unsafe where a link on the way, or the file itself, leaves the root. */
export async function inside(root: string, path: string): Promise<string> {
  if (!isInside(path)) throw new Unsafe(`"${path}" steps out of the station's root`);
  const realRoot = await realpath(root);
  const parts = path.split('/');
  let at = realRoot;
  for (const [i, part] of parts.entries()) {
    at = join(at, part);
    const stats = await lstat(at).catch(() => null);
    if (!stats) break;
    if (stats.isSymbolicLink()) {
      const target = await realpath(at).catch(() => null);
      if (!target || (target !== realRoot && !target.startsWith(realRoot + sep)))
        throw new Unsafe(`"${parts.slice(0, i + 1).join('/')}" is a link that leaves the station's root`);
      if (i === parts.length - 1) throw new Unsafe(`"${path}" is a link; it is left alone`);
    }
  }
  return join(realRoot, path);
}

export async function hashFile(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** The hash of what an open file holds, from its beginning, whatever bears its name by now. */
export async function hashOfHandle(handle: FileHandle): Promise<string> {
  const hash = createHash('sha256');
  const buffer = Buffer.alloc(1 << 20);
  for (let at = 0; ;) {
    const { bytesRead } = await handle.read(buffer, 0, buffer.length, at);
    if (!bytesRead) return hash.digest('hex');
    hash.update(buffer.subarray(0, bytesRead));
    at += bytesRead;
  }
}

/** The hash of a regular file, null where nothing is; a folder or anything else there counts as occupied. */
export async function stateOf(file: string): Promise<string | null> {
  const stats = await lstat(file).catch(() => null);
  if (!stats) return null;
  return stats.isFile() ? hashFile(file) : 'occupied';
}

export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r').catch(() => null);
  await handle?.sync().catch(() => {});
  await handle?.close();
}

/** All regular files below a folder, root-relative with "/"; our own unfinished parts are left out. */
export async function* walk(
  root: string,
  folder: string,
  depth = 0,
): AsyncGenerator<{ path: string; size: number; mtimeMs: number; ino: number }> {
  if (depth > 24) return;
  const at = join(root, folder);
  const entries = await readdir(at, { withFileTypes: true }).catch(() => []);
  for (const dirent of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const full = join(at, dirent.name);
    if (dirent.isDirectory()) yield* walk(root, join(folder, dirent.name), depth + 1);
    else if (dirent.isFile() && !dirent.name.startsWith('.etagere-')) {
      const stats = await lstat(full).catch(() => null);
      if (stats)
        yield {
          path: relative(root, full).split(sep).join('/'),
          size: stats.size,
          mtimeMs: stats.mtimeMs,
          ino: stats.ino,
        };
    }
  }
}
