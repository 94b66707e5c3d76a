/** Uploads in parts that outlive a reload, and arrivals of one or many files that begin to be read once all are there. */
import type { BodyOf } from '@/core/api';
import { arrivalEndpoints } from '@/core/api/arrivals';
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { v7 } from 'uuid';
import { entryPath } from '@/core/pack/entry-rules';
import { Problem } from '@/core/problem';
import { blobOfUpload, CHUNK } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { addJob } from '../jobs/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

export const MAX_PART = 8 * CHUNK;
export interface UploadView {
  id: string;
  path: string;
  size: number;
  received: number;
}

const clean = (name: string): string => name.replace(/[\u0000-\u001f/\\]/g, ' ').trim() || 'arrival';

/** An arrival is announced: its name and the paths and sizes of its files. Each then comes as an upload of its own. */
export async function beginArrival(
  person: Person,
  input: BodyOf<'POST /api/uploads'>,
): Promise<{ arrival: string; files: UploadView[] }> {
  allow(person, 'arrival.make');
  const announced = checked(arrivalEndpoints['POST /api/uploads'].body, input);
  const id = v7();
  const files = announced.files.map((file) => ({
    id: v7(),
    path: entryPath(file.path) || clean(file.path),
    size: file.size,
    received: 0,
  }));
  return transaction(async (sql) => {
    await q.insertArrival(sql, { id, name: clean(announced.name), personId: person.id });
    await q.insertUploads(
      sql,
      person.id,
      files.map((f) => f.id),
      files.map((f) => clean(fileNameOf(f.path))),
      files.map((f) => f.size),
    );
    await q.insertFiles(
      sql,
      id,
      files.map((f) => f.path),
      files.map((f) => f.size),
      files.map((f) => f.id),
      files.map(() => null),
    );
    await record(sql, actorOf(person), 'arrival', id, 'announced', null, {
      name: clean(announced.name),
      files: files.length,
    });
    return { arrival: id, files };
  });
}

/** An arrival of one file. */
export async function beginUpload(
  person: Person,
  input: { name: string; size: number },
): Promise<{ id: string; received: number; arrival: string }> {
  const { arrival, files } = await beginArrival(person, {
    name: input.name,
    files: [{ path: clean(String(input.name ?? '')), size: input.size }],
  });
  return { id: must(files[0]).id, received: 0, arrival };
}

const gone = (id: string): Problem =>
  new Problem('upload-gone', 'This upload is no longer there.', id, 'Drop the file again.');

/** Appends a part at an offset. Parts but the last are multiples of 1 MiB. A part that is there already is passed over. */
export async function uploadPart(
  person: Person,
  id: string,
  offset: number,
  bytes: Buffer,
): Promise<{ received: number }> {
  allow(person, 'arrival.make');
  return transaction(async (sql) => {
    const upload = await q.uploadById(sql, id, true);
    if (!upload || upload.person_id !== person.id || upload.sha256) throw gone(id);
    if (offset < upload.received) return { received: upload.received };
    const after = offset + bytes.length;
    if (offset > upload.received || after > upload.size || (bytes.length % CHUNK !== 0 && after !== upload.size))
      throw new Problem(
        'upload-part',
        `The part does not continue the upload at ${upload.received} bytes.`,
        id,
        'Go on from where the upload stands.',
      );
    for (let at = 0; at < bytes.length; at += CHUNK)
      await q.insertUploadChunk(sql, id, (offset + at) / CHUNK, bytes.subarray(at, at + CHUNK));
    await q.uploadReceived(sql, id, after);
    return { received: after };
  });
}

export async function uploadState(
  person: Person,
  id: string,
): Promise<{ id: string; name: string; size: number; received: number }> {
  const upload = await q.uploadById(pool(), id);
  if (!upload || upload.person_id !== person.id) throw gone(id);
  return { id: upload.id, name: upload.name, size: upload.size, received: upload.received };
}

export interface Waiting {
  id: string;
  arrival: string;
  name: string;
  path: string;
  size: number;
  received: number;
}
export async function unfinishedUploads(person: Person): Promise<Waiting[]> {
  allow(person, 'view');
  return (await q.openUploads(pool(), person.id)).map((upload) => ({
    id: upload.id,
    arrival: upload.arrival_id,
    name: upload.arrival,
    path: upload.path,
    size: upload.size,
    received: upload.received,
  }));
}

/** An upload that is complete; with the last of an arrival, the job begins that reads it. */
export async function finishUpload(person: Person, id: string): Promise<{ arrival: string; waiting: number }> {
  allow(person, 'arrival.make');
  return transaction(async (sql) => {
    const upload = await q.uploadById(sql, id, true);
    if (!upload || upload.person_id !== person.id) throw gone(id);
    const arrival = await q.arrivalOfUpload(sql, id);
    if (!arrival) throw gone(id);
    if (upload.received !== upload.size)
      throw new Problem(
        'upload-part',
        `Only ${upload.received} of ${upload.size} bytes have arrived.`,
        id,
        'Send the rest first.',
      );
    const sha = upload.sha256 ?? (await blobOfUpload(sql, id));
    await q.uploadDone(sql, id, sha);
    await q.fileArrived(sql, id, sha);
    return { arrival, waiting: await beginReading(sql, arrival, person) };
  });
}

/** Begins to read an arrival once none of its files is missing; says how many are. */
export async function beginReading(sql: Sql, id: string, person: Person | null): Promise<number> {
  const arrival = await q.arrivalById(sql, id, true);
  const missing = await q.missingFiles(sql, id);
  if (!missing && arrival?.status === 'arriving') {
    await q.arrivalJob(
      sql,
      id,
      await addJob(sql, 'arrival', `Read ${arrival.name}`, { arrival: id }, person?.id ?? arrival.person_id),
    );
    await record(
      sql,
      person ? actorOf(person) : { personId: arrival.person_id, name: arrival.person ?? 'agent' },
      'arrival',
      id,
      'arrived',
      null,
      { name: arrival.name },
    );
  }
  return missing;
}

/** Gives up an arrival of which files are still missing. */
export async function dropArrival(person: Person, id: string): Promise<void> {
  allow(person, 'arrival.make');
  await transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status !== 'arriving' || arrival.person_id !== person.id) throw gone(id);
    await q.dropUploadsOf(sql, id);
    await q.arrivalStatus(sql, id, 'discarded');
    await record(sql, actorOf(person), 'arrival', id, 'dropped');
  });
}
