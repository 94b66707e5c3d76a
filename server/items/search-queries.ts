import type { Sql } from '../db/pool';
import type { Kind } from './queries';

export interface SpineRow {
  id: string; kind: Kind; title: string; headings: string[]; shelf_id: string; shelf: string; number: number; version_id: string; format: string; status: 'draft' | 'approved' | 'retired'; selvedge: [string, string][] | null; mine: boolean; house: boolean; assumed: boolean; stale: boolean; created_at: Date; touched_at: Date;
  points: number | null; stations: number; cameras: string[]; supplier: string; tags: string[]; creator: string; revision: number; shelf_order: number; variants: number; licence: string | null; matching: number;
}

export interface Where { person: string; /** a tsquery, empty for none */ query: string; /** the start of a title, for one or two letters */ start: string; /** what titles need only resemble */ alike: string; /** one list a key: any of it must be borne */ facets: string[][]; ribbon: 'mine' | 'house' | 'any' | null; recent: boolean; shelf: string | null; archived: boolean; lead: string[] | null }

/** The condition of a search, with its parameters from $1 on. */
export function where(w: Where): { text: string; values: unknown[] } {
  const values: unknown[] = [w.person], parts: string[] = [w.archived ? 'i.archived_at is not null' : 'i.archived_at is null'], add = (v: unknown): string => { values.push(v); return `$${values.length}`; };
  if (w.query) parts.push(`i.words @@ to_tsquery('simple', ${add(w.query)})`);
  if (w.start) parts.push(`lower(i.title) like ${add(`${w.start.toLowerCase().replace(/([\\%_])/g, '\\$1')}%`)}`);
  if (w.alike) parts.push(`${add(w.alike)} <% i.title`);
  for (const any of w.facets) parts.push(any.length === 1 ? `i.facets @> array[${add(any[0])}]::text[]` : `i.facets && ${add(any)}::text[]`);
  if (w.ribbon) parts.push(`exists (select 1 from ribbon r where r.item_id = i.id and ${w.ribbon === 'mine' ? 'r.person_id = $1' : w.ribbon === 'house' ? 'r.person_id is null' : '(r.person_id = $1 or r.person_id is null)'})`);
  if (w.recent) parts.push('exists (select 1 from item_use u where u.item_id = i.id and u.person_id = $1)');
  if (w.shelf) parts.push(`i.shelf_id = ${add(w.shelf)}::uuid`);
  if (w.lead) parts.push(`i.id = any (${add(w.lead)}::uuid[])`);
  // the person's own number has to be used, or PostgreSQL cannot tell its type
  return { text: `$1::uuid is not null and ${parts.join(' and ')}`, values };
}

const columns = `i.id, i.kind, i.title, i.headings, i.shelf_id, s.name as shelf, v.number, i.newest_version_id as version_id, i.format, i.status, v.selvedge, i.assumed, i.stale, i.created_at, i.touched_at, i.cameras, i.supplier, i.tags, i.creator, i.revision, i.shelf_order, li.name as licence, (v.facts->>'size')::int as points,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $1) as mine, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house,
  (select count(distinct pl.station_id)::int from version pv join placement pl on pl.version_id = pv.id where pv.item_id = i.id) as stations, (select count(distinct vv.variant)::int from version vv where vv.item_id = i.id and vv.variant <> '') as variants`;
const joins = 'join shelf s on s.id = i.shelf_id join version v on v.id = i.newest_version_id left join licence li on li.id = i.licence_id';

export const sorts = { title: 'lower(i.title)', shelf: 's.position, i.shelf_order', kind: 'i.kind, lower(i.title)', status: 'i.status, lower(i.title)', supplier: 'lower(i.supplier), lower(i.title)', made: 'i.created_at', changed: 'i.touched_at', used: '(select used_at from item_use u where u.item_id = i.id and u.person_id = $1)' } as const;
export type Sort = keyof typeof sorts;

/** One page of a search. */
export async function page(sql: Sql, w: Where, sort: Sort, down: boolean, limit: number, offset: number): Promise<SpineRow[]> {
  const c = where(w), order = sorts[sort].split(', ').map((x) => `${x} ${down ? 'desc' : 'asc'}${sort === 'used' ? ' nulls last' : ''}`).join(', ');
  // the page is chosen first, so that what is shown beside is looked up for it alone
  return (await sql.query<SpineRow>(`with picked as materialized (select i.id, row_number() over () as place from (select i.* from item i ${sort === 'shelf' ? 'join shelf s on s.id = i.shelf_id' : ''} where ${c.text} order by ${order}, i.id limit ${limit} offset ${offset}) i)
    select ${columns}, 0 as matching from picked p join item i on i.id = p.id ${joins} order by p.place`, c.values)).rows;
}

/** How many match, counted to a limit, and the facets of these with their counts. */
export async function counts(sql: Sql, w: Where, most: number): Promise<{ n: number; facets: { facet: string; n: number }[] }> {
  const c = where(w);
  const rows = (await sql.query<{ facet: string; n: number }>(`with m as materialized (select i.facets from item i where ${c.text} limit ${most + 1}) select '' as facet, count(*)::int as n from m union all select f, count(*)::int from m, unnest(m.facets) f group by f`, c.values)).rows;
  return { n: rows.find((r) => r.facet === '')?.n ?? 0, facets: rows.filter((r) => r.facet !== '') };
}
/** The maintained counts of the whole library. */
export const allCounts = async (sql: Sql): Promise<{ facet: string; n: number }[]> => (await sql.query<{ facet: string; n: number }>('select facet, n from facet_count where n > 0')).rows;
export const itemTotal = async (sql: Sql): Promise<number> => (await sql.query<{ n: number }>(`select coalesce(sum(n), 0)::int as n from facet_count where facet like 'kind:%'`)).rows[0]!.n;

/** The first few of each shelf that a search leaves, and how many of each (counted to 1,001). */
export async function byShelf(sql: Sql, w: Where, perShelf: number): Promise<SpineRow[]> {
  const c = where(w), n = c.values.length;
  return (await sql.query<SpineRow>(`select ${columns}, p.matching from shelf sh
    cross join lateral (select i.id, row_number() over (order by i.shelf_order, i.id) as place, (select count(*)::int from (select 1 from item i where i.shelf_id = sh.id and ${c.text} limit 1001) x) as matching from item i where i.shelf_id = sh.id and ${c.text} order by i.shelf_order, i.id limit $${n + 1}) p
    join item i on i.id = p.id ${joins}
    where sh.archived_at is null and sh.query is null and not exists (select 1 from shelf_away a where a.shelf_id = sh.id and a.person_id = $1) order by sh.position, sh.name, p.place limit 2400`, [...c.values, perShelf])).rows;
}

/** Says how alike a title has to be, for the rest of the transaction. */
export const alikeness = (sql: Sql, least: number) => sql.query(`select set_config('pg_trgm.word_similarity_threshold', $1, true)`, [String(least)]);

export const shelfFor = async (sql: Sql, id: string): Promise<{ id: string; name: string; note: string; query: Record<string, string> | null } | undefined> => (await sql.query<{ id: string; name: string; note: string; query: Record<string, string> | null }>('select id, name, note, query from shelf where id = $1 and archived_at is null', [id])).rows[0];
