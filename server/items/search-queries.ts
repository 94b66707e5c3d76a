import { must } from '@/core/must';
import type { Sql } from '../db/pool';
import type { Kind } from './queries';
import { many, maybe, one } from '../db/query';

export interface SpineRow {
  id: string;
  kind: Kind;
  title: string;
  headings: string[];
  shelf_id: string;
  shelf: string;
  number: number;
  version_id: string;
  format: string;
  status: 'draft' | 'approved' | 'retired';
  selvedge: [string, string][] | null;
  mine: boolean;
  house: boolean;
  assumed: boolean;
  stale: boolean;
  fresh: boolean;
  created_at: Date;
  touched_at: Date;
  points: number | null;
  stations: number;
  cameras: string[];
  supplier: string;
  tags: string[];
  creator: string;
  revision: number;
  shelf_order: number;
  variants: number;
  licence: string | null;
  matching: number;
}

/** Whose ribbon it is; the person who asks is the first value. */
const ribbonOf = {
  mine: 'r.person_id = $1',
  house: 'r.person_id is null',
  any: '(r.person_id = $1 or r.person_id is null)',
} as const;

export interface Where {
  person: string;
  /** a tsquery, empty for none */ query: string;
  /** the start of a title, for one or two letters */ start: string;
  /** what titles need only resemble */ alike: string;
  /** one list a key: any of it must be borne */ facets: string[][];
  ribbon: 'mine' | 'house' | 'any' | null;
  recent: boolean;
  /** what others brought in since the person last looked */ fresh: boolean;
  shelf: string | null;
  archived: boolean;
}

/** The condition of a search, with its parameters from $1 on. */
export function where(w: Where): { text: string; values: unknown[] } {
  const values: unknown[] = [w.person];
  const parts: string[] = [w.archived ? 'i.archived_at is not null' : 'i.archived_at is null'];
  const add = (value: unknown): string => {
    values.push(value);
    return `$${values.length}`;
  };
  if (w.query) parts.push(`i.words @@ to_tsquery('simple', ${add(w.query)})`);
  if (w.start)
    parts.push(`lower(i.title) collate "C" like ${add(`${w.start.toLowerCase().replace(/([\\%_])/g, '\\$1')}%`)}`);
  if (w.alike) parts.push(`${add(w.alike)} <% i.title`);
  for (const any of w.facets)
    parts.push(any.length === 1 ? `i.facets @> array[${add(any[0])}]::text[]` : `i.facets && ${add(any)}::text[]`);
  if (w.ribbon) parts.push(`exists (select 1 from ribbon r where r.item_id = i.id and ${ribbonOf[w.ribbon]})`);
  if (w.recent) parts.push('exists (select 1 from item_use u where u.item_id = i.id and u.person_id = $1)');
  if (w.fresh)
    parts.push(
      'i.newest_version_id in (select id from version where created_at > (select looked_at from person where id = $1) and author_id is distinct from $1)',
    );
  if (w.shelf) parts.push(`i.shelf_id = ${add(w.shelf)}::uuid`);
  // the person's own number has to be used, or PostgreSQL cannot tell its type
  return { text: `$1::uuid is not null and ${parts.join(' and ')}`, values };
}

const columns = `i.id, i.kind, i.title, i.headings, i.shelf_id, s.name as shelf, v.number, i.newest_version_id as version_id, i.format, i.status, v.selvedge, i.assumed, i.stale, i.created_at, i.touched_at, i.cameras, i.supplier, i.tags, i.creator, i.revision, i.shelf_order, li.name as licence, (v.facts->>'size')::int as points,
  v.created_at > (select looked_at from person where id = $1) and v.author_id is distinct from $1 as fresh,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $1) as mine, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house,
  (select count(distinct pl.station_id)::int from version pv join placement pl on pl.version_id = pv.id where pv.item_id = i.id) as stations, (select count(distinct vv.variant)::int from version vv where vv.item_id = i.id and vv.variant <> '') as variants`;
const joins =
  'join shelf s on s.id = i.shelf_id join version v on v.id = i.newest_version_id left join licence li on li.id = i.licence_id';

