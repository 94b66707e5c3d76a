/** Contents by hash: written once in chunks of 1 MiB, read whole or by range, never held whole where they may be large. */
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export const CHUNK = 1 << 20;
const ROWS = 64;
export const hex = (b: Buffer): string => b.toString('hex');
export const bytesOf = (sha: string): Buffer => Buffer.from(sha, 'hex');
export const sha256 = (b: Uint8Array): Buffer => createHash('sha256').update(b).digest();

/** Writes small contents; returns the hash. Writing what is there already does nothing. */
export async function putBlob(sql: Sql, bytes: Uint8Array): Promise<Buffer> {
  const sha = sha256(bytes);
  const made = await sql.query('insert into blob (sha256, size) values ($1, $2) on conflict do nothing returning 1', [
    sha,
    bytes.length,
  ]);
  if (made.rowCount)
    for (let n = 0; n * CHUNK < bytes.length; n++)
      await sql.query('insert into blob_chunk (sha256, n, data) values ($1, $2, $3)', [
        sha,
        n,
        Buffer.from(bytes.subarray(n * CHUNK, (n + 1) * CHUNK)),
      ]);
  return sha;
}

/** Makes a blob of a finished upload's chunks, hashed on the way. */
export async function blobOfUpload(sql: Sql, uploadId: string): Promise<Buffer> {
  const hash = createHash('sha256');
  let size = 0;
  for (let n = 0; ; n++) {
    const result = await sql.query<{ data: Buffer }>('select data from upload_chunk where upload_id = $1 and n = $2', [
      uploadId,
      n,
    ]);
    if (!result.rows[0]) break;
    hash.update(result.rows[0].data);
    size += result.rows[0].data.length;
  }
  const sha = hash.digest();
  const made = await sql.query('insert into blob (sha256, size) values ($1, $2) on conflict do nothing returning 1', [
    sha,
    size,
  ]);
  if (made.rowCount)
    await sql.query(
      `
        insert into blob_chunk (sha256, n, data)
        select $1, n, data
        from upload_chunk
        where upload_id = $2
      `,
      [sha, uploadId],
    );
  await sql.query('delete from upload_chunk where upload_id = $1', [uploadId]);
  return sha;
}

export async function* blobChunks(sha: Buffer, sql: Sql = pool()): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const result = await sql.query<{ data: Buffer }>('select data from blob_chunk where sha256 = $1 and n = $2', [
      sha,
      n,
    ]);
    if (!result.rows[0]) return;
    yield result.rows[0].data;
  }
}

export async function blobSize(sha: Buffer, sql: Sql = pool()): Promise<number | null> {
  return (await maybe<{ size: number }>(sql, 'select size from blob where sha256 = $1', [sha]))?.size ?? null;
}

/** Whole contents, for what is known to be small; verified against the hash. */
export async function getBlob(sha: Buffer, sql: Sql = pool(), most = 512 * CHUNK): Promise<Buffer> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const chunk of blobChunks(sha, sql)) {
    parts.push(chunk);
    size += chunk.length;
    if (size > most)
      throw new Problem(
        'limit-size',
        'This content is too large to be read at once.',
        hex(sha),
        'Download it instead.',
      );
  }
  const all = Buffer.concat(parts);
  if (!sha256(all).equals(sha)) throw new Error(`content ${hex(sha)} is damaged or missing`);
  return all;
}

export const spoolBlob = (sha: Buffer, file: string): Promise<void> =>
  pipeline(Readable.from(blobChunks(sha)), createWriteStream(file));

/** Writes many small contents in few statements; what is there already is passed over. */
export async function putBlobs(sql: Sql, list: readonly { sha256: Buffer; bytes: Buffer }[]): Promise<void> {
  const unique = [...new Map(list.map((b) => [hex(b.sha256), b])).values()].sort((one, other) =>
    Buffer.compare(one.sha256, other.sha256),
  );
  if (!unique.length) return;
  const made = new Set(
    (
      await many<{ sha256: Buffer }>(
        sql,
        `
          insert into blob (sha256, size)
          select *
          from unnest($1::bytea[], $2::bigint[])
          on conflict do nothing
          returning sha256
        `,
        [unique.map((b) => b.sha256), unique.map((b) => b.bytes.length)],
      )
    ).map((r) => hex(r.sha256)),
  );
  const chunks = unique
    .filter((b) => made.has(hex(b.sha256)))
    .flatMap((blob) =>
      Array.from(
        { length: Math.ceil(blob.bytes.length / CHUNK) },
        (_, n) => [blob.sha256, n, blob.bytes.subarray(n * CHUNK, (n + 1) * CHUNK)] as const,
      ),
    );
  // as parameters of their own, bytes travel as they are; an array of them would travel as text of twice the size
  for (let at = 0; at < chunks.length; at += ROWS) {
    const some = chunks.slice(at, at + ROWS);
    await sql.query(
      `insert into blob_chunk (sha256, n, data) values ${some.map((_, i) => `($${i * 3 + 1}::bytea, $${i * 3 + 2}::int, $${i * 3 + 3}::bytea)`).join(', ')}`,
      some.flat(),
    );
  }
}

/** The first bytes of a content. */
export const blobHead = async (sha: Buffer, n: number, sql: Sql = pool()): Promise<Buffer> =>
  (
    await maybe<{ d: Buffer }>(
      sql,
      `
        select substring(data from 1 for $2) as d
        from blob_chunk
        where sha256 = $1 and n = 0
      `,
      [sha, n],
    )
  )?.d ?? Buffer.alloc(0);
