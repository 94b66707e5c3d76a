/** Packs: what of arrivals is kept as a unit. */
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

export const insertPack = (
  sql: Sql,
  pack: {
    id: string;
    name: string;
    arrivalId: string;
    supplier: string;
    release: string;
    source: unknown;
    licenceId: string | null;
    previousId: string | null;
  },
) =>
  sql.query(
    `
      insert into pack (id, name, arrival_id, supplier, release, source, licence_id, previous_id)
      values ($1, $2, $3, $4, $5, $6, $7, $8)
    `,
    [
      pack.id,
      pack.name,
      pack.arrivalId,
      pack.supplier,
      pack.release,
      JSON.stringify(pack.source),
      pack.licenceId,
      pack.previousId,
    ],
  );

export const insertMember = (sql: Sql, packId: string, path: string, versionId: string) =>
  sql.query(
    `
      insert into pack_member (pack_id, path, version_id)
      values ($1, $2, $3)
      on conflict do nothing
    `,
    [packId, path, versionId],
  );

export interface PackRow {
  id: string;
  name: string;
  supplier: string;
  release: string;
  created_at: Date;
  members: number;
  arrival_id: string;
}

export const packById = async (sql: Sql, id: string): Promise<PackRow | undefined> =>
  maybe<PackRow>(
    sql,
    `
      select
        p.id, p.name, p.supplier, p.release, p.created_at, p.arrival_id,
        (
          select count(*)::int
          from pack_member m
          where m.pack_id = p.id
        ) as members
      from pack p
      where p.id = $1
    `,
    [id],
  );

/** Packs that share members with an arrival, by content or by path, best first: releases of the same pack. */
export const packsLike = async (sql: Sql, arrivalId: string): Promise<(PackRow & { shared: number })[]> =>
  many<PackRow & { shared: number }>(
    sql,
    `
      select
        p.id, p.name, p.supplier, p.release, p.created_at, p.arrival_id,
        (
          select count(*)::int
          from pack_member m
          where m.pack_id = p.id
        ) as members,
        x.shared
      from (
        select m.pack_id, count(distinct m.path)::int as shared
        from arrival_entry e
          join version v on v.item_id = e.target_item_id
          join pack_member m on m.version_id = v.id
        where e.arrival_id = $1
          and e.outcome in ('duplicate', 'version')
        group by 1
      ) x
        join pack p on p.id = x.pack_id
      order by x.shared desc, p.created_at desc
      limit 5
    `,
    [arrivalId],
  );

export const membersOf = async (
  sql: Sql,
  packId: string,
): Promise<
  {
    path: string;
    version_id: string;
    item_id: string;
    title: string;
    kind: string;
    fingerprint: Buffer | null;
    facts: Record<string, unknown>;
    sha256: Buffer;
  }[]
> =>
  many<{
    path: string;
    version_id: string;
    item_id: string;
    title: string;
    kind: string;
    fingerprint: Buffer | null;
    facts: Record<string, unknown>;
    sha256: Buffer;
  }>(
    sql,
    `
      select
        m.path, v.id as version_id, v.item_id, i.title, i.kind, v.fingerprint, v.facts, v.sha256
      from pack_member m join version v on v.id = m.version_id join item i on i.id = v.item_id
      where m.pack_id = $1
      order by m.path
    `,
    [packId],
  );
