/** Searching the shelves: words with slips forgiven, facets with counts, ribbons, recently used, self-filling shelves. */
import { pool, transaction, type Sql } from '../db/pool';
import { allow, type Person } from '../people/roles';
import * as q from './search-queries';

export type { SpineRow } from './search-queries';

/** As the address of Shelves has it: words, one list of values a facet, and the rest. */
export interface Search { q?: string; ribbon?: string; recent?: string; shelf?: string; archived?: string; sort?: string; down?: string; [facet: string]: string | undefined }
export const facetKeys = ['kind', 'bound', 'origin', 'format', 'camera', 'result', 'input', 'supplier', 'licence', 'status', 'tag', 'stale', 'assumed'] as const;
/** Above this, counts are lower bounds and shown so. */
export const COUNTED = 5000;

/** Words to a query: every word as the beginning of one, all of them; signs are separators. */
export function tsquery(words: string): string {
  return words.normalize('NFKD').replace(/[\u0300-\u036f]/g, '').toLowerCase().split(/[^\p{L}\p{N}]+/u).filter(Boolean).slice(0, 8).map((w) => `${w}:*`).join(' & ');
}

function whereOf(person: Person, s: Search, alike = false): q.Where {
  const words = (s.q ?? '').trim().slice(0, 100), short = words.length > 0 && words.length < 3;
  const facets = facetKeys.flatMap((k) => { const v = s[k]; return v ? [v.split('|').slice(0, 20).map((x) => `${k}:${x}`)] : []; });
  return {
    person: person.id, query: short || alike ? '' : tsquery(words), start: short ? words : '', alike: alike ? words : '', facets, ribbon: s.ribbon === 'mine' || s.ribbon === 'house' ? s.ribbon : s.ribbon ? 'any' : null, recent: s.recent === '1',
    shelf: /^[0-9a-f-]{36}$/.test(s.shelf ?? '') ? s.shelf! : null, archived: s.archived === '1', lead: null,
  };
}
const nothingAsked = (w: q.Where): boolean => !w.query && !w.start && !w.alike && !w.facets.length && !w.ribbon && !w.recent && !w.shelf && !w.archived;
const sortOf = (s: Search): q.Sort => (s.sort && s.sort in q.sorts ? (s.sort as q.Sort) : s.recent === '1' ? 'used' : 'title');

/** A self-filling shelf stands for its saved search, narrowed by what is asked besides. */
async function resolved(sql: Sql, s: Search): Promise<Search> {
  if (!/^[0-9a-f-]{36}$/.test(s.shelf ?? '')) return s;
  const shelf = await q.shelfFor(sql, s.shelf!);
  return shelf?.query ? { ...shelf.query, ...Object.fromEntries(Object.entries(s).filter(([k, v]) => v && k !== 'shelf')), shelf: undefined, q: [shelf.query.q, s.q].filter(Boolean).join(' ') } : s;
}

/** Runs a search; where nothing is spelled that way, titles that resemble the words. */
async function forgiving<T>(person: Person, s: Search, run: (sql: Sql, w: q.Where) => Promise<T>, empty: (t: T) => boolean): Promise<{ found: T; alike: boolean }> {
  const asked = await resolved(pool(), s), found = await run(pool(), whereOf(person, asked));
  if (!empty(found) || ((asked.q ?? '').match(/\p{L}/gu)?.length ?? 0) < 4) return { found, alike: false };
  return transaction(async (sql) => { await q.alikeness(sql, 0.5); return { found: await run(sql, whereOf(person, asked, true)), alike: true }; });
}

export interface Page { rows: q.SpineRow[]; alike: boolean }
export async function searchItems(person: Person, s: Search, limit = 100, offset = 0): Promise<Page> {
  allow(person, 'view');
  const n = Math.max(1, Math.min(500, limit)), from = Math.max(0, Math.min(100_000, offset)), down = s.down === '1' || (sortOf(s) === 'used' && s.down !== '0');
  const inShelf = s.shelf && !s.sort && !(await resolved(pool(), s)).recent, sort: q.Sort = inShelf ? 'shelf' : sortOf(s);
  const r = await forgiving(person, s, (sql, w) => q.page(sql, w, sort, down, n, from), (rows) => !rows.length && from === 0);
  return { rows: r.found, alike: r.alike };
}

export interface FacetCount { key: string; value: string; n: number; /** the count is a lower bound */ more: boolean }
export async function searchCounts(person: Person, s: Search): Promise<{ n: number; more: boolean; facets: FacetCount[] }> {
  allow(person, 'view');
  const asked = await resolved(pool(), s);
  const told = (list: { facet: string; n: number }[], cut: boolean): FacetCount[] => list.map((f) => { const at = f.facet.indexOf(':'); return { key: f.facet.slice(0, at), value: f.facet.slice(at + 1), n: Math.min(f.n, 1000), more: cut || f.n > 1000 }; }).sort((a, b) => b.n - a.n || a.value.localeCompare(b.value));
  if (nothingAsked(whereOf(person, asked))) { const [all, n] = await Promise.all([q.allCounts(pool()), q.itemTotal(pool())]); return { n, more: false, facets: told(all, false) }; }
  const { found } = await forgiving(person, s, (sql, w) => q.counts(sql, w, COUNTED), (c) => c.n === 0), cut = found.n > COUNTED;
  return { n: Math.min(found.n, COUNTED), more: cut, facets: told(found.facets, cut) };
}

/** The first of each shelf that the search leaves. */
export async function searchShelves(person: Person, s: Search, perShelf = 24): Promise<q.SpineRow[]> {
  allow(person, 'view');
  return (await forgiving(person, s, (sql, w) => q.byShelf(sql, w, perShelf), (rows) => !rows.length)).found;
}

/** "oxbow@2" as it is said: Oxbow 2. */
export const languageWords = (format: string): string => format.replace('@', ' ').replace(/^[a-z]/, (c) => (format.includes('@') ? c.toUpperCase() : c));

/** A spine as screens take it: plain values, dates as text. */
export const spineOf = (v: q.SpineRow) => ({
  id: v.id, versionId: v.version_id, kind: v.kind as string, title: v.title, headings: v.headings, shelfId: v.shelf_id, shelf: v.shelf, number: v.number, status: v.status, selvedge: v.selvedge, mine: v.mine, house: v.house, assumed: v.assumed, points: v.points, stations: v.stations, stale: v.stale, matching: v.matching,
  language: languageWords(v.format), cameras: v.cameras, supplier: v.supplier, licence: v.licence, tags: v.tags, creator: v.creator, revision: v.revision, variants: v.variants, made: v.created_at.toISOString(), changed: v.touched_at.toISOString(),
});
