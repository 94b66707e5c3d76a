import type { Sql } from '../db/pool';
import { many } from '../db/query';

export interface RibbonRow {
  id: number;
  item_id: string;
  title: string;
  kind: string;
  shelf: string;
  selvedge: [string, string][] | null;
  status: string;
  version_id: string;
  made_by: string;
  made_at: Date;
  used_at: Date | null;
  stations: number;
  position: number;
}

/** A person's ribbons, or the house's where person is null, in their order. */
export const ribbons = async (sql: Sql, person: string | null, viewer: string): Promise<RibbonRow[]> =>
  many<RibbonRow>(
    sql,
    `
      select
        r.id, r.item_id, i.title, i.kind, s.name as shelf, v.selvedge, i.status,
        i.newest_version_id as version_id, p.name as made_by, r.made_at, r.position,
        (
          select max(used_at)
          from item_use u
          where u.item_id = i.id
            and ($1::uuid is null or u.person_id = $2)
        ) as used_at,
        (
          select count(distinct pl.station_id)::int
          from version pv join placement pl on pl.version_id = pv.id
          where pv.item_id = i.id
        ) as stations
      from ribbon r
        join item i on i.id = r.item_id
        join shelf s on s.id = i.shelf_id
        left join version v on v.id = i.newest_version_id
        join person p on p.id = r.made_by
      where r.person_id is not distinct from $1::uuid
        and i.archived_at is null
      order by r.position, r.made_at
    `,
    [person, viewer],
  );
export const orderRibbons = (sql: Sql, person: string | null, ids: number[]) =>
  sql.query(
    `
      update ribbon r
      set position = n
      from unnest($2::bigint[]) with ordinality u (id, n)
      where r.id = u.id
        and r.person_id is not distinct from $1::uuid
    `,
    [person, ids],
  );
export const clearRibbons = async (sql: Sql, person: string | null, ids: number[]): Promise<{ item_id: string }[]> =>
  many<{ item_id: string }>(
    sql,
    `
      delete from ribbon
      where id = any($2::bigint[])
        and person_id is not distinct from $1::uuid
      returning item_id
    `,
    [person, ids],
  );
export const ribbonsOn = async (
  sql: Sql,
  itemId: string,
): Promise<{ whose: string | null; made_by: string; made_at: Date }[]> =>
  many<{ whose: string | null; made_by: string; made_at: Date }>(sql, {
    name: 'ribbons of an item',
    text: `
      select o.name as whose, p.name as made_by, r.made_at
      from ribbon r join person p on p.id = r.made_by left join person o on o.id = r.person_id
      where r.item_id = $1
      order by r.person_id nulls first, r.made_at
    `,
    values: [itemId],
  });
