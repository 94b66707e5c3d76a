/** SQL of favorites: the ribbons in their order, and what the names in a list mean. */
import type { Sql } from '../db/pool';
import { many } from '../db/query';

/** The house's ribbons and then each person's, by the person's name; those of archived items are left out. */
export const ribbonsInOrder = (sql: Sql): Promise<{ item: string; whose: string }[]> =>
  many(
    sql,
    `
      select r.item_id as item, coalesce(p.name, '') as whose
      from ribbon r
        join item i on i.id = r.item_id
        left join person p on p.id = r.person_id
      where i.archived_at is null
      order by p.name nulls first, r.position, r.made_at, r.id
    `,
  );

/** What lies at these paths, each at the station named in the same place of the other list. */
export const contentsAt = (
  sql: Sql,
  agents: readonly string[],
  paths: readonly string[],
): Promise<{ station_id: string; path: string; sha: string }[]> =>
  many(
    sql,
    `
      select i.station_id, i.path, encode(i.sha256, 'hex') as sha
      from unnest($1::uuid[], $2::text[]) as asked (station_id, path)
        join inventory i on i.station_id = asked.station_id and i.path = asked.path
    `,
    [agents, paths],
  );

/** The items that contents are of, as they came in or as they were written for an editor. */
export const itemsOfContents = (
  sql: Sql,
  shas: readonly string[],
): Promise<{ sha: string; item: string; title: string }[]> =>
  many(
    sql,
    `
      with asked as (select decode(unnest($1::text[]), 'hex') as sha256)
      select distinct on (a.sha256) encode(a.sha256, 'hex') as sha, i.id as item, i.title
      from asked a
        join lateral (
          select v.item_id
          from version v
          where v.sha256 = a.sha256
          union all
          select v.item_id
          from rendition r join version v on v.id = r.version_id
          where r.sha256 = a.sha256
        ) as made on true
        join item i on i.id = made.item_id
      order by a.sha256, i.archived_at nulls first, i.id
    `,
    [shas],
  );
