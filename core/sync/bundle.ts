/**
 * Bundles: one JSON file in which an editor keeps all that it has, each thing an entry of a list under a key. A place in a
 * bundle is written `file#list`, an entry `file#list/key`, so that an entry is one more path to whoever compares places;
 * its content is its canonical form, so that order and spaces, which editors change as they like, make no difference.
 */
import { applyEdits, modify } from 'jsonc-parser';
import { Problem } from '../problem';
import { same } from '../same';

export interface BundleList {
  /** root-relative path of the bundle */ file: string;
  list: string;
}
export interface EntryAddress extends BundleList {
  key: string;
}

/** The list of a bundle that a place is; null for a folder. */
export function bundleListOf(place: string): BundleList | null {
  const [, file, list] = /^([^#]+)#([^#/]+)$/.exec(place) ?? [];
  return file && list ? { file, list } : null;
}

/** Whether a path of a step is one of an entry: templates of places have their list behind a .json file, and nothing else has. */
export const isEntryPath = (path: string): boolean => /\.json#[A-Za-z][\w-]*\//.test(path);

/** The entry that a path below such a place names. */
export function entryBelow(place: string, path: string): EntryAddress | null {
  const list = bundleListOf(place);
  const key = path.startsWith(`${place}/`) ? path.slice(place.length + 1) : '';
  return list && key ? { ...list, key } : null;
}

/** The entry that a path names by itself; null for a file. */
export function entryAt(path: string): EntryAddress | null {
  const [, place = ''] = /^([^#]+#[^#/]+)\//.exec(path) ?? [];
  return isEntryPath(path) ? entryBelow(place, path) : null;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Keys in order, nothing between the signs: two entries that say the same are the same bytes. */
export function canonical(value: unknown): Uint8Array {
  const inOrder = (_: string, part: unknown): unknown =>
    isObject(part) ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1))) : part;
  return new TextEncoder().encode(JSON.stringify(value, inOrder));
}

const unreadable = (file: string, why: string): Problem =>
  new Problem(
    'bundle-unreadable',
    `The bundle cannot be read: ${why}. It is left as it is.`,
    file,
    'Start the editor and see whether it reads it; it writes it anew when it quits.',
  );

/** A list of the bundle; empty where the bundle does not have it. Throws a Problem where it is no such file. */
function listIn(text: string, { file, list }: BundleList): Record<string, unknown> {
  let bundle: unknown;
  try {
    bundle = JSON.parse(text);
  } catch (error) {
    throw unreadable(file, (error as Error).message.slice(0, 120));
  }
  if (!isObject(bundle)) throw unreadable(file, 'it is no object');
  const entries = Object.hasOwn(bundle, list) ? bundle[list] : {};
  if (!isObject(entries)) throw unreadable(file, `its ${list} are no entries under keys`);
  return entries;
}

/** The entries of a list, in canonical form. */
export const entriesIn = (text: string, at: BundleList): { key: string; bytes: Uint8Array }[] =>
  Object.entries(listIn(text, at)).map(([key, entry]) => ({ key, bytes: canonical(entry) }));

/** One entry in canonical form; null where there is none under the key. */
export function entryIn(text: string, at: EntryAddress): Uint8Array | null {
  const entries = listIn(text, at);
  return Object.hasOwn(entries, at.key) ? canonical(entries[at.key]) : null;
}

/**
 * The bundle's text with one entry put in the place of what is there under its key, or without it.
 * @param entry its JSON; null takes it away
 */
export function withEntry(text: string, at: EntryAddress, entry: Uint8Array | null): string {
  listIn(text, at);
  const value: unknown = entry ? JSON.parse(new TextDecoder().decode(entry)) : undefined;
  // without a layout for what is new: with one, what stands beside it is laid out anew too
  const edits = modify(text, [at.list, at.key], value, {});
  const written = applyEdits(text, edits);
  const now = listIn(written, at);
  // every object has a "constructor" and the like, which are no entries
  const isThere = Object.hasOwn(now, at.key);
  if (isThere !== (entry !== null) || !same(isThere ? now[at.key] : undefined, value))
    throw unreadable(at.file, `${at.key} stands in it more than once`);
  return written;
}
