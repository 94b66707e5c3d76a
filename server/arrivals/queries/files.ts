/** The files of an arrival, as they were announced and as they come. */
import type { Sql } from '../../db/pool';
import { many, maybe, one } from '../../db/query';

export const insertFiles = (
  sql: Sql,
  arrivalId: string,
  paths: string[],
  sizes: number[],
  uploads: (string | null)[],
  shas: (Buffer | null)[],
) =>
  sql.query(
    `
      insert into arrival_file (arrival_id, n, path, size, upload_id, sha256)
      select $1, n, path, size, upload_id, sha256
      from unnest($2::text[], $3::bigint[], $4::uuid[], $5::bytea[]) with ordinality f (path, size, upload_id, sha256, n)
    `,
    [arrivalId, paths, sizes, uploads, shas],
  );

export interface FileRow {
  n: number;
  path: string;
  size: number;
  upload_id: string | null;
  sha256: Buffer | null;
}

export const filesOf = async (sql: Sql, arrivalId: string): Promise<FileRow[]> =>
  many<FileRow>(
    sql,
    `
      select n, path, size, upload_id, sha256
      from arrival_file
      where arrival_id = $1
      order by n
    `,
    [arrivalId],
  );

export const arrivalOfUpload = async (sql: Sql, uploadId: string): Promise<string | undefined> =>
  (await maybe<{ arrival_id: string }>(sql, 'select arrival_id from arrival_file where upload_id = $1', [uploadId]))
    ?.arrival_id;

export const fileArrived = (sql: Sql, uploadId: string, sha: Buffer) =>
  sql.query('update arrival_file set sha256 = $2 where upload_id = $1', [uploadId, sha]);

/** Files of arrivals from a station whose contents its agent has not sent yet. */
export const wantedOf = async (
  sql: Sql,
  stationId: string,
  most = 500,
): Promise<{ path: string; size: number; sha256: Buffer }[]> =>
  many<{ path: string; size: number; sha256: Buffer }>(
    sql,
    `
      select distinct on (inv.sha256) f.path, f.size, inv.sha256
      from arrival i
        join arrival_file f on f.arrival_id = i.id
        join inventory inv on inv.station_id = i.station_id
        and inv.path = f.path
      where i.station_id = $1
        and i.status = 'arriving'
        and f.sha256 is null
      limit $2
    `,
    [stationId, most],
  );

export const contentSent = (sql: Sql, stationId: string, path: string, sha: Buffer) =>
  sql.query(
    `
      update arrival_file f
      set sha256 = $3
      from arrival i, inventory inv
      where i.id = f.arrival_id
        and i.station_id = $1
        and i.status = 'arriving'
        and f.sha256 is null
        and inv.station_id = i.station_id
        and inv.path = f.path
        and (f.path = $2 or inv.sha256 = $3)
    `,
    [stationId, path, sha],
  );

export const dropGone = (sql: Sql, arrivalId: string, stationId: string) =>
  sql.query(
    `
      delete from arrival_file f
      where f.arrival_id = $1
        and f.sha256 is null
        and not exists (
          select 1
          from inventory inv
          where inv.station_id = $2 and inv.path = f.path
        )
    `,
    [arrivalId, stationId],
  );

export const arrivingFrom = async (sql: Sql, stationId: string): Promise<string[]> =>
  (
    await many<{ id: string }>(sql, `select id from arrival where station_id = $1 and status = 'arriving'`, [stationId])
  ).map((r) => r.id);

export const missingFiles = async (sql: Sql, arrivalId: string): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      'select count(*)::int as n from arrival_file where arrival_id = $1 and sha256 is null',
      [arrivalId],
    )
  ).n;

/** What lies in an agent's folders of places and was not put there by us, and is not the same as anything held or asked for. */
export const foundAt = async (
  sql: Sql,
  agentId: string,
  stationId: string,
  prefixes: string[],
): Promise<{ path: string; size: number; sha256: Buffer; here: boolean }[]> =>
  many<{ path: string; size: number; sha256: Buffer; here: boolean }>(
    sql,
    `
      select
        inv.path, inv.size, inv.sha256,
        exists (select 1 from blob b where b.sha256 = inv.sha256) as here
      from inventory inv
      where inv.station_id = $1
        and exists (
          select 1
          from unnest($3::text[]) p
          where starts_with(inv.path, p)
        )
        and not exists (
          select 1
          from placement pl
          where pl.station_id = $2 and pl.path = inv.path
        )
        and not exists (
          select 1
          from ignored_there g
          where g.station_id = $1 and g.path = inv.path and g.sha256 = inv.sha256
        )
      order by inv.path
      limit 20000
    `,
    [agentId, stationId, prefixes],
  );
