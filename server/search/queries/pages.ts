/** Pages of spines: what a search leaves, in an order. */
import type { Sql } from '../../db/pool';
import type { Kind } from '../../items/queries';
import { many } from '../../db/query';

export interface SpineRow {
  id: string;
  kind: Kind;
  title: string;
  short_title: string;
  position: number;
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
  /** the words as they were typed */ typed: string;
  /** the start of a title, for one or two letters */ start: string;
  /** what titles need only resemble */ alike: string;
  /** one list a key: any of it must be borne */ facets: string[][];
  ribbon: 'mine' | 'house' | 'any' | null;
  recent: boolean;
  /** what others brought in since the person last looked */ fresh: boolean;
  shelf: string | null;
  /** headings of the shelf that are left out, with " / " between them */ folded: string[];
  archived: boolean;
}

/** The condition of a search, with its parameters from $1 on. */
export function where(wanted: Where): { text: string; values: unknown[] } {
  const values: unknown[] = [wanted.person];
  const parts: string[] = [wanted.archived ? 'i.archived_at is not null' : 'i.archived_at is null'];
  const add = (value: unknown): string => {
    values.push(value);
    return `$${values.length}`;
  };
  if (wanted.query) parts.push(`i.words @@ to_tsquery('simple', ${add(wanted.query)})`);
  if (wanted.start)
    parts.push(`lower(i.title) collate "C" like ${add(`${wanted.start.toLowerCase().replace(/([\\%_])/g, '\\$1')}%`)}`);
  if (wanted.alike) parts.push(`${add(wanted.alike)} <% i.title`);
  for (const any of wanted.facets)
    parts.push(any.length === 1 ? `i.facets @> array[${add(any[0])}]::text[]` : `i.facets && ${add(any)}::text[]`);
  if (wanted.ribbon)
    parts.push(`exists (select 1 from ribbon r where r.item_id = i.id and ${ribbonOf[wanted.ribbon]})`);
  if (wanted.recent) parts.push('exists (select 1 from item_use u where u.item_id = i.id and u.person_id = $1)');
  if (wanted.fresh)
    parts.push(
      'i.newest_version_id in (select id from version where created_at > (select looked_at from person where id = $1) and author_id is distinct from $1)',
    );
  if (wanted.shelf) parts.push(`i.shelf_id = ${add(wanted.shelf)}::uuid`);
  if (wanted.folded.length) parts.push(`array_to_string(i.headings, ' / ') <> all (${add(wanted.folded)}::text[])`);
  // the person's own number has to be used, or PostgreSQL cannot tell its type
  return { text: `$1::uuid is not null and ${parts.join(' and ')}`, values };
}

/**
 * What is shown of an item. Most lie at no station and have one form: to say so an index is asked, since counting what is
 * different takes a sort for each of them. With "exists" PostgreSQL would rather read all versions once.
 */
export const columns = `
  i.id, i.kind, i.title, i.short_title, i.position, i.headings, i.format, i.status, i.assumed, i.stale, i.cameras, i.supplier, i.tags, i.creator,
  i.shelf_id, i.shelf_order, i.revision, i.created_at, i.touched_at, i.newest_version_id as version_id,
  s.name as shelf, li.name as licence, v.number, v.selvedge, (v.facts->>'size')::int as points,
  v.created_at > (select looked_at from person where id = $1) and v.author_id is distinct from $1 as fresh,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $1) as mine,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house,
  case
    when (
      select true
      from version pv
        join placement pl on pl.version_id = pv.id
      where pv.item_id = i.id
      limit 1
    ) then (
      select count(distinct pl.station_id)::int
      from version pv
        join placement pl on pl.version_id = pv.id
      where pv.item_id = i.id
    )
    else 0
  end as stations,
  case
    when (
      select true
      from version vv
      where vv.item_id = i.id and vv.variant <> ''
      limit 1
    ) then (
      select count(distinct vv.variant)::int
      from version vv
      where vv.item_id = i.id and vv.variant <> ''
    )
    else 0
  end as variants
`;

/**
 * What is shown beside an item that has been chosen for a page. The version is looked up for each, which "offset 0" is for:
 * PostgreSQL takes a page for longer than it is, and would read every version there is instead.
 */
