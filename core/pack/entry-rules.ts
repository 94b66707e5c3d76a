/** Rules for the entries of an archive from outside: what is refused, what is left out, and why. Pure. */
import { Problem } from '../problem';

export const limits = {
  entries: 20000,
  entryBytes: 256 * 2 ** 20,
  totalBytes: 4 * 2 ** 30,
  folders: 24,
  nested: 2,
  nestedBytes: 64 * 2 ** 20,
  /** A file may grow to this multiple of its packed size; small files may grow as they like. */
  ratio: 200,
  ratioFrom: 2 ** 20,
  pathLength: 1000,
};

/** Files that systems leave behind, which nobody means to deliver. */
export function leftBehind(path: string): string | null {
  const name = path.split('/').pop()!;
  if (path.split('/').includes('__MACOSX') || name.startsWith('._')) return 'resource file of macOS';
  if (name === '.DS_Store' || name === 'Thumbs.db' || name === 'desktop.ini' || name === '.localized')
    return 'folder settings of a file manager';
  return null;
}

const remedy = 'Ask the supplier for a clean archive; the rest of this one is read.';

/** The clean path of an entry, or the Problem that it is refused with. Back slashes count as separators. */
export function entryPath(raw: string): string {
  const path = raw.replace(/\\/g, '/');

  if (/[\u0000-\u001f\u007f]/.test(path))
    throw new Problem(
      'path-escapes',
      'The entry’s name holds control characters.',
      JSON.stringify(raw).slice(1, 81),
      remedy,
    );
  if (path.startsWith('/') || /^[a-zA-Z]:/.test(path))
    throw new Problem(
      'path-escapes',
      'The entry has an absolute path, which could write anywhere.',
      raw.slice(0, 200),
      remedy,
    );
  const parts = path.split('/').filter((p) => p !== '' && p !== '.');
  if (parts.includes('..'))
    throw new Problem('path-escapes', 'The entry’s path steps out of the archive’s folder.', raw.slice(0, 200), remedy);
  if (parts.length > limits.folders + 1)
    throw new Problem(
      'zip-depth',
      `The entry lies more than ${limits.folders} folders deep.`,
      raw.slice(0, 200),
      remedy,
    );
  if (path.length > limits.pathLength)
    throw new Problem(
      'limit-size',
      `The entry’s path is longer than ${limits.pathLength} characters.`,
      raw.slice(0, 200),
      remedy,
    );
  return parts.join('/');
}

/** Key under which two entries are the same file on a system that folds case and Unicode form. */
export const foldPath = (path: string): string => path.normalize('NFC').toLowerCase();

export interface EntryFacts {
  path: string;
  packed: number;
  size: number;
  encrypted: boolean;
  link: boolean;
  method: number;
}

/** What is wrong with an entry before any of its bytes are read. */
export function refuseEntry(entryFacts: EntryFacts): Problem | null {
  if (entryFacts.link)
    return new Problem('entry-link', 'The entry is a link, which could point anywhere.', entryFacts.path, remedy);
  if (entryFacts.encrypted)
    return new Problem(
      'entry-encrypted',
      'The entry is encrypted.',
      entryFacts.path,
      'Unpack the archive with its password and drop the folder instead.',
    );
  if (entryFacts.size > limits.entryBytes)
    return new Problem(
      'limit-size',
      `The entry is larger than ${limits.entryBytes / 2 ** 20} MB.`,
      entryFacts.path,
      'Bring this file in by itself if it is really needed.',
    );
  if (entryFacts.size > limits.ratioFrom && entryFacts.size > entryFacts.packed * limits.ratio)
    return new Problem(
      'zip-ratio',
      `The entry would grow to ${Math.round(entryFacts.size / Math.max(1, entryFacts.packed))} times its packed size.`,
      entryFacts.path,
      remedy,
    );
  if (entryFacts.method !== 0 && entryFacts.method !== 8)
    return new Problem(
      'zip-method',
      'The entry is packed by a method other than store and deflate.',
      entryFacts.path,
      'Pack the archive anew as a plain ZIP.',
    );
  return null;
}
