/** Searching the shelves: words with slips forgiven, facets with counts, ribbons, recently used, self-filling shelves. */
import { facetKeys } from '@/core/item/facets';
import { LIST_PAGE } from '@/core/item/list-page';
import { must } from '@/core/must';
import { storable } from '@/core/text';
import { isUuid } from '@/core/uuid';
import { pool, searching, transaction, type Sql } from '../db/pool';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

export type { SpineRow } from './queries';

/** As the address of Shelves has it: words, one list of values a facet, and the rest. */
export interface Search {
  q?: string;
  ribbon?: string;
  recent?: string;
  fresh?: string;
  shelf?: string;
  archived?: string;
  /** headings on the one shelf that are folded, with " / " between them and "|" between one and the next */ folded?: string;
  sort?: string;
  down?: string;
  [facet: string]: string | undefined;
}
/** Up to this many matches are counted; facets are told over the first thousand of them. Above, counts are lower bounds and shown so. */
const COUNTED = 1000;
const TOLD = 1001;
const SCATTERED = 8;
/** More headings than these are not folded at once: an address is only so long. */
const MOST_FOLDED = 200;

/** Words to a query: every word as the beginning of one, all of them; signs are separators. */
export function tsquery(words: string): string {
  return words
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .slice(0, 8)
    .map((w) => `${w}:*`)
    .join(' & ');
}

function ribbonOf(text: string | undefined): q.Where['ribbon'] {
  if (!text) return null;
  return text === 'mine' || text === 'house' ? text : 'any';
}

function whereOf(person: Person, asked: Search, alike = false): q.Where {
  // an address may hold what no database takes
  const search = storable(asked);
  const words = (search.q ?? '').trim().slice(0, 100);
  const short = words.length > 0 && words.length < 3;
  const facets = facetKeys.flatMap((key) => {
    const value = search[key];
    return value
      ? [
          value
            .split('|')
            .slice(0, 20)
            .map((x) => `${key}:${x}`),
        ]
      : [];
  });
  return {
    person: person.id,
    query: short || alike ? '' : tsquery(words),
    typed: words,
    start: short ? words : '',
    alike: alike ? words : '',
    facets,
    ribbon: ribbonOf(search.ribbon),
    recent: search.recent === '1',
    fresh: search.fresh === '1',
    shelf: isUuid(search.shelf) ? search.shelf : null,
    folded: isUuid(search.shelf) ? (search.folded ?? '').split('|').filter(Boolean).slice(0, MOST_FOLDED) : [],
    archived: search.archived === '1',
  };
}
const nothingAsked = (where: q.Where): boolean =>
  !where.query &&
  !where.start &&
  !where.alike &&
  !where.facets.length &&
  !where.ribbon &&
  !where.recent &&
  !where.fresh &&
  !where.shelf &&
  !where.archived;
const sortOf = (search: Search): q.Sort => {
  if (search.sort && Object.hasOwn(q.sorts, search.sort)) return search.sort as q.Sort;
  if (search.recent === '1') return 'used';
  return 'title';
};

/** A self-filling shelf stands for its saved search, narrowed by what is asked besides. */
async function resolved(sql: Sql, search: Search): Promise<Search> {
  if (!isUuid(search.shelf)) return search;
  const shelf = await q.shelfFor(sql, must(search.shelf));
  return shelf?.query
    ? {
        ...shelf.query,
        ...Object.fromEntries(Object.entries(search).filter(([k, v]) => v && k !== 'shelf')),
        shelf: undefined,
        q: [shelf.query.q, search.q].filter(Boolean).join(' '),
      }
    : search;
}

/** Runs a search; where its words are spelled nowhere at all, titles that resemble them. */
async function forgiving<T>(
  person: Person,
  asked: Search,
  run: (sql: Sql, w: q.Where) => Promise<T>,
  empty: (t: T) => boolean,
): Promise<T> {
  const where = whereOf(person, asked);
  const found = await run(searching(), where);
  if (!empty(found) || ((asked.q ?? '').match(/\p{L}/gu)?.length ?? 0) < 4) return found;
  return transaction(async (sql) => {
    await q.byIndexes(sql);
    if (await q.some(sql, { ...whereOf(person, { q: asked.q }), archived: where.archived })) return found;
    await q.alikeness(sql, 0.5);
    return run(sql, whereOf(person, asked, true));
  });
}

