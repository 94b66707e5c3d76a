/** Files inside an editor's archive of a look, within limits. */
import { unzipSync } from 'fflate';
import { Problem } from '../problem';

const MOST_MEMBER = 64 * 2 ** 20;

/** Names of an archive's files, without unpacking any; null where it is no readable ZIP. */
export function memberNames(bytes: Uint8Array): string[] | null {
  const names: string[] = [];
  try {
    unzipSync(bytes, {
      filter: (unzipFileInfo) => {
        names.push(unzipFileInfo.name);
        return false;
      },
    });
    return names;
  } catch {
    return null;
  }
}

/** One file of an archive, at most 64 MB. */
export function member(bytes: Uint8Array, name: string): Uint8Array | null {
  let large = false;
  try {
    const out = unzipSync(bytes, {
      filter: (unzipFileInfo) => {
        if (unzipFileInfo.name !== name) return false;
        large =
          unzipFileInfo.originalSize > MOST_MEMBER ||
          unzipFileInfo.originalSize > Math.max(2 ** 20, unzipFileInfo.size * 200);
        return !large;
      },
    })[name];
    if (large)
      throw new Problem(
        'limit-size',
        'A file inside would grow beyond all measure.',
        name,
        'Ask the supplier for the file again.',
      );
    return out ?? null;
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(
      'zip-truncated',
      'The archive is cut off or damaged.',
      name,
      'Ask the supplier for the file again.',
    );
  }
}
