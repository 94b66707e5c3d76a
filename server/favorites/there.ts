/** The lists of favorites at stations, as they are there and as they would be by our ribbons: what all else here works on. */
import {
  entryOf,
  favoritesListsAt,
  foldEntry,
  oursOf,
  readFavorites,
  type Favorites,
  type FavoritesList,
  type OurEntry,
} from '@/core/editor/favorites';
import { Problem } from '@/core/problem';
import { mergeLists, type MergedList } from '@/core/sync/ordered-lists';
import type { Sql } from '../db/pool';
import { editorsThere, hindrance, type EditorThere } from '../editor-lists/there';
import type { PlacementRow } from '../stations/queries';
import * as q from './queries';

/** One list of one editor at one station. */
export interface ListThere extends EditorThere {
  favorites: Favorites;
  list: FavoritesList;
  /** what of ours there may be a favorite */ placed: readonly Placed[];
  ours: readonly OurEntry[];
}

/** A list that can be merged, or why it cannot. */
export type Merging = { merged: MergedList; theirs: readonly string[] } | { reason: string };

type Placed = PlacementRow & { item_id: string };
/** What is ours and may be used: no index, and nothing that is withdrawn. */
const isUsable = (row: PlacementRow): row is Placed => row.item_id !== null && row.withdrawn === null;

type Ribbons = readonly { item: string; whose: string }[];

/** A station's own ribbons are those of the person who works there; they come after the house's. */
function ribbonsAt(ribbons: Ribbons, person: string): Ribbons {
  const name = person.trim().toLowerCase();
  return ribbons.filter(({ whose }) => !whose || whose.toLowerCase() === name);
}

function listsOf(there: EditorThere, ribbons: Ribbons): ListThere[] {
  const { descriptor, station, agent } = there;
  const { favorites } = descriptor;
  if (!favorites) return [];
  const placed = there.placed.filter(isUsable);
  // a list that we have written is looked after when nothing of ours lies beside it any more
  const paths = [...placed.map(({ path }) => path), ...there.written];
  return favoritesListsAt(descriptor.places, favorites, agent.system, paths).map((list) => ({
    ...there,
    favorites,
    list,
    placed,
    ours: oursOf(
      favorites,
      list,
      placed.map(({ path, sha, item_id }) => ({ path, sha, item: item_id })),
      ribbonsAt(ribbons, station.person),
    ),
  }));
}

/** The lists at these stations, or at all that are used. */
export async function listsAt(sql: Sql, ids: readonly string[] | null): Promise<ListThere[]> {
  const editors = await editorsThere(sql, ids);
  const ribbons = await q.ribbonsInOrder(sql);
  return editors.flatMap((there) => listsOf(there, ribbons));
}

/**
 * The list merged three ways with our ribbons.
 * @param putBack whether what they took off is asked for again
 */
export function merging(there: ListThere, putBack = false): Merging {
  const { favorites, list, agent, ours } = there;
  const reason = hindrance(there, list.path);
  if (reason) return { reason };
  try {
    const base = there.baseAt(list.path).map(String);
    const theirs = readFavorites(favorites, list.path, there.textAt(list.path) ?? '');
    const fold = foldEntry(favorites, agent.system);
    const asked = ours.map(({ entry }) => entry);
    const merged = mergeLists(base, asked, theirs, fold);
    if (!putBack || !merged.takenOff.length) return { merged, theirs };
    const off = new Set(merged.takenOff.map(fold));
    return {
      merged: mergeLists(
        base.filter((entry) => !off.has(fold(entry))),
        asked,
        theirs,
        fold,
      ),
      theirs,
    };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { reason: error.message };
  }
}

/** Whether something is to be written. */
export const isDue = (merging: Merging): boolean =>
  'merged' in merging && JSON.stringify(merging.merged.entries) !== JSON.stringify(merging.theirs);

/** A thing that a list names. */
export interface Named {
  title: string;
  /** of ours; null for what is not held here */ item: string | null;
  /** whether something lies there under the name */ isThere: boolean;
}

/** What the entries of lists are, by list and entry: items of ours, or a name to show. */
export async function namesIn(
  sql: Sql,
  lists: readonly { there: ListThere; entries: readonly string[] }[],
): Promise<(there: ListThere, entry: string) => Named> {
  const contents = await contentsOf(sql, lists);
  const known = new Map((await q.itemsOfContents(sql, [...new Set(contents.values())])).map((one) => [one.sha, one]));
  return (there, entry) => {
    const fold = foldEntry(there.favorites, there.agent.system);
    const placed = there.placed.find(
      ({ path, sha }) => fold(entryOf(there.favorites, there.list, path, sha)) === fold(entry),
    );
    if (placed) return { title: placed.title ?? entry, item: placed.item_id, isThere: true };
    const content = contents.get(keyOf(there, entry));
    const found = known.get(content ?? '');
    if (found) return { title: found.title, item: found.item, isThere: true };
    // of a hash nobody can tell whether something of it lies there that we do not watch
    const isThere = there.favorites.names === 'content' || content !== undefined;
    return { title: titleThere(there, entry), item: null, isThere };
  };
}

const keyOf = ({ agent, list }: ListThere, entry: string): string => `${agent.id} ${list.path} ${entry}`;

/** The content that each entry means, where it is known. */
async function contentsOf(
  sql: Sql,
  lists: readonly { there: ListThere; entries: readonly string[] }[],
): Promise<Map<string, string>> {
  const contents = new Map<string, string>();
  const asked: { there: ListThere; entry: string; path: string }[] = [];
  for (const { there, entries } of lists)
    for (const entry of entries)
      if (there.favorites.names === 'path') asked.push({ there, entry, path: there.list.below + entry });
      else if (/^[0-9a-f]{64}$/i.test(entry)) contents.set(keyOf(there, entry), entry.toLowerCase());
  const lying = new Map(
    (
      await q.contentsAt(
        sql,
        asked.map(({ there }) => there.agent.id),
        asked.map(({ path }) => path),
      )
    ).map(({ station_id, path, sha }) => [`${station_id} ${path}`, sha]),
  );
  for (const { there, entry, path } of asked) {
    const sha = lying.get(`${there.agent.id} ${path}`);
    if (sha) contents.set(keyOf(there, entry), sha);
  }
  return contents;
}

/** What is no item of ours, as its editor calls it, or by its name; a hash is of use to nobody beyond its beginning. */
function titleThere({ favorites, list, listing }: ListThere, entry: string): string {
  if (favorites.names === 'content') return `content ${entry.slice(0, 12)}…`;
  return listing?.listed.find(({ path }) => path === list.below + entry)?.title ?? entry;
}