const hasWords = (search: Search): boolean => (search.q ?? '').trim().length > 2;

const orderOf = (search: Search, resolvedSearch: Search): { sort: q.Sort; down: boolean } => {
  if (hasWords(search) && !search.sort && search.recent !== '1') return { sort: 'best', down: false };
  const inShelf = search.shelf && !search.sort && resolvedSearch.shelf && !resolvedSearch.recent;
  const asked: q.Sort = inShelf ? 'shelf' : sortOf(search);
  // in the order of a facet of which one value alone is left, titles are the order
  const sort: q.Sort =
    (asked === 'supplier' || asked === 'kind' || asked === 'status') &&
    resolvedSearch[asked] &&
    !resolvedSearch[asked].includes('|')
      ? 'title'
      : asked;
  return { sort, down: search.down === '1' || (sort === 'used' && search.down !== '0') };
};

/** Rows of a search from an offset on. */
export async function searchItems(
  person: Person,
  search: Search,
  limit = 100,
  offset = 0,
): Promise<{ rows: q.SpineRow[] }> {
  allow(person, 'view');
  const most = Math.max(1, Math.min(500, limit));
  const from = Math.max(0, Math.min(100_000, offset));
  const asked = await resolved(pool(), search);
  const { sort, down } = orderOf(search, asked);
  return {
    rows: await forgiving(
      person,
      asked,
      (sql, w) => rowsOf(sql, w, sort, down, most, from),
      (rows) => !rows.length && from === 0,
    ),
  };
}

async function rowsOf(
  sql: Sql,
  where: q.Where,
  sort: q.Sort,
  down: boolean,
  limit: number,
  offset: number,
): Promise<q.SpineRow[]> {
  if (nothingAsked(where) || sort === 'shelf') return q.page(sql, where, sort, down, limit, offset);
  const counted = await q.counted(sql, where, sort, down, limit, offset, COUNTED, 1);
  return counted.n > COUNTED
    ? q.page(sql, where, sort, down, limit, offset)
    : q.spinesOf(sql, where.person, counted.ids);
}

export interface FacetCount {
  key: string;
  value: string;
  n: number;
  /** the count is a lower bound */ more: boolean;
}
export interface Counts {
  n: number;
  more: boolean;
  facets: FacetCount[];
}
const told = (list: { facet: string; n: number }[], cut: boolean): FacetCount[] =>
  list
    .map((row) => {
      const at = row.facet.indexOf(':');
      return {
        key: row.facet.slice(0, at),
        value: row.facet.slice(at + 1),
        n: Math.min(row.n, 1000),
        more: cut || row.n > 1000,
      };
    })
    .sort((a, b) => b.n - a.n || a.value.localeCompare(b.value));
const countsOf = (counted: q.Counted): Counts => ({
  n: Math.min(counted.n, COUNTED),
  more: counted.n > COUNTED,
  facets: told(counted.facets, counted.n >= TOLD),
});

async function wholeCounts(): Promise<Counts> {
  const all = await q.allCounts(pool());
  const count = all.reduce((n, row) => (row.facet.startsWith('kind:') ? n + row.n : n), 0);
  return { n: count, more: false, facets: told(all, false) };
}

export async function searchCounts(person: Person, search: Search): Promise<Counts> {
  allow(person, 'view');
  const asked = await resolved(pool(), search);
  return nothingAsked(whereOf(person, asked))
    ? wholeCounts()
    : countsOf(
        await forgiving(
          person,
          asked,
          (sql, w) => q.counted(sql, w, 'made', false, 1, 0, COUNTED, TOLD),
          (c) => c.n === 0,
        ),
      );
}

