/** Contents by hash: written once in chunks of 1 MiB, read whole or by range, never held whole where they may be large. */
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../db/pool';
import * as q from './queries';

export const CHUNK = 1 << 20;
export const hex = (bytes: Buffer): string => bytes.toString('hex');
export const bytesOf = (sha: string): Buffer => Buffer.from(sha, 'hex');
export const sha256 = (bytes: Uint8Array): Buffer => createHash('sha256').update(bytes).digest();

const chunksOf = (sha: Buffer, bytes: Uint8Array): q.Chunk[] =>
  Array.from({ length: Math.ceil(bytes.length / CHUNK) }, (_, n) => ({
    sha,
    n,
    data: Buffer.from(bytes.buffer, bytes.byteOffset + n * CHUNK, Math.min(CHUNK, bytes.length - n * CHUNK)),
  }));

/** Writes small contents; returns the hash. Writing what is there already does nothing. */
export async function putBlob(sql: Sql, bytes: Uint8Array): Promise<Buffer> {
  const sha = sha256(bytes);
  if (await q.insertBlob(sql, sha, bytes.length)) await q.insertChunks(sql, chunksOf(sha, bytes));
  return sha;
}

/** Makes a blob of a finished upload's chunks, hashed on the way. */
export async function blobOfUpload(sql: Sql, uploadId: string): Promise<Buffer> {
  const hash = createHash('sha256');
  let size = 0;
  for (let n = 0; ; n++) {
    const data = await q.chunkOfUpload(sql, uploadId, n);
    if (!data) break;
    hash.update(data);
    size += data.length;
  }
  const sha = hash.digest();
  if (await q.insertBlob(sql, sha, size)) await q.copyUploadsChunks(sql, uploadId, sha);
  await q.deleteUploadsChunks(sql, uploadId);
  return sha;
}

export async function* blobChunks(sha: Buffer, sql: Sql = pool(), from = 0): AsyncGenerator<Buffer> {
  for (let n = Math.floor(from / CHUNK), skip = from % CHUNK; ; n++, skip = 0) {
    const data = await q.chunkOfBlob(sql, sha, n);
    if (!data) return;
    yield data.subarray(skip);
  }
}

/** In bytes; null where there is no such content. */
export const blobSize = (sha: Buffer, sql: Sql = pool()): Promise<number | null> => q.sizeOfBlob(sql, sha);

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
  const unique = [...new Map(list.map((blob) => [hex(blob.sha256), blob])).values()].sort((one, other) =>
    Buffer.compare(one.sha256, other.sha256),
  );
  if (!unique.length) return;
  const made = await q.insertBlobs(
    sql,
    unique.map((blob) => ({ sha: blob.sha256, size: blob.bytes.length })),
  );
  const fresh = new Set(made.map(hex));
  await q.insertChunks(
    sql,
    unique.filter((blob) => fresh.has(hex(blob.sha256))).flatMap((blob) => chunksOf(blob.sha256, blob.bytes)),
  );
}

/** The first bytes of a content. */
export const blobHead = async (sha: Buffer, bytes: number, sql: Sql = pool()): Promise<Buffer> =>
  (await q.headOfBlob(sql, sha, bytes)) ?? Buffer.alloc(0);
