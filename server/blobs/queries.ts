/** Contents and the chunks of 1 MiB that they lie in; a blob is named by the SHA-256 of all its bytes. */
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

/** How many chunks go in one statement. */
const CHUNKS_AT_ONCE = 64;

export interface Chunk {
  sha: Buffer;
  n: number;
  data: Buffer;
}

/**
 * A content that is put once more is as young as a new one, so that it is not collected before something refers to it. Where
 * a collection is just taking it away, this waits, and puts it anew.
 */
const AGAIN = `
  on conflict (sha256) do update
  set created_at = now()
  where blob.created_at < now() - interval '1 hour'
  returning sha256, xmax = 0 as made
`;

/** Whether the content is new. */
export async function insertBlob(sql: Sql, sha: Buffer, size: number): Promise<boolean> {
  const rows = await many<{ made: boolean }>(sql, `insert into blob (sha256, size) values ($1, $2) ${AGAIN}`, [
    sha,
    size,
  ]);
  return rows.some(({ made }) => made);
}

/** Many at once; answers with the hashes of those that are new. */
export const insertBlobs = async (sql: Sql, blobs: readonly { sha: Buffer; size: number }[]): Promise<Buffer[]> => {
  const rows = await many<{ sha256: Buffer; made: boolean }>(
    sql,
    `
      insert into blob (sha256, size)
      select *
      from unnest($1::bytea[], $2::bigint[])
      ${AGAIN}
    `,
    [blobs.map((blob) => blob.sha), blobs.map((blob) => blob.size)],
  );
  return rows.flatMap((row) => (row.made ? [row.sha256] : []));
};

/** As parameters of their own, bytes travel as they are; an array of them would travel as text of twice the size. */
export async function insertChunks(sql: Sql, chunks: readonly Chunk[]): Promise<void> {
  for (let at = 0; at < chunks.length; at += CHUNKS_AT_ONCE) {
    const some = chunks.slice(at, at + CHUNKS_AT_ONCE);
    const rows = some.map((_, i) => `($${i * 3 + 1}::bytea, $${i * 3 + 2}::int, $${i * 3 + 3}::bytea)`);
    await sql.query(
      `insert into blob_chunk (sha256, n, data) values ${rows.join(', ')}`,
      some.flatMap((chunk) => [chunk.sha, chunk.n, chunk.data]),
    );
  }
}

export const chunkOfBlob = async (sql: Sql, sha: Buffer, n: number): Promise<Buffer | undefined> =>
  (await maybe<{ data: Buffer }>(sql, 'select data from blob_chunk where sha256 = $1 and n = $2', [sha, n]))?.data;

export const chunkOfUpload = async (sql: Sql, uploadId: string, n: number): Promise<Buffer | undefined> =>
  (await maybe<{ data: Buffer }>(sql, 'select data from upload_chunk where upload_id = $1 and n = $2', [uploadId, n]))
    ?.data;

export const copyUploadsChunks = (sql: Sql, uploadId: string, sha: Buffer) =>
  sql.query(
    `
      insert into blob_chunk (sha256, n, data)
      select $1, n, data
      from upload_chunk
      where upload_id = $2
    `,
    [sha, uploadId],
  );

export const deleteUploadsChunks = (sql: Sql, uploadId: string) =>
  sql.query('delete from upload_chunk where upload_id = $1', [uploadId]);

export const sizeOfBlob = async (sql: Sql, sha: Buffer): Promise<number | null> =>
  (await maybe<{ size: number }>(sql, 'select size from blob where sha256 = $1', [sha]))?.size ?? null;

export const headOfBlob = async (sql: Sql, sha: Buffer, bytes: number): Promise<Buffer | undefined> =>
  (
    await maybe<{ head: Buffer }>(
      sql,
      `
        select substring(data from 1 for $2) as head
        from blob_chunk
        where sha256 = $1 and n = 0
      `,
      [sha, bytes],
    )
  )?.head;

