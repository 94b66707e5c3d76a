/** Shelves, and the order of items on them. */
import type { Sql } from '../../db/pool';
import { many, maybe, one } from '../../db/query';
import { type SavedSearch, type ShelfRow } from './rows';

export const shelves = async (sql: Sql, person: string): Promise<ShelfRow[]> =>
  many<ShelfRow>(sql, {
    name: 'shelves',
    text: `
      select
        s.id, s.name, s.note, s.position, s.query,
        exists (
          select 1
          from shelf_away a
          where a.shelf_id = s.id and a.person_id = $1
        ) as away,
        (
          select count(*)::int
          from (
            select 1
            from item i
            where i.shelf_id = s.id and i.archived_at is null
            limit 100001
          ) x
        ) as items
      from shelf s
      where s.archived_at is null
      order by s.position, s.name
    `,
    values: [person],
  });

export const insertShelf = (
  sql: Sql,
  shelf: { id: string; name: string; note: string; position: number; query: SavedSearch | null },
) =>
  sql.query('insert into shelf (id, name, note, position, query) values ($1, $2, $3, $4, $5)', [
    shelf.id,
    shelf.name,
    shelf.note,
    shelf.position,
    shelf.query ? JSON.stringify(shelf.query) : null,
  ]);

/** Until the transaction ends, the shelf is not taken away. */
export const holdShelf = (sql: Sql, id: string) => sql.query('select 1 from shelf where id = $1 for share', [id]);
export const shelfById = async (
  sql: Sql,
  id: string,
): Promise<{ id: string; name: string; query: SavedSearch | null } | undefined> =>
  maybe<{ id: string; name: string; query: SavedSearch | null }>(
    sql,
    'select id, name, query from shelf where id = $1 and archived_at is null',
    [id],
  );

/** The shelf of a name that is in use; capitals make no other name. */
export const shelfNamed = (sql: Sql, name: string): Promise<{ id: string; name: string } | undefined> =>
  maybe<{ id: string; name: string }>(
    sql,
    `
      select id, name
      from shelf
      where lower(name) = lower($1) and archived_at is null
    `,
    [name],
  );

export const renameShelf = (sql: Sql, id: string, name: string, note: string) =>
  sql.query('update shelf set name = $2, note = $3 where id = $1', [id, name, note]);

export const archiveShelf = (sql: Sql, id: string) =>
  sql.query('update shelf set archived_at = now() where id = $1', [id]);

export const shelfHolds = async (sql: Sql, id: string): Promise<boolean> =>
  (await sql.query('select 1 from item where shelf_id = $1 and archived_at is null limit 1', [id])).rowCount === 1;

export const shelfAway = (sql: Sql, id: string, person: string) =>
  sql.query('insert into shelf_away (shelf_id, person_id) values ($1, $2) on conflict do nothing', [id, person]);

export const shelfBack = (sql: Sql, id: string, person: string) =>
  sql.query('delete from shelf_away where shelf_id = $1 and person_id = $2', [id, person]);

export const placeShelves = (sql: Sql, ids: string[]) =>
  sql.query(
    `
      update shelf s
      set position = n
      from unnest($1::uuid[]) with ordinality u (id, n)
      where s.id = u.id
    `,
    [ids],
  );

export const lockShelf = (sql: Sql, id: string) => sql.query('select 1 from shelf where id = $1 for update', [id]);

export const shelfOrder = async (sql: Sql, id: string): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `
        select id
        from item
        where shelf_id = $1 and archived_at is null
        order by shelf_order, id
      `,
      [id],
    )
  ).map((r) => r.id);

/** Where items stand, those at the end of their shelves first: each on its shelf, before the one that follows it there. */
export const placesOf = (
  sql: Sql,
  items: readonly string[],
): Promise<{ item: string; shelfId: string; before: string | null }[]> =>
  many(
    sql,
    `
      select id as item, shelf_id as "shelfId", before
      from (
        select
          id, shelf_id, shelf_order,
          lead(id) over (partition by shelf_id order by shelf_order, id) as before
        from item
        where archived_at is null
          and shelf_id in (select shelf_id from item where id = any($1::uuid[]))
      ) standing
      where id = any($1::uuid[])
      order by shelf_id, shelf_order desc, id desc
    `,
    [items],
  );

/** The headings on a shelf in the order in which they first come, each with how many items stand under it. */
export const headingsOf = (sql: Sql, id: string): Promise<{ headings: string[]; items: number }[]> =>
  many(
    sql,
    `
      select headings, count(*)::int as items
      from item
      where shelf_id = $1
        and archived_at is null
        and cardinality(headings) > 0
      group by headings
      order by min(shelf_order), headings
      limit 1000
    `,
    [id],
  );

export const headingsOrder = async (sql: Sql, id: string): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `
        select id
        from item
        where shelf_id = $1 and archived_at is null
        order by lower(array_to_string(headings, chr(1))), position, lower(title), id
      `,
      [id],
    )
  ).map((r) => r.id);

export const shelvesOf = async (
  sql: Sql,
  items: string[],
): Promise<{ id: string; shelf_id: string; shelf: string }[]> =>
  many<{ id: string; shelf_id: string; shelf: string }>(
    sql,
    `
      select i.id, i.shelf_id, s.name as shelf
      from item i join shelf s on s.id = i.shelf_id
      where i.id = any($1::uuid[])
    `,
    [items],
  );

/** Writes only what changes: a place among ten thousand does not rewrite them all twice. */
export const placeItems = (sql: Sql, shelfId: string, order: string[], moved: string[]) =>
  sql.query(
    `
      update item i
      set shelf_id = $1, shelf_order = u.n
      from unnest($2::uuid[]) with ordinality u (id, n)
      where i.id = u.id
        and (i.shelf_order <> u.n or i.shelf_id <> $1)
        and (i.shelf_id = $1 or i.id = any($3::uuid[]))
    `,
    [shelfId, order, moved],
  );

export const lastShelfPosition = async (sql: Sql): Promise<number> =>
  (await one<{ n: number }>(sql, 'select coalesce(max(position), 0)::int as n from shelf')).n;
