import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Settings } from '@/core/preset/kinds';
import { cubeOf } from '@/demo/files';
import { recognise } from '@/core/recognise';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { createItem } from '../items/create';
import { copies } from '../copies/service';
import { addShelf } from '../shelves/service';
import { runJob } from '../jobs/service';
import { beginArrival, finishUpload, arrivalFor, readArrival, uploadPart } from '../arrivals/service';
import { actorOf } from '../people/roles';
import { copyTolerance, setCopyTolerance } from './service';

withDatabase();
const cube = (title: string, settings: Settings) => Buffer.from(cubeOf({ title, headings: [], settings }, 9));
/** Colors between these two differ by about 1 ΔE00, at most by 2. */
const one: Settings = { warmth: 20, contrast: 1.1 };
const apart: Settings = { warmth: 24, contrast: 1.1 };
let shelf = '';
async function item(title: string, settings: Settings): Promise<void> {
  const bytes = cube(title, settings);
  const recognised = recognise('x.cube', bytes, []);
  await transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind: 'look',
      title,
      headings: [],
      shelfId: shelf,
      supplier: '',
      sha: await putBlob(sql, bytes),
      fileName: `${title}.cube`,
      format: recognised.format,
      facts: recognised.facts,
      selvedge: null,
      notes: '',
    }),
  );
}
async function outcome(title: string, settings: Settings): Promise<string> {
  const bytes = cube(title, settings);
  const begun = await beginArrival(people.librarian, {
    name: title,
    files: [{ path: `${title}.cube`, size: bytes.length }],
  });
  await uploadPart(people.librarian, must(begun.files[0]).id, 0, bytes);
  await finishUpload(people.librarian, must(begun.files[0]).id);
  await runJob(must((await arrivalFor(people.librarian, begun.arrival)).arrival.job_id), { arrival: readArrival });
  return must((await arrivalFor(people.librarian, begun.arrival)).entries[0]).outcome;
}
const groups = async () => (await copies(people.retoucher)).groups.map((g) => g.items.map((i) => i.title).sort());
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'S' });
  await item('Glaze', one);
  await item('Slip', apart);
});

describe('what counts as a copy', () => {
  test('is 0.5 and 2 ΔE00 until the studio sets otherwise', async () => {
    expect(await copyTolerance()).toEqual({ p95: 0.5, max: 2 });
    expect(await groups()).toEqual([]);
    expect(await outcome('Engobe', { ...apart, warmth: 28 })).toBe('new');
  });
  test('set wider, copies are found among what is held and in what arrives', async () => {
    await setCopyTolerance(people.lead, { p95: 2.5, max: 6 });
    expect(await groups()).toEqual([['Glaze', 'Slip']]);
    expect((await copies(people.retoucher)).within).toEqual({ p95: 2.5, max: 6 });
    expect(await outcome('Engobe again', { ...apart, warmth: 28 })).toBe('duplicate');
  });
  test('set as narrow as it goes, what differs by a little is two things', async () => {
    await setCopyTolerance(people.librarian, { p95: 0.5, max: 2 });
    expect(await outcome('Nearly', { ...one, warmth: 20.8 })).toBe('duplicate');
    await setCopyTolerance(people.librarian, { p95: 0.05, max: 0.1 });
    expect(await copyTolerance()).toEqual({ p95: 0.05, max: 0.1 });
    expect(await outcome('Nearly again', { ...one, warmth: 20.8 })).toBe('new');
  });
  test('each change is told with before and after; setting the same again is none', async () => {
    await setCopyTolerance(people.librarian, { p95: 0.05, max: 0.1 });
    const { rows } = await pool().query<{ before: unknown; after: unknown; actor: string }>(
      `select before, after, actor from event where subject = 'studio' order by id`,
    );
    expect(rows).toHaveLength(3);
    expect(rows[0]).toEqual({ before: { p95: 0.5, max: 2 }, after: { p95: 2.5, max: 6 }, actor: 'Piet Tallow' });
  });
  test.each([
    ['nothing', 0, 2],
    ['less than the writing of a table changes', 0.01, 2],
    ['what everyone sees', 4, 8],
    ['a farthest color nearer than most', 2, 1],
    ['a farthest color far off', 1, 40],
    ['no number', 'x', 2],
    ['none at all', null, null],
  ])('%s is refused', async (_, p95, max) => {
    await expect(
      setCopyTolerance(people.librarian, { p95, max } as { p95: number; max: number }),
    ).rejects.toMatchObject({ code: 'input-invalid' });
  });
});
