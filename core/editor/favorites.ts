/**
 * Where and how an editor keeps its favorites: a short list of its own, in order, of things that lie in its places. A
 * descriptor says where the list stands, in which form, and by what an entry names its thing.
 */
import { array, object, string } from 'yup';
import { canonical } from '../sync/bundle';
import { asLines, linesOf, withoutMark } from '../sync/list-text';
import { resolveTemplate } from '../sync/place-templates';
import { foldKey } from '../sync/three-way';
import { Problem } from '../problem';
import type { Accepts } from './accepts';
import { isProgram } from './own-folder';
import { isInBundle, listPaths, type System } from './place-schema';

interface Common {
  /** the places whose things may be favorites */ of: string[];
  form: 'json' | 'lines';
  /** The thing is named by the SHA-256 of its content, or by its path below where the list stands. */
  names: 'content' | 'path';
}
export type Favorites =
  /** one list of all: a file, or an entry of a bundle, `{config}/Name/name.json#list/key` */
  | (Common & { list: Partial<Record<System, string>>; eachFolder?: undefined })
  /** a list in each folder, under this name, of what lies in that folder */
  | (Common & { list?: undefined; eachFolder: string });

/** One list of favorites at a station. */
export interface FavoritesList {
  /** root-relative, of a file or of an entry of a bundle */ path: string;
  /** What an entry's path begins with that the list does not write. */ below: string;
  isIn: (path: string) => boolean;
}

const endOf = (name: string): string => name.slice(name.lastIndexOf('.'));

export const favoritesSchema = object({
  of: array().of(string().required()).min(1).required(),
  form: string().oneOf(['json', 'lines']).required(),
  names: string().oneOf(['content', 'path']).required(),
  list: listPaths,
  eachFolder: string()
    .max(60)
    .matches(/^[A-Za-z0-9][\w -]*\.[a-z0-9]{1,8}$/i, '${path} must be a file name such as first.list')
    .test('program', '${path} must not be the name of a program', (name) => !name || !isProgram(endOf(name))),
})
  .noUnknown()
  .default(undefined)
  .test(
    'one',
    '${path} must say exactly one of list and eachFolder',
    (one) => !one || (one.list === undefined) !== (one.eachFolder === undefined),
  );

type Places = Record<string, Partial<Record<System, string>>>;

/** What is wrong with favorites that only the places tell; null where nothing is. */
export function faultOfFavorites(
  places: Places,
  accepts: readonly Accepts[],
  favorites: Favorites,
): { message: string; remedy: string } | null {
  const unknown = favorites.of.find((place) => !places[place]);
  if (unknown !== undefined)
    return {
      message: `Favorites name the place "${unknown}", which is not among the places.`,
      remedy: 'Add the place, or correct the name.',
    };
  const templates = favorites.of.flatMap((place) => Object.values(places[place] ?? {}));
  if (favorites.eachFolder !== undefined && templates.some((template) => template?.includes('#')))
    return {
      message: 'Favorites stand in each folder, and one of their places is a list in a bundle.',
      remedy: 'Give favorites of a bundle a list: {config}/Name/name.json#list/key.',
    };
  const { eachFolder } = favorites;
  if (eachFolder !== undefined && accepts.some(({ extension }) => extension === endOf(eachFolder)))
    return {
      message: `Favorites stand in files that end in ${endOf(eachFolder)}, as files do that the editor takes.`,
      remedy: 'Give the list another ending.',
    };
  if (isInBundle(favorites.list) && favorites.form !== 'json')
    return {
      message: 'Favorites stand in a bundle, and their form is lines.',
      remedy: 'Give favorites of a bundle the form "json".',
    };
  return null;
}

const folderOf = (path: string): string => path.slice(0, path.lastIndexOf('/') + 1);

/** The folders and lists of bundles that may hold favorites, each with "/" at its end. */
const roots = (places: Places, { of }: Favorites, system: System): string[] =>
  of.flatMap((place) => {
    const template = places[place]?.[system];
    return template ? [`${resolveTemplate(template, system)}/`] : [];
  });