const DISCARDED_UPLOADS = `
  select f.upload_id
  from arrival_file f join arrival a on a.id = f.arrival_id
  where a.status = 'discarded' and f.upload_id is not null
`;
/**
 * Where contents are referred to: every column that the database itself holds to them, and those of steps, which name what
 * they put and what lay there before. What lies at stations refers to nothing here.
 */
const REFERRED = `
  select sha256 from version
  union all select sha256 from rendition
  union all select sha256 from frame
  union all select source_sha256 from frame
  union all select camera_data from frame
  union all select sha256 from frame_export
  union all select source_sha256 from chart
  union all select sha256 from chart_reading
  union all select u.sha256 from upload u where u.id not in (${DISCARDED_UPLOADS})
  union all select sha256 from arrival
  union all select f.sha256 from arrival_file f join arrival a on a.id = f.arrival_id where a.status <> 'discarded'
  union all select e.sha256 from arrival_entry e join arrival a on a.id = e.arrival_id where a.status <> 'discarded'
  union all select sha256 from rollout_step
  union all select before from rollout_step
  union all select picture_sha256 from sighting
  union all select result_sha256 from sighting
`;
/** The columns above that the database holds to contents, as `table.column`: a test looks whether there are others. */
export const referringColumns = (sql: Sql): Promise<{ column: string }[]> =>
  many(
    sql,
    `
      select c.conrelid::regclass || '.' || a.attname as column
      from pg_constraint c join pg_attribute a on a.attrelid = c.conrelid and a.attnum = any (c.conkey)
      where c.contype = 'f'
        and c.confrelid = 'blob'::regclass
        and c.conrelid <> 'blob_chunk'::regclass
      order by 1
    `,
  );
/** Makes room for the deletion: entries of discarded arrivals keep what they were, without the content. */
const FORGET = (table: string) => `
  update ${table} t
  set sha256 = null
  from arrival a
  where a.id = t.arrival_id
    and a.status = 'discarded'
    and t.sha256 = any ($1::bytea[])
`;

interface Amount {
  contents: number;
  bytes: number;
}
export const allContents = (sql: Sql): Promise<Amount> =>
  one<Amount>(sql, 'select count(*)::int as contents, coalesce(sum(size), 0)::bigint as bytes from blob');

const UNUSED = `
  select b.sha256, b.size
  from blob b
  where b.created_at < now() - make_interval(days => $1)
    and not exists (select 1 from (${REFERRED}) r (sha256) where r.sha256 = b.sha256)
`;
export const unusedContents = (sql: Sql, days: number): Promise<Amount> =>
  one<Amount>(
    sql,
    `
      with
        referred (sha256) as materialized (${REFERRED})
      select count(*)::int as contents, coalesce(sum(b.size), 0)::bigint as bytes
      from blob b left join (select distinct sha256 from referred) r using (sha256)
      where r.sha256 is null
        and b.created_at < now() - make_interval(days => $1)
    `,
    [days],
  );
/** Deletes at most so many; those that somebody is just putting to use are passed over. */
export async function deleteUnused(sql: Sql, days: number, most: number): Promise<Amount> {
  const rows = await many<{ sha256: Buffer; size: number }>(
    sql,
    `
      ${UNUSED}
      order by b.sha256
      limit $2
      for update of b skip locked
    `,
    [days, most],
  );
  const hashes = rows.map((row) => row.sha256);
  for (const table of ['arrival_file', 'arrival_entry']) await sql.query(FORGET(table), [hashes]);
  await sql.query(
    `
      update upload
      set sha256 = null
      where sha256 = any ($1::bytea[]) and id in (${DISCARDED_UPLOADS})
    `,
    [hashes],
  );
  await sql.query('delete from blob where sha256 = any ($1::bytea[])', [hashes]);
  return { contents: rows.length, bytes: rows.reduce((sum, row) => sum + row.size, 0) };
}
