/**
 * Favorites: each editor keeps a short list of its own at each station, and ribbons are ours. Both are merged three ways;
 * a rollout writes what comes of it, and what people there chose for themselves can become ribbons.
 */
import type { BodyOf } from '@/core/api';
import { favoritesEndpoints } from '@/core/api/favorites';
import { foldEntry, writeFavorites } from '@/core/editor/favorites';
import { distinct } from '@/core/lists';
import { Problem } from '@/core/problem';
import { markedEntries, type EntryMark, type MergedList } from '@/core/sync/ordered-lists';
import { counted } from '@/core/words';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { planLists, type ListWrite } from '../editor-lists/rollout';
import { isAt } from '../editor-lists/there';
import { checked } from '../input';
import { ribbonOn } from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { isDue, listsAt, merging, namesIn, type ListThere, type Named } from './there';

export interface FavoriteEntry extends Named {
  mark: EntryMark;
  /** by whose ribbon; "" is the house's, null that there is none */ whose: string | null;
}
export interface FavoritesView {
  station: { id: string; name: string; person: string };
  editor: { id: string; version: string; title: string };
  path: string;
  state: 'in-step' | 'update-due' | 'unread';
  /** why it could not be read */ reason: string;
  entries: FavoriteEntry[];
  /** both sides have moved entries, or they alone: their order stays */ theirOrder: boolean;
}

const headOf = ({ station, descriptor, list }: ListThere) => ({
  station: { id: station.id, name: station.name, person: station.person },
  editor: { id: descriptor.editor, version: descriptor.version, title: descriptor.title },
  path: list.path,
});

/** Every list of favorites at these stations, or at all, with what would become of it. */
export async function favoritesFor(
  person: Person,
  stations: readonly string[] | null = null,
): Promise<FavoritesView[]> {
  allow(person, 'view');
  const sql = pool();
  const lists = (await listsAt(sql, stations)).map((there) => ({ there, merging: merging(there) }));
  const told = lists.map(({ there, merging }) => ({
    there,
    merging,
    marked: 'merged' in merging ? markedEntries(merging.merged) : [],
  }));
  const nameOf = await namesIn(
    sql,
    told.map(({ there, marked }) => ({ there, entries: marked.map(({ entry }) => entry) })),
  );
  return told.map(({ there, merging, marked }): FavoritesView => {
    if ('reason' in merging)
      return { ...headOf(there), state: 'unread', reason: merging.reason, entries: [], theirOrder: false };
    const fold = foldEntry(there.favorites, there.agent.system);
    const whoseOf = new Map(there.ours.map(({ entry, whose }) => [fold(entry), whose]));
    return {
      ...headOf(there),
      state: isDue(merging) ? 'update-due' : 'in-step',
      reason: '',
      entries: marked.map(({ entry, mark }) => ({
        ...nameOf(there, entry),
        mark,
        whose: whoseOf.get(fold(entry)) ?? null,
      })),
      theirOrder: merging.merged.order === 'theirs',
    };
  });
}

/** What a step does to the list, in words. */
function noteOf(merged: MergedList, titleOf: (entry: string) => string): string {
  const named = (entries: readonly string[]): string => entries.map(titleOf).join(', ');
  return (
    [
      merged.added.length ? `adds ${named(merged.added)}` : '',
      merged.removed.length ? `takes off ${named(merged.removed)}` : '',
      merged.theirs.length ? `keeps ${counted(merged.theirs.length, 'favorite')} of their own` : '',
      merged.order === 'ours' ? 'in our order' : '',
    ]
      .filter(Boolean)
      .join('; ') || 'writes each entry once'
  );
}

/** What is written into a list that is due. */
function writeOf(there: ListThere, merged: MergedList, titleOf: (entry: string) => string): ListWrite {
  const { favorites, list, ours } = there;
  return {
    there,
    path: list.path,
    bytes: writeFavorites(favorites, merged.entries, there.textAt(list.path) ?? ''),
    asked: ours.map(({ entry }) => entry),
    note: noteOf(merged, titleOf),
  };
}

/** Plans that these lists get what our ribbons ask for. Throws where nothing is to be written. */
export async function planFavorites(
  person: Person,
  input: BodyOf<'POST /api/favorites/plan'>,
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { places, putBack } = checked(favoritesEndpoints['POST /api/favorites/plan'].body, input);
  return transaction(async (sql) => {
    const lists = (await listsAt(sql, distinct(places.map(({ station }) => station)))).filter((there) =>
      places.some(isAt(there)),
    );
    const due = lists.flatMap((there) => {
      const one = merging(there, putBack);
      return 'merged' in one && isDue(one) ? [{ there, merged: one.merged }] : [];
    });
    if (!due.length)
      throw new Problem(
        'favorites-nothing',
        'None of these lists is to be written: each has what our ribbons ask for, or cannot be read.',
        'favorites',
        'Reload the page; it says of each list how it stands.',
      );
    const nameOf = await namesIn(
      sql,
      due.map(({ there, merged }) => ({ there, entries: [...merged.added, ...merged.removed] })),
    );
    const writes = due.map(({ there, merged }) => writeOf(there, merged, (entry) => nameOf(there, entry).title));
    return { rollout: await planLists(sql, person, 'favorites', writes) };
  });
}

/** What people there chose for themselves gets a ribbon, as far as it is held here. */
export async function ribbonsFromFavorites(
  person: Person,
  input: BodyOf<'POST /api/favorites/ribbons'>,
): Promise<{ set: number }> {
  const { whose, ...place } = checked(favoritesEndpoints['POST /api/favorites/ribbons'].body, input);
  allow(person, whose === 'house' ? 'ribbon.house' : 'ribbon.own');
  return transaction(async (sql) => {
    const lists = (await listsAt(sql, [place.station])).filter((there) => isAt(there)(place));
    const own = lists.map((there) => {
      const one = merging(there);
      return { there, entries: 'merged' in one ? one.merged.theirs : [] };
    });
    const nameOf = await namesIn(sql, own);
    const items = distinct(
      own.flatMap(({ there, entries }) => entries.flatMap((entry) => nameOf(there, entry).item ?? [])),
    );
    if (!items.length)
      throw new Problem(
        'favorites-unknown',
        'None of their own favorites there is an item that is held here.',
        `${place.editor}@${place.version}`,
        'Take it in from the station first.',
      );
    let set = 0;
    for (const item of items) {
      const made = await ribbonOn(sql, item, whose === 'house' ? null : person.id, person.id);
      if (!made.rowCount) continue;
      set++;
      await record(sql, actorOf(person), 'item', item, 'ribbon set', null, { whose });
    }
    return { set };
  });
}
