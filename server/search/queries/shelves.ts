/** Spines by shelf, the first of each. */
import type { Sql } from '../../db/pool';
import { many, maybe, one } from '../../db/query';
import { type SpineRow, columns, joins } from './pages';

/** The first few of each shelf, and how many stand there (counted to 1,001); without those that the person put away. */
export const shelvesFirst = async (sql: Sql, person: string, perShelf: number): Promise<SpineRow[]> =>
  many<SpineRow>(sql, {
    // the number stands in the statement: with a value for it, it would be planned anew each time
    name: `first ${Math.trunc(perShelf)} of each shelf`,
    text: `
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
          limit ${Math.trunc(perShelf)}
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
    values: [person],
  });

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

export const shelfFor = async (
  sql: Sql,
  id: string,
): Promise<{ id: string; name: string; note: string; query: Record<string, string> | null } | undefined> =>
  maybe<{ id: string; name: string; note: string; query: Record<string, string> | null }>(
    sql,
    'select id, name, note, query from shelf where id = $1 and archived_at is null',
    [id],
  );
