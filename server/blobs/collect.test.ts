/** Contents that nothing refers to go when they are old enough, and nothing else does. */
import { randomBytes } from 'node:crypto';
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { cubeOf } from '@/demo/files';
import {
  acceptArrival,
  arrivalFor,
  beginArrival,
  finishUpload,
  giveUpArrival,
  readArrival,
  uploadPart,
} from '../arrivals/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { runJob } from '../jobs/service';
import { addShelf } from '../shelves/service';
import { collectContents, measureContents } from './collect';
import { referringColumns } from './queries';
import { blobSize, getBlob, putBlob } from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'S' });
});
const put = (bytes: Buffer = randomBytes(3000)) => transaction((sql) => putBlob(sql, bytes));
const age = (days: number) => pool().query(`update blob set created_at = now() - make_interval(days => $1)`, [days]);

async function arrive(warmth: number): Promise<{ id: string; sha: Buffer }> {
  const bytes = Buffer.from(cubeOf({ title: `W ${warmth}`, headings: [], settings: { warmth } }, 5));
  const begun = await beginArrival(people.librarian, { name: 'x', files: [{ path: 'x.cube', size: bytes.length }] });
  const upload = must(begun.files[0]).id;
  await uploadPart(people.librarian, upload, 0, bytes);
  await finishUpload(people.librarian, upload);
  await runJob(must((await arrivalFor(people.librarian, begun.arrival)).arrival.job_id), { arrival: readArrival });
  const [entry] = (await arrivalFor(people.librarian, begun.arrival)).entries;
  return { id: begun.arrival, sha: must(must(entry).sha256) };
}

describe('contents that nothing refers to', () => {
  test('are told, taken away when they are old enough, and not before', async () => {
    const sha = await put();
    await age(20);
    expect((await measureContents(people.librarian, 30)).unused).toEqual({ contents: 0, bytes: 0 });
    expect((await measureContents(people.librarian, 10)).unused).toEqual({ contents: 1, bytes: 3000 });
    expect(await collectContents(people.librarian, 30)).toEqual({ contents: 0, bytes: 0 });
    expect(await collectContents(people.librarian, 10)).toEqual({ contents: 1, bytes: 3000 });
    expect(await blobSize(sha)).toBeNull();
    await expect(collectContents(people.retoucher)).rejects.toMatchObject({ code: 'not-allowed' });
  });
  test('of versions and of arrivals to be settled stay, those of a discarded arrival go', async () => {
    const taken = await arrive(30);
    await acceptArrival(people.librarian, taken.id, { shelfId: shelf });
    const open = await arrive(60);
    const gone = await arrive(90);
    await giveUpArrival(people.librarian, gone.id);
    await age(40);
    expect((await collectContents(people.librarian)).contents).toBe(1);
    expect(await Promise.all([taken, open, gone].map(async ({ sha }) => (await blobSize(sha)) !== null))).toEqual([
      true,
      true,
      false,
    ]);
    // what was read of the discarded one is still told
    expect((await arrivalFor(people.librarian, gone.id)).entries).toHaveLength(1);
  });
  test('put once more are young again, and one put while it is being collected is there afterwards', async () => {
    const bytes = randomBytes(5000);
    const sha = await put(bytes);
    await age(40);
    await put(bytes);
    expect((await collectContents(null)).contents).toBe(0);
    for (let round = 0; round < 10; round++) {
      await age(40);
      await Promise.all([collectContents(null), put(bytes)]);
      expect((await getBlob(sha)).equals(bytes)).toBe(true);
    }
  });
  test('are known by every column that the database holds to contents', async () => {
    expect((await referringColumns(pool())).map(({ column }) => column)).toEqual([
      'arrival.sha256',
      'arrival_entry.sha256',
      'arrival_file.sha256',
      'chart.source_sha256',
      'chart_reading.sha256',
      'frame.camera_data',
      'frame.sha256',
      'frame.source_sha256',
      'frame_export.sha256',
      'rendition.sha256',
      'sighting.picture_sha256',
      'sighting.result_sha256',
      'upload.sha256',
      'version.sha256',
    ]);
  });
});
