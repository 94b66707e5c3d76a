/** Who has what: the items of a shelf, a pack or the everyday list, and how each stands at each station. */
import { groupBy } from '@/core/lists';
import type { Standing } from '@/core/sync/standing';
import { isUuid } from '@/core/uuid';
import { pool } from '../db/pool';
import { itemsFollowed } from '../orders/queries';
import { followedItems, standingAt } from '../orders/standing';
import { allow, type Person } from '../people/roles';
import { searchItems } from '../search/service';
import { stations, type StationRow } from './queries';

export const ROWS_AT_ONCE = 100;
export const COLUMNS_AT_ONCE = 24;

/** What is looked at: a shelf, which may fill itself, or a pack; neither is the house's everyday list. */
export interface Asked {
  shelf?: string;
  pack?: string;
  /** the place of the first row, and of the first column */ from?: number;
  at?: number;
  /** those alone that are missing or due at one of the stations shown */ due?: boolean;
}
export interface MatrixCell {
  /** the gravest among the editors there */ is: Standing['is'];
  /** each editor, id@version, with how it stands in it */ editors: { editor: string; is: Standing['is'] }[];
}
export interface MatrixRow {
  item: string;
  version: string;
  title: string;
  number: number;
  /** by station; none where no editor takes it */ cells: Record<string, MatrixCell>;
  /** of the stations shown, those that lack it or its newest version */ due: string[];
}
export interface Matrix {
  stations: Pick<StationRow, 'id' | 'name'>[];
  /** of how many */ columns: number;
  rows: MatrixRow[];
  /** of how many */ of: number;
  /** of the stations shown, in step at so many places of how many */ inStep: number;
  places: number;
}

const GRAVITY: Record<Standing['is'], number> = { missing: 0, 'update-due': 1, 'in-step': 2 };

function cellOf(standing: readonly Standing[]): MatrixCell {
  const editors = standing.map(({ editor, is }) => ({ editor, is }));
  const [gravest] = editors.toSorted((one, other) => GRAVITY[one.is] - GRAVITY[other.is]);
  return { is: gravest?.is ?? 'in-step', editors };
}

async function itemsAsked(person: Person, { shelf, pack }: Asked): Promise<string[]> {
  const only = (id: string | undefined): string[] => (id && isUuid(id) ? [id] : []);
  const [shelves, packs] = [only(shelf), only(pack)];
  const items = await itemsFollowed(pool(), { shelves, packs, ribbons: !shelf && !pack, choices: false });
  if (items.length || !shelves.length) return items;
  // a shelf that fills itself holds what a search finds
  return (await searchItems(person, { shelf: shelf ?? '' }, 500)).rows.map(({ id }) => id);
}

/** A page of the matrix: rows by title, columns in the order of the stations; of a large fleet, no more is looked at. */
export async function matrixFor(person: Person, asked: Asked): Promise<Matrix> {
  allow(person, 'view');
  const sql = pool();
  const all = (await stations(sql)).filter(({ retired_at }) => retired_at === null);
  const [from, at] = [Math.max(0, asked.from ?? 0), Math.max(0, asked.at ?? 0)];
  const shownStations = all.slice(at, at + COLUMNS_AT_ONCE).map(({ id, name }) => ({ id, name }));
  const followed = await followedItems(sql, await itemsAsked(person, asked));
  const standing = await standingAt(
    sql,
    followed,
    shownStations.map(({ id }) => id),
  );
  const byVersion = groupBy(standing, ({ followed: { version } }) => version);
  const rows = followed.map(({ item, version, title, variant, number }): MatrixRow => {
    const own = groupBy(byVersion.get(version) ?? [], ({ station }) => station);
    const cells = Object.fromEntries([...own].map(([station, some]) => [station, cellOf(some)]));
    return {
      item,
      version,
      title: variant ? `${title}, ${variant}` : title,
      number,
      cells,
      due: Object.entries(cells).flatMap(([station, { is }]) => (is === 'in-step' ? [] : [station])),
    };
  });
  const shown = asked.due ? rows.filter(({ due }) => due.length) : rows;
  return {
    stations: shownStations,
    columns: all.length,
    rows: shown.slice(from, from + ROWS_AT_ONCE),
    of: shown.length,
    inStep: standing.filter(({ is }) => is === 'in-step').length,
    places: standing.length,
  };
}