/** The first page of a search with its counts: what a screen asks for, in as few queries as it takes. */
export async function searchPage(
  person: Person,
  search: Search,
  limit = LIST_PAGE,
): Promise<{ rows: q.SpineRow[]; counts: Counts }> {
  allow(person, 'view');
  const asked = await resolved(pool(), search);
  const { sort, down } = orderOf(search, asked);
  if (nothingAsked(whereOf(person, asked))) {
    const [counts, rows] = await Promise.all([
      wholeCounts(),
      q.page(pool(), whereOf(person, asked), sort, down, limit, 0),
    ]);
    return { rows, counts };
  }
  return forgiving(
    person,
    asked,
    async (sql, where) => {
      const counted = await q.counted(sql, where, sort, down, limit, 0, COUNTED, TOLD);
      return {
        counts: countsOf(counted),
        rows:
          counted.n > COUNTED
            ? await q.page(sql, where, sort, down, limit, 0)
            : await q.spinesOf(sql, person.id, counted.ids),
      };
    },
    (r) => r.counts.n === 0,
  );
}

/**
 * What a search leaves, by shelf: the first of each, and how many there are of each. A search that leaves more than a
 * thousand, or is scattered over many shelves, is told as one list instead, as is asked for one shelf, the archive, or an order of its own.
 */
export async function searchShelves(
  person: Person,
  search: Search,
  perShelf = 24,
): Promise<{ flat: boolean; rows: q.SpineRow[]; counts: Counts }> {
  allow(person, 'view');
  if (search.view === 'table' || search.shelf || search.recent === '1' || search.archived === '1' || search.sort)
    return { flat: true, ...(await searchPage(person, search)) };
  if (nothingAsked(whereOf(person, search))) {
    const [rows, counts] = await Promise.all([q.shelvesFirst(pool(), person.id, perShelf), wholeCounts()]);
    return { flat: false, rows, counts };
  }
  return forgiving(
    person,
    search,
    async (sql, where) => {
      const sort = where.query ? 'best' : 'title';
      const counted = await q.counted(sql, where, sort, false, COUNTED, 0, COUNTED, TOLD);
      const counts = countsOf(counted);
      if (counted.n > COUNTED) return { flat: true, counts, rows: await q.page(sql, where, sort, false, LIST_PAGE, 0) };
      // what answers best to words stands first, on whatever shelf
      const scattered = sort === 'best' || (await q.shelvesOf(sql, counted.ids)) > SCATTERED;
      return {
        flat: scattered,
        counts,
        rows: scattered
          ? await q.spinesOf(sql, where.person, counted.ids.slice(0, LIST_PAGE))
          : await q.byShelf(sql, where.person, counted.ids, perShelf),
      };
    },
    (r) => r.counts.n === 0,
  );
}

/** An editor and version as they are said: "name@2" is Name 2. */
export const languageWords = (format: string): string =>
  format.replace('@', ' ').replace(/^[a-z]/, (c) => (format.includes('@') ? c.toUpperCase() : c));

/** A spine as screens take it: plain values, dates as text. */
export const spineOf = (spine: q.SpineRow) => ({
  id: spine.id,
  versionId: spine.version_id,
  kind: spine.kind as string,
  title: spine.title,
  shortTitle: spine.short_title,
  position: spine.position,
  headings: spine.headings,
  shelfId: spine.shelf_id,
  shelf: spine.shelf,
  number: spine.number,
  status: spine.status,
  selvedge: spine.selvedge,
  mine: spine.mine,
  house: spine.house,
  assumed: spine.assumed,
  points: spine.points,
  stations: spine.stations,
  stale: spine.stale,
  fresh: spine.fresh,
  matching: spine.matching,
  language: languageWords(spine.format),
  cameras: spine.cameras,
  supplier: spine.supplier,
  licence: spine.licence,
  tags: spine.tags,
  creator: spine.creator,
  revision: spine.revision,
  variants: spine.variants,
  made: spine.created_at.toISOString(),
  changed: spine.touched_at.toISOString(),
});