export const joins = `
  join shelf s on s.id = i.shelf_id
  cross join lateral (
    select number, selvedge, facts, created_at, author_id
    from version
    where id = i.newest_version_id
    offset 0
  ) v
  left join licence li on li.id = i.licence_id
`;

const byTitle = 'i.sorted_by';

/** What each order goes by, the first expression first. */
export const sorts = {
  title: [byTitle],
  shelf: ['(select sh.position from shelf sh where sh.id = i.shelf_id)', 'i.shelf_order'],
  position: ['i.position', byTitle],
  kind: ['i.kind', byTitle],
  status: ['i.status', byTitle],
  supplier: ['lower(i.supplier) collate "C"', byTitle],
  made: ['i.created_at'],
  changed: ['i.touched_at'],
  used: ['(select used_at from item_use u where u.item_id = i.id and u.person_id = $1)'],
  /** what bears the words in its title comes before what bears them elsewhere: see `likeness` */ best: [byTitle],
} as const;

export type Sort = keyof typeof sorts;

/**
 * How well an item answers to the words, the best first: its title is these words, has them, has words that begin so; its
 * headings and tags do; anything else that is known of it does.
 */
function likeness(wanted: Where, values: unknown[]): string[] {
  if (!wanted.query) return [];
  const add = (value: string): string => `$${values.push(value)}`;
  const within = (weights: string): string => `i.words @@ to_tsquery('simple', ${add(weights)})`;
  return [
    `case
      when lower(unaccent(i.title)) = lower(unaccent(${add(wanted.typed)})) then 0
      when ${within(wanted.query.replaceAll(':*', ':A'))} then 1
      when ${within(wanted.query.replaceAll(':*', ':*A'))} then 2
      when ${within(wanted.query.replaceAll(':*', ':*AB'))} then 3
      else 4
    end asc`,
  ];
}

export const orderBy = (where: Where, values: unknown[], sort: Sort, down: boolean): string[] => [
  ...(where.alike ? [`word_similarity($${values.indexOf(where.alike) + 1}, i.title) desc`] : []),
  ...(sort === 'best' ? likeness(where, values) : []),
  ...sorts[sort].map((x) => `${x} ${down ? 'desc' : 'asc'}${sort === 'used' ? ' nulls last' : ''}`),
  `i.id${down ? ' desc' : ''}`,
];

/** One page in the order's own index, walked until it is full: for searches that leave much. What is shown beside is looked up for the page alone. */
export async function page(
  sql: Sql,
  wanted: Where,
  sort: Sort,
  down: boolean,
  limit: number,
  offset: number,
): Promise<SpineRow[]> {
  if (sort === 'best') return pageOfBest(sql, wanted, limit, offset);
  const ids = await idsOfPage(sql, where(wanted), (values) => orderBy(wanted, values, sort, down), limit, offset);
  return spinesOf(sql, wanted.person, ids);
}

async function idsOfPage(
  sql: Sql,
  { text, values }: { text: string; values: unknown[] },
  order: (values: unknown[]) => string[],
  limit: number,
  offset: number,
): Promise<string[]> {
  const by = order(values).join(', ');
  const rows = await many<{ id: string }>(
    sql,
    `select i.id from item i where ${text} order by ${by} limit ${limit} offset ${offset}`,
    values,
  );
  return rows.map((row) => row.id);
}

/** More items of one title than these are shown among the others. */
const MOST_OF_ONE_TITLE = 200;

/** Of very much only those that bear the words as their title are lifted; the rest stays in the order that has an index. */
async function pageOfBest(sql: Sql, wanted: Where, limit: number, offset: number): Promise<SpineRow[]> {
  const titled = (is: '=' | '<>') => {
    const clause = where(wanted);
    const typed = `$${clause.values.push(wanted.typed.toLowerCase())}`;
    return { ...clause, text: `${clause.text} and lower(i.title) collate "C" ${is} ${typed}` };
  };
  const byTitles = (values: unknown[]) => orderBy(wanted, values, 'title', false);
  const lifted = await idsOfPage(sql, titled('='), byTitles, MOST_OF_ONE_TITLE, 0);
  const first = lifted.slice(offset, offset + limit);
  const from = Math.max(0, offset - lifted.length);
  const rest = await idsOfPage(sql, titled('<>'), byTitles, limit - first.length, from);
  return spinesOf(sql, wanted.person, [...first, ...rest]);
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
