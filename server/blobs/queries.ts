/** Contents and the chunks of 1 MiB that they lie in; a blob is named by the SHA-256 of all its bytes. */
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

/** How many chunks go in one statement. */
const CHUNKS_AT_ONCE = 64;

export interface Chunk {
  sha: Buffer;
  n: number;
  data: Buffer;
}

/** Whether the content is new; one that is there already is passed over. */
export async function insertBlob(sql: Sql, sha: Buffer, size: number): Promise<boolean> {
  const made = await sql.query('insert into blob (sha256, size) values ($1, $2) on conflict do nothing returning 1', [
    sha,
    size,
  ]);
  return made.rows.length > 0;
}

/** Many at once; answers with the hashes of those that are new. */
export const insertBlobs = async (sql: Sql, blobs: readonly { sha: Buffer; size: number }[]): Promise<Buffer[]> => {
  const made = await many<{ sha256: Buffer }>(
    sql,
    `
      insert into blob (sha256, size)
      select *
      from unnest($1::bytea[], $2::bigint[])
      on conflict do nothing
      returning sha256
    `,
    [blobs.map((blob) => blob.sha), blobs.map((blob) => blob.size)],
  );
  return made.map((row) => row.sha256);
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
