/** Uploads: files on their way, kept in chunks until they are whole. */
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

export interface UploadRow {
  id: string;
  person_id: string;
  name: string;
  size: number;
  received: number;
  sha256: Buffer | null;
  created_at: Date;
}

/**
 * For the rest of the transaction: its commit does not wait for the disk. For parts of a job that begins anew when it is cut
 * off: the commit that says it is done waits, and with it all that was committed before.
 */
export const withoutWaiting = (sql: Sql) => sql.query(`select set_config('synchronous_commit', 'off', true)`);

export const insertUploads = (sql: Sql, personId: string, ids: string[], names: string[], sizes: number[]) =>
  sql.query(
    `
      insert into upload (id, person_id, name, size)
      select id, $1, name, size
      from unnest($2::uuid[], $3::text[], $4::bigint[]) u (id, name, size)
    `,
    [personId, ids, names, sizes],
  );

export const uploadById = async (sql: Sql, id: string, lock = false): Promise<UploadRow | undefined> =>
  maybe<UploadRow>(
    sql,
    `
      select
        id, person_id, name, size, received, sha256, created_at
      from upload
      where id = $1 ${lock ? 'for update' : ''}
    `,
    [id],
  );

/** Uploads that have not all arrived, with the arrival and the path that they belong to. */
export const openUploads = async (
  sql: Sql,
  personId: string,
  most = 2000,
): Promise<(UploadRow & { arrival_id: string; path: string; arrival: string })[]> =>
  many<UploadRow & { arrival_id: string; path: string; arrival: string }>(
    sql,
    `
      select
        u.id, u.person_id, u.name, u.size, u.received, u.sha256, u.created_at, f.arrival_id, f.path,
        i.name as arrival
      from upload u join arrival_file f on f.upload_id = u.id join arrival i on i.id = f.arrival_id
      where u.person_id = $1
        and u.sha256 is null
        and i.status = 'arriving'
      order by u.created_at, f.n
      limit $2
    `,
    [personId, most],
  );

export const insertUploadChunk = (sql: Sql, id: string, n: number, data: Buffer) =>
  sql.query('insert into upload_chunk (upload_id, n, data) values ($1, $2, $3)', [id, n, data]);

export const uploadReceived = (sql: Sql, id: string, received: number) =>
  sql.query('update upload set received = $2 where id = $1', [id, received]);

export const uploadDone = (sql: Sql, id: string, sha: Buffer) =>
  sql.query('update upload set sha256 = $2 where id = $1', [id, sha]);

export const dropUploadsOf = async (sql: Sql, arrivalId: string): Promise<void> => {
  await sql.query(
    `
      delete from upload_chunk c using arrival_file f
      where f.upload_id = c.upload_id and f.arrival_id = $1
    `,
    [arrivalId],
  );
};
