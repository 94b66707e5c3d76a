/** How many there are: by facet, of a search and of the whole library. */
import { must } from '@/core/must';
import type { Sql } from '../../db/pool';
import { many, nameOf, one } from '../../db/query';
import { type Where, where, type Sort, orderBy } from './pages';

/** Above `most`, how many match is a lower bound; facets are counted over the first `told` of them. */
export interface Counted {
  n: number;
  facets: { facet: string; n: number }[];
  /** a page of them in order, where not more than `most` match */ ids: string[];
}

/** How many match, the facets of these, and a page of them, in one pass over what matches. */
export async function counted(
  sql: Sql,
  wanted: Where,
  sort: Sort,
  down: boolean,
  limit: number,
  offset: number,
  most: number,
  told: number,
): Promise<Counted> {
  const clause = where(wanted);
  const order = orderBy(wanted, clause.values, sort, down);
  const keys = order.map((x, i) => `${x.replace(/ (asc|desc)( nulls last)?$/, '')} as k${i}`);
  const by = order.map(
    (x, i) => `k${i}${/ desc/.test(x) ? ' desc' : ''}${/ nulls last$/.test(x) ? ' nulls last' : ''}`,
  );
  const add = (value: number): string => `$${clause.values.push(value)}`;
  const [upTo, least, countedOver, size, from] = [most, most + 1, told, limit, offset].map(add);
  // unnested in the select list, which takes half the time of a function that is called for each item
  const text = `
    with
      m as materialized (
        select i.id, i.facets, ${keys.join(', ')}
        from item i
        where ${clause.text}
        limit ${least}
      ),
      c as (select count(*)::int as n from m)
    select '' as facet, n, null::uuid as id
    from c
    union all
    select f, count(*)::int, null
    from (
      select unnest(x.facets) as f
      from (select facets from m limit ${countedOver}) x
    ) y
    group by f
    union all
    (
      select null, row_number() over (order by ${by.join(', ')})::int, id
      from (
        select id, ${order.map((_, i) => `k${i}`).join(', ')}
        from m
        where (select n from c) <= ${upTo}
        order by ${by.join(', ')}
        limit ${size}
        offset ${from}
      ) z
      order by 2
    )
  `;
  const rows = await many<{ facet: string | null; n: number; id: string | null }>(sql, {
    name: nameOf('counted', text),
    text,
    values: clause.values,
  });
  return {
    n: rows.find((r) => r.facet === '')?.n ?? 0,
    facets: rows.flatMap((r) => (r.facet ? [{ facet: r.facet, n: r.n }] : [])),
    ids: rows
      .filter((r) => r.id)
      .sort((a, b) => a.n - b.n)
      .map((r) => must(r.id)),
  };
}

/** How many items others brought in since the person last looked, counted to 201: the newest first, until there are enough. */
export const freshCount = async (sql: Sql, person: string): Promise<number> =>
  (
    await one<{ n: number }>(sql, {
      name: 'what is new',
      text: `
        select count(*)::int as n
        from (
          select 1
          from (
            select id
            from version
            where created_at > (select looked_at from person where id = $1)
              and author_id is distinct from $1::uuid
            order by created_at desc
            offset 0
          ) v
            cross join lateral (
              select 1
              from item i
              where i.newest_version_id = v.id and i.archived_at is null
              offset 0
            ) i
          limit 201
        ) x
      `,
      values: [person],
    })
  ).n;

export const markSeen = (sql: Sql, person: string) =>
  sql.query('update person set looked_at = now() where id = $1', [person]);

/** Whether anything matches. */
export async function some(sql: Sql, wanted: Where): Promise<boolean> {
  const clause = where(wanted);
  return (await sql.query(`select 1 from item i where ${clause.text} limit 1`, clause.values)).rowCount === 1;
}

/** The maintained counts of the whole library. */
export const allCounts = async (sql: Sql): Promise<{ facet: string; n: number }[]> =>
  many<{ facet: string; n: number }>(sql, {
    name: 'counts of the library',
    text: 'select facet, n from facet_count where n > 0',
  });
