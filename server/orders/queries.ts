/** SQL of standing orders: what stations follow, and what that comes to. */
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface OrderRow {
  id: string;
  name: string;
  author_id: string;
  author: string;
  ribbons: boolean;
  choices: boolean;
  revision: number;
  shelves: { id: string; name: string; selfFilling: boolean }[];
  packs: { id: string; name: string }[];
  groups: string[];
  /** those that are named, and those of its groups */ stations: { id: string; name: string; named: boolean }[];
}

const FROM = `
  select
    o.id, o.name, o.author_id, a.name as author, o.ribbons, o.choices, o.revision, o.groups,
    coalesce(
      (
        select jsonb_agg(
          jsonb_build_object('id', s.id, 'name', s.name, 'selfFilling', s.query is not null) order by s.position, s.name
        )
        from standing_order_shelf f join shelf s on s.id = f.shelf_id
        where f.order_id = o.id
      ),
      '[]'
    ) as shelves,
    coalesce(
      (
        select jsonb_agg(jsonb_build_object('id', p.id, 'name', p.name) order by p.name, p.release)
        from standing_order_pack f join pack p on p.id = f.pack_id
        where f.order_id = o.id
      ),
      '[]'
    ) as packs,
    coalesce(
      (
        select jsonb_agg(
          jsonb_build_object('id', s.id, 'name', s.name, 'named', f.order_id is not null) order by s.position, s.name
        )
        from station s left join standing_order_station f on f.station_id = s.id and f.order_id = o.id
        where s.retired_at is null
          and (f.order_id is not null or s.groups && o.groups)
      ),
      '[]'
    ) as stations
  from standing_order o
    join person a on a.id = o.author_id
`;

export const orders = (sql: Sql): Promise<OrderRow[]> => many<OrderRow>(sql, `${FROM} order by lower(o.name)`);
export const orderById = (sql: Sql, id: string): Promise<OrderRow | undefined> =>
  maybe<OrderRow>(sql, `${FROM} where o.id = $1`, [id]);
export const ordersOfStation = (sql: Sql, station: string): Promise<OrderRow[]> =>
  many<OrderRow>(
    sql,
    `
      ${FROM}
      where o.id in (
        select order_id
        from standing_order_station
        where station_id = $1
      )
        or o.groups && (select s.groups from station s where s.id = $1)
      order by lower(o.name)
    `,
    [station],
  );

export const orderNamed = (sql: Sql, name: string): Promise<{ id: string } | undefined> =>
  maybe(sql, 'select id from standing_order where lower(name) = lower($1)', [name]);

/** Its revision and name, held until the transaction ends. */
export const lockOrder = (sql: Sql, id: string): Promise<{ name: string; revision: number } | undefined> =>
  maybe(sql, 'select name, revision from standing_order where id = $1 for update', [id]);

interface OrderFields {
  id: string;
  name: string;
  ribbons: boolean;
  choices: boolean;
  groups: string[];
}
export const insertOrder = (sql: Sql, order: OrderFields & { authorId: string }) =>
  sql.query(
    `
      insert into standing_order (id, name, author_id, ribbons, choices, groups)
      values ($1, $2, $3, $4, $5, $6)
    `,
    [order.id, order.name, order.authorId, order.ribbons, order.choices, order.groups],
  );
export const updateOrder = (sql: Sql, order: OrderFields) =>
  sql.query(
    `
      update standing_order
      set name = $2, ribbons = $3, choices = $4, groups = $5, revision = revision + 1
      where id = $1
    `,
    [order.id, order.name, order.ribbons, order.choices, order.groups],
  );
export const deleteOrder = (sql: Sql, id: string) => sql.query('delete from standing_order where id = $1', [id]);

const links = {
  shelves: { table: 'standing_order_shelf', column: 'shelf_id', of: 'shelf' },
  packs: { table: 'standing_order_pack', column: 'pack_id', of: 'pack' },
  stations: { table: 'standing_order_station', column: 'station_id', of: 'station' },
} as const;
export type Link = keyof typeof links;
export const linkNames = Object.keys(links) as Link[];

/** Puts these in the place of those that were there; answers how many of them there are. */
export async function setLinks(sql: Sql, order: string, link: Link, ids: readonly string[]): Promise<number> {
  const { table, column, of } = links[link];
  await sql.query(`delete from ${table} where order_id = $1`, [order]);
  const linked = await sql.query(
    `
      insert into ${table} (order_id, ${column})
      select $1, id
      from ${of}
      where id = any ($2::uuid[])
    `,
    [order, ids],
  );
  return linked.rowCount ?? 0;
}

/** Items on shelves, in packs, with the house's ribbon, and in its choices. */
export const itemsFollowed = async (
  sql: Sql,
  from: { shelves: readonly string[]; packs: readonly string[]; ribbons: boolean; choices: boolean },
): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `
        select id
        from item
        where shelf_id = any ($1::uuid[])
        union
        select v.item_id
        from pack_member m join version v on v.id = m.version_id
        where m.pack_id = any ($2::uuid[])
        union
        select item_id
        from ribbon
        where $3 and person_id is null
        union
        select v.item_id
        from house_choice h join version v on v.id in (h.profile_version_id, h.look_version_id)
        where $4
      `,
      [from.shelves, from.packs, from.ribbons, from.choices],
    )
  ).map(({ id }) => id);

export interface FollowedRow {
  item: string;
  variant: string;
  version: string;
  number: number;
  title: string;
  kind: string;
  format: string;
  cameras: string[];
  icc_class: string | null;
}
/** Of each form of the items the newest approved version. */
export const newestApproved = (sql: Sql, items: readonly string[]): Promise<FollowedRow[]> =>
  many<FollowedRow>(
    sql,
    `
      select distinct on (i.title, v.item_id, v.variant)
        v.item_id as item, v.variant, v.id as version, v.number, i.title, i.kind, v.format, i.cameras,
        case when v.format = 'icc' then v.facts ->> 'class' end as icc_class
      from version v join item i on i.id = v.item_id
      where v.item_id = any ($1::uuid[])
        and v.status = 'approved'
        and i.archived_at is null
      order by i.title, v.item_id, v.variant, v.number desc
    `,
    [items],
  );