const byTitle = 'lower(i.title) collate "C"';
export const sorts = {
  title: byTitle,
  shelf: '(select sh.position from shelf sh where sh.id = i.shelf_id), i.shelf_order',
  kind: `i.kind, ${byTitle}`,
  status: `i.status, ${byTitle}`,
  supplier: `lower(i.supplier) collate "C", ${byTitle}`,
  made: 'i.created_at',
  changed: 'i.touched_at',
  used: '(select used_at from item_use u where u.item_id = i.id and u.person_id = $1)',
} as const;
export type Sort = keyof typeof sorts;

const orderBy = (where: Where, values: unknown[], sort: Sort, down: boolean): string[] => [
  ...(where.alike ? [`word_similarity($${values.indexOf(where.alike) + 1}, i.title) desc`] : []),
  ...sorts[sort]
    .split(/, (?![^(]*\))/)
    .map((x) => `${x} ${down ? 'desc' : 'asc'}${sort === 'used' ? ' nulls last' : ''}`),
  `i.id${down ? ' desc' : ''}`,
];

/** One page in the order's own index, walked until it is full: for searches that leave much. What is shown beside is looked up for the page alone. */
export async function page(
  sql: Sql,
  w: Where,
  sort: Sort,
  down: boolean,
  limit: number,
  offset: number,
): Promise<SpineRow[]> {
  const c = where(w);
  const { rows } = await sql.query<{ id: string }>(
    `select i.id from item i where ${c.text} order by ${orderBy(w, c.values, sort, down).join(', ')} limit ${limit} offset ${offset}`,
    c.values,
  );
  return spinesOf(
    sql,
    w.person,
    rows.map((r) => r.id),
  );
}

/** These items, in this order. The statement has a name, so that it is planned once a connection: planning it takes as long as running it. */
export const spinesOf = async (sql: Sql, person: string, ids: string[]): Promise<SpineRow[]> =>
  ids.length
    ? await many<SpineRow>(sql, {
        name: 'spines',
        text: `
          select ${columns}, 0 as matching
          from unnest($2::uuid[]) with ordinality p (id, place) join item i on i.id = p.id ${joins}
          where $1::uuid is not null
          order by p.place
        `,
        values: [person, ids],
      })
    : [];

/** Above `most`, how many match is a lower bound; facets are counted over the first `told` of them. */
export interface Counted {
  n: number;
  facets: { facet: string; n: number }[];
  /** a page of them in order, where not more than `most` match */ ids: string[];
}

/** How many match, the facets of these, and a page of them, in one pass over what matches. */
export async function counted(
  sql: Sql,
  w: Where,
  sort: Sort,
  down: boolean,
  limit: number,
  offset: number,
  most: number,
  told: number,
): Promise<Counted> {
  const c = where(w);
  const order = orderBy(w, c.values, sort, down);
  const keys = order.map((x, i) => `${x.replace(/ (asc|desc)( nulls last)?$/, '')} as k${i}`);
  const by = order.map(
    (x, i) => `k${i}${/ desc/.test(x) ? ' desc' : ''}${/ nulls last$/.test(x) ? ' nulls last' : ''}`,
  );
  const rows = await many<{ facet: string | null; n: number; id: string | null }>(
    sql,
    `
      with
        m as materialized (
          select i.id, i.facets, ${keys.join(', ')}
          from item i
          where ${c.text}
          limit ${most + 1}
        ),
        c as (select count(*)::int as n from m)
      select '' as facet, n, null::uuid as id
      from c
      union all
      select f, count(*)::int, null
      from (select facets from m limit ${told}) x,
        unnest(x.facets) f
      group by f
      union all
      (
        select null, row_number() over (order by ${by.join(', ')})::int, id
        from m
        where (select n from c) <= ${most}
        order by 2
        limit ${limit}
        offset ${offset}
      )
    `,
    c.values,
  );
  return {
    n: rows.find((r) => r.facet === '')?.n ?? 0,
    facets: rows.flatMap((r) => (r.facet ? [{ facet: r.facet, n: r.n }] : [])),
    ids: rows
      .filter((r) => r.id)
      .sort((a, b) => a.n - b.n)
      .map((r) => must(r.id)),
  };
}

