/** Packs as units: what was delivered together. */
import type { ItemSource } from '@/core/item/fields';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';
import type { Kind } from '../items/queries';

export interface PackRow {
  id: string;
  name: string;
  release: string;
  supplier: string;
  source: ItemSource;
  licence_id: string | null;
  licence: string | null;
  created_at: Date;
  arrival_id: string;
  previous_id: string | null;
  /** the release that came after it */ next_id: string | null;
  items: number;
  drafts: number;
  /** on so many stations lies something of it */ stations: number;
}

const COLUMNS = `
  p.id, p.name, p.release, p.supplier, p.source, p.licence_id, l.name as licence, p.created_at, p.arrival_id,
  p.previous_id, n.id as next_id, c.items, c.drafts, c.stations
`;
const FROM = `
  from pack p
    left join licence l on l.id = p.licence_id
    left join lateral (
      select id
      from pack
      where previous_id = p.id
      order by created_at
      limit 1
    ) n on true
    left join lateral (
      select
        count(distinct i.id)::int as items,
        (count(distinct i.id) filter (where i.status = 'draft'))::int as drafts,
        count(distinct pl.station_id)::int as stations
      from pack_member m
        join version v on v.id = m.version_id
        join item i on i.id = v.item_id and i.archived_at is null
        left join placement pl on pl.version_id = v.id
      where m.pack_id = p.id
    ) c on true
`;

/** The newest first. */
export const packs = (sql: Sql): Promise<PackRow[]> =>
  many<PackRow>(sql, `select ${COLUMNS} ${FROM} order by p.created_at desc, p.id`);

export const packById = (sql: Sql, id: string): Promise<PackRow | undefined> =>
  maybe<PackRow>(sql, `select ${COLUMNS} ${FROM} where p.id = $1`, [id]);

/** The pack, held until the transaction ends. */
export const lockPack = async (sql: Sql, id: string): Promise<{ name: string; release: string } | undefined> =>
  maybe<{ name: string; release: string }>(sql, 'select name, release from pack where id = $1 for update', [id]);

export interface MemberRow {
  item_id: string;
  title: string;
  kind: Kind;
  paths: string[];
  /** in this pack */ number: number;
  version_id: string;
  selvedge: [string, string][] | null;
  /** of the item today */ newest: number;
  newest_version_id: string;
  status: string;
  shelf: string;
  archived: boolean;
  stations: number;
}

/** Its items: the newest of their versions that came in it, and where that lies. */
export const members = (sql: Sql, packId: string): Promise<MemberRow[]> =>
  many<MemberRow>(
    sql,
    `
      select
        i.id as item_id, i.title, i.kind, i.status, s.name as shelf, i.archived_at is not null as archived,
        (array_agg(v.id order by (v.variant = '') desc, v.number desc))[1] as version_id,
        max(v.number) as number, array_agg(m.path order by m.path) as paths, n.number as newest,
        n.id as newest_version_id, n.selvedge,
        (
          select count(distinct pl.station_id)::int
          from placement pl join version pv on pv.id = pl.version_id
          where pv.item_id = i.id
        ) as stations
      from pack_member m
        join version v on v.id = m.version_id
        join item i on i.id = v.item_id
        join shelf s on s.id = i.shelf_id
        join version n on n.id = i.newest_version_id
      where m.pack_id = $1
      group by i.id, s.name, n.id
      order by min(m.path)
    `,
    [packId],
  );

/** Where something of a pack lies, by station. */
export const placesOf = (sql: Sql, packId: string): Promise<{ id: string; name: string; files: number }[]> =>
  many<{ id: string; name: string; files: number }>(
    sql,
    `
      select s.id, s.name, count(distinct pl.path)::int as files
      from pack_member m
        join placement pl on pl.version_id = m.version_id
        join station s on s.id = pl.station_id
      where m.pack_id = $1
      group by s.id
      order by s.position
    `,
    [packId],
  );

export const updatePack = (
  sql: Sql,
  id: string,
  pack: { name: string; release: string; supplier: string; source: ItemSource; licenceId: string | null },
) =>
  sql.query(
    `
      update pack
      set name = $2, release = $3, supplier = $4, source = $5, licence_id = $6
      where id = $1
    `,
    [id, pack.name, pack.release, pack.supplier, JSON.stringify(pack.source), pack.licenceId],
  );
