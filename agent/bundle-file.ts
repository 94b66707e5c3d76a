/** A bundle as it lies at a station: read as a whole, since an editor writes it as a whole. */
import { createHash } from 'node:crypto';
import { open, stat } from 'node:fs/promises';
import { utf8Text } from '@/core/text';
import { inside, Unsafe } from './files';

/** A bundle is held in memory; one that is larger than this is left alone. */
const MOST_BUNDLE = 128 * 2 ** 20;

export interface BundleText {
  text: string;
  /** who may read and write it, which stays as it is */ mode: number;
  /** of the whole file, to tell whether it was changed since */ sha256: string;
}

export const shaOf = (bytes: Uint8Array | string): string => createHash('sha256').update(bytes).digest('hex');

/** What is no UTF-8 could not be written again as it was. */
function textOf(bytes: Uint8Array, path: string): string {
  const text = utf8Text(bytes);
  if (text === null) throw new Unsafe(`"${path}" is no UTF-8 text; it is left alone`);
  return text;
}

/** The bundle's text; null where there is no such file. Throws Unsafe where it lies outside or is no file that can be read. */
export async function readBundle(root: string, path: string): Promise<BundleText | null> {
  const file = await inside(root, path);
  const stats = await stat(file).catch(() => null);
  if (!stats) return null;
  if (!stats.isFile()) throw new Unsafe(`"${path}" is no file; it is left alone`);
  if (stats.size > MOST_BUNDLE) throw new Unsafe(`"${path}" is larger than a bundle may be; it is left alone`);
  const handle = await open(file, 'r');
  try {
    const bytes = await handle.readFile();
    return { text: textOf(bytes, path), mode: stats.mode & 0o777, sha256: shaOf(bytes) };
  } finally {
    await handle.close();
  }
}