/** How many items others brought in since the person last looked, counted to 1,001. */
export const freshCount = async (sql: Sql, person: string): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      `
        select count(*)::int as n
        from (
          select 1
          from version v join item i on i.newest_version_id = v.id
          where v.created_at > (select looked_at from person where id = $1)
            and v.author_id is distinct from $1::uuid
            and i.archived_at is null
          limit 1001
        ) x
      `,
      [person],
    )
  ).n;
export const markSeen = (sql: Sql, person: string) =>
  sql.query('update person set looked_at = now() where id = $1', [person]);

/** Whether anything matches. */
export async function some(sql: Sql, w: Where): Promise<boolean> {
  const c = where(w);
  return (await sql.query(`select 1 from item i where ${c.text} limit 1`, c.values)).rowCount === 1;
}

/** The maintained counts of the whole library. */
export const allCounts = async (sql: Sql): Promise<{ facet: string; n: number }[]> =>
  many<{ facet: string; n: number }>(sql, 'select facet, n from facet_count where n > 0');
export const itemTotal = async (sql: Sql): Promise<number> =>
  (await one<{ n: number }>(sql, `select coalesce(sum(n), 0)::int as n from facet_count where facet like 'kind:%'`)).n;

/** The first few of each shelf, and how many stand there (counted to 1,001); without those that the person put away. */
export const shelvesFirst = async (sql: Sql, person: string, perShelf: number): Promise<SpineRow[]> =>
  many<SpineRow>(
    sql,
    `
      select ${columns}, p.matching
      from shelf sh
        cross join lateral (
          select
            x.id, row_number() over (order by x.shelf_order, x.id) as place,
            (
              select count(*)::int
              from (
                select 1
                from item y
                where y.shelf_id = sh.id and y.archived_at is null
                limit 1001
              ) z
            ) as matching
          from item x
          where x.shelf_id = sh.id and x.archived_at is null
          order by x.shelf_order, x.id
          limit $2
        ) p
        join item i on i.id = p.id ${joins}
      where sh.archived_at is null
        and sh.query is null
        and not exists (
          select 1
          from shelf_away a
          where a.shelf_id = sh.id and a.person_id = $1
        )
      order by sh.position, sh.name, p.place
      limit 2400
    `,
    [person, perShelf],
  );

/** These items by shelf, the first few of each, and how many of each shelf they are. */
export const byShelf = async (sql: Sql, person: string, ids: string[], perShelf: number): Promise<SpineRow[]> =>
  many<SpineRow>(sql, {
    name: 'spines by shelf',
    text: `
      select ${columns}, p.matching
      from (
        select
          x.id, row_number() over (partition by x.shelf_id order by x.shelf_order, x.id) as place,
          count(*) over (partition by x.shelf_id)::int as matching
        from item x
        where x.id = any($2::uuid[])
      ) p
        join item i on i.id = p.id ${joins}
      where p.place <= $3 and $1::uuid is not null
      order by s.position, s.name, p.place
    `,
    values: [person, ids, perShelf],
  });

/** On how many shelves these items stand. */
export const shelvesOf = async (sql: Sql, ids: string[]): Promise<number> =>
  (
    await one<{ n: number }>(sql, 'select count(distinct shelf_id)::int as n from item where id = any ($1::uuid[])', [
      ids,
    ])
  ).n;

/** For the rest of the transaction: search through indexes alone. With a limit, the planner else hopes for early hits and reads the whole table where there are none. */
export const byIndexes = (sql: Sql) =>
  sql.query(`select set_config('enable_seqscan', 'off', true), set_config('jit', 'off', true)`);
/** Says how alike a title has to be, for the rest of the transaction. */
export const alikeness = (sql: Sql, least: number) =>
  sql.query(`select set_config('pg_trgm.word_similarity_threshold', $1, true)`, [String(least)]);

export const shelfFor = async (
  sql: Sql,
  id: string,
): Promise<{ id: string; name: string; note: string; query: Record<string, string> | null } | undefined> =>
  maybe<{ id: string; name: string; note: string; query: Record<string, string> | null }>(
    sql,
    'select id, name, note, query from shelf where id = $1 and archived_at is null',
    [id],
  );