/**
 * The lists that an editor may have at a station.
 * @param placed paths of what is placed there and of lists that we have written: of lists that stand in each folder, those
 *   of the folders of these
 */
export function favoritesListsAt(
  places: Places,
  favorites: Favorites,
  system: System,
  placed: readonly string[],
): FavoritesList[] {
  const within = roots(places, favorites, system);
  const isWithin = (path: string): boolean => within.some((root) => path.startsWith(root));
  const { list, eachFolder } = favorites;
  if (eachFolder !== undefined)
    return [...new Set(placed.filter(isWithin).map(folderOf))].sort().map((folder) => ({
      path: folder + eachFolder,
      below: folder,
      isIn: (path) => isWithin(path) && folderOf(path) === folder,
    }));
  const template = list[system];
  if (!template) return [];
  const path = resolveTemplate(template, system);
  const hash = path.indexOf('#');
  return [{ path, below: hash < 0 ? folderOf(path) : path.slice(0, hash + 1), isIn: isWithin }];
}

/** How a list names what lies at a path with this content. */
export const entryOf = ({ names }: Favorites, { below }: FavoritesList, path: string, sha: string): string => {
  if (names === 'content') return sha;
  return path.startsWith(below) ? path.slice(below.length) : path;
};

/** Under which two spellings name one thing at a system. */
export const foldEntry =
  ({ names }: Favorites, system: System) =>
  (entry: string): string =>
    names === 'content' ? entry.toLowerCase() : foldKey(entry, system);

const unreadable = (path: string, why: string): Problem =>
  new Problem(
    'favorites-unreadable',
    `The list of favorites cannot be read: ${why}. It is left as it is.`,
    path,
    'Start the editor and see whether it reads it, or take the file away.',
  );

/** The entries of a list, in order. Throws a Problem where the text is no such list. */
export function readFavorites({ form }: Favorites, path: string, text: string): string[] {
  if (form === 'lines')
    return linesOf(text)
      .map((line) => line.trim())
      .filter(Boolean);
  if (!text.trim()) return [];
  let value: unknown;
  try {
    value = JSON.parse(withoutMark(text));
  } catch (error) {
    throw unreadable(path, (error as Error).message.slice(0, 120));
  }
  if (!Array.isArray(value) || !value.every((entry): entry is string => typeof entry === 'string'))
    throw unreadable(path, 'it is no list of names');
  return value;
}

/**
 * The bytes of a list.
 * @param before the text that it takes the place of, whose mark and ends of lines it keeps
 */
export function writeFavorites({ form, list }: Favorites, entries: readonly string[], before: string): Uint8Array {
  if (form === 'lines') return asLines(entries, before);
  return isInBundle(list) ? canonical(entries) : new TextEncoder().encode(`${JSON.stringify(entries, null, 1)}\n`);
}

/** Something of ours that lies at a station. */
export interface PlacedThing {
  path: string;
  sha: string;
  item: string;
}
/** An entry that we ask for, and by whose ribbon: "" is the house's. */
export interface OurEntry {
  entry: string;
  item: string;
  whose: string;
}

/** What we ask for in a list: what bears a ribbon, in the order of the ribbons, as far as it lies there. */
export function oursOf(
  favorites: Favorites,
  list: FavoritesList,
  placed: readonly PlacedThing[],
  ribbons: readonly { item: string; whose: string }[],
): OurEntry[] {
  const here = placed.filter(({ path }) => list.isIn(path));
  const named = new Set<string>();
  return ribbons.flatMap(({ item, whose }) =>
    here.flatMap((thing) => {
      const entry = entryOf(favorites, list, thing.path, thing.sha);
      if (thing.item !== item || named.has(entry)) return [];
      named.add(entry);
      return [{ entry, item, whose }];
    }),
  );
}
