import { must } from '@/core/must';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { houseLooks, oxbowPresets } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { searchItems } from '../search/service';
import { addShelf } from '../shelves/service';
import { cancelJob, runJob } from '../jobs/service';
import { inspectPack, type Inspected } from './inspect';
import {
  acceptArrival,
  beginUpload,
  discardArrival,
  finishUpload,
  arrivalFor,
  readArrival,
  unfinishedUploads,
  uploadPart,
} from './service';

withDatabase();
const folder = mkdtempSync(join(tmpdir(), 'etagere-packs-'));
const cube = (n = 0) => cubeOf(must(houseLooks[n]), 5);
const MB = 1 << 20;
let shelf = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'oxbow'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function inspect(zip: Uint8Array): Promise<Inspected[]> {
  const file = join(folder, 'x.zip');
  const out: Inspected[] = [];
  writeFileSync(file, zip);
  for await (const e of inspectPack(file, [parseDescriptor(oxbow2)])) out.push(e);
  return out;
}
const refused = (all: Inspected[]) => all.flatMap((e) => (e.type === 'refused' ? [[e.path, e.problem.code]] : []));
const good = (all: Inspected[]) => all.flatMap((e) => (e.type === 'entry' ? [e.path] : []));
const zip = (files: Zippable) => zipSync(files, { level: 6 });

/** Changes a two-byte field in both headers of the entry with a name. */
function patch(
  bytes: Uint8Array,
  name: string,
  local: number,
  central: number,
  change: (v: number) => number,
): Uint8Array {
  const out = Buffer.from(bytes);
  const at = Buffer.from(name);
  for (let i = 0; i < out.length - 4; i++) {
    const sig = out.readUInt32LE(i);
    if (sig === 0x04034b50 && out.subarray(i + 30, i + 30 + at.length).equals(at))
      out.writeUInt16LE(change(out.readUInt16LE(i + local)), i + local);
    if (sig === 0x02014b50 && out.subarray(i + 46, i + 46 + at.length).equals(at))
      out.writeUInt16LE(change(out.readUInt16LE(i + central)), i + central);
  }
  return out;
}

describe('hostile archives: each is refused for that entry alone, the rest is read', () => {
  test.each([
    ['../evil.cube', 'path-escapes'],
    ['/etc/evil.cube', 'path-escapes'],
    ['C:\\evil.cube', 'path-escapes'],
    ['a\\..\\..\\evil.cube', 'path-escapes'],
    [`${'d/'.repeat(40)}deep.cube`, 'zip-depth'],
    ['bad\u0007name.cube', 'path-escapes'],
  ])('the path %j', async (path, code) => {
    const all = await inspect(zip({ [path]: strToU8(cube()), 'good.cube': strToU8(cube()) }));
    expect(refused(all).map((r) => r[1])).toEqual([code]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test('a link', async () => {
    const all = await inspect(
      zip({
        'link.cube': [strToU8('/etc/passwd'), { os: 3, attrs: (0o120777 << 16) >>> 0 }],
        'good.cube': strToU8(cube()),
      }),
    );
    expect(refused(all)).toEqual([['link.cube', 'entry-link']]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test('an encrypted entry', async () => {
    const all = await inspect(
      patch(zip({ 'secret.cube': strToU8(cube()), 'good.cube': strToU8(cube()) }), 'secret.cube', 6, 8, (v) => v | 1),
    );
    expect(refused(all)).toEqual([['secret.cube', 'entry-encrypted']]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test('a zip that expands without end', async () => {
    const all = await inspect(zip({ 'bomb.bin': new Uint8Array(30 * MB), 'good.cube': strToU8(cube()) }));
    expect(refused(all)).toEqual([['bomb.bin', 'zip-ratio']]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test.each([0, 6] as const)('an entry with another checksum than it says, packed by level %i', async (level) => {
    const bytes = Buffer.from(zip({ 'wrong.cube': [strToU8(cube()), { level }], 'good.cube': strToU8(cube()) }));
    for (let i = 0; i < bytes.length - 4; i++)
      if (bytes.readUInt32LE(i) === 0x02014b50 && bytes.subarray(i + 46, i + 56).toString() === 'wrong.cube')
        bytes.writeUInt32LE((bytes.readUInt32LE(i + 16) ^ 1) >>> 0, i + 16);
    const all = await inspect(bytes);
    expect(refused(all)).toEqual([['wrong.cube', 'zip-truncated']]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test('an entry that says it is smaller than it is', async () => {
    const bytes = Buffer.from(
      zip({
        'liar.bin': [new Uint8Array(200_000).map((_, i) => (i * 7919) & 255), { level: 0 }],
        'good.cube': strToU8(cube()),
      }),
    );
    for (let i = 0; i < bytes.length - 4; i++)
      if (bytes.readUInt32LE(i) === 0x02014b50 && bytes.subarray(i + 46, i + 54).toString() === 'liar.bin')
        bytes.writeUInt32LE(100, i + 24);
    const all = await inspect(bytes);
    expect(refused(all)).toEqual([['liar.bin', 'zip-truncated']]);
    expect(good(all)).toEqual(['good.cube']);
  });
  test('names that differ in case or Unicode form only', async () => {
    const all = await inspect(
      zip({
        'A.cube': strToU8(cube()),
        'a.cube': strToU8(cube(1)),
        'é.cube': strToU8(cube()),
        'e\u0301.cube': strToU8(cube(1)),
      }),
    );
    expect(refused(all).map((r) => r[1])).toEqual(['entry-duplicate', 'entry-duplicate']);
    expect(good(all)).toHaveLength(2);
  });
  test('archives in archives are opened twice and no deeper', async () => {
    const wrap = (b: Uint8Array, name: string) => zip({ [name]: b });
    const all = await inspect(wrap(wrap(wrap(wrap(strToU8(cube()), 'x.cube'), 'c.zip'), 'b.zip'), 'a.zip'));
    expect(refused(all)).toEqual([['a.zip/b.zip/c.zip', 'zip-depth']]);
    expect(good(await inspect(zip({ 'a.zip': zip({ 'in/x.cube': strToU8(cube()) }) })))).toEqual(['a.zip/in/x.cube']);
  });
  test('readers’ refusals name entry and line', async () => {
    const all = await inspect(
      zip({
        'torn.cube': strToU8(cube().split('\n').slice(0, -3).join('\n')),
        'utf16.cube': new Uint8Array([0xff, 0xfe, 76, 0]),
        'entity.xmp': strToU8(
          '<!DOCTYPE a [<!ENTITY b "c">]><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">&b;</rdf:RDF>',
        ),
        'good.xmp': strToU8(oxbowOf(must(oxbowPresets[0]))),
      }),
    );
    expect(Object.fromEntries(refused(all))).toEqual({
      'torn.cube': 'cube-rows-missing',
      'utf16.cube': 'text-utf16',
      'entity.xmp': 'xml-doctype',
    });
    expect(all.find((e) => e.type === 'refused' && e.path === 'torn.cube')).toMatchObject({
      problem: { where: expect.stringMatching(/^torn\.cube, line \d+$/) as string },
    });
    expect(good(all)).toEqual(['good.xmp']);
  });
  test('a truncated archive is refused whole, whatever the cut', async () => {
    const whole = zip({ 'a.cube': strToU8(cube()), 'b.cube': strToU8(cube(1)) });
    for (const share of [0.1, 0.5, 0.9, 0.999])
      await expect(inspect(whole.slice(0, Math.floor(whole.length * share)))).rejects.toMatchObject({
        code: 'zip-truncated',
      });
  });
  test('too many entries are cut off and said', async () => {
    const many: Zippable = {};
    for (let i = 0; i < 20_005; i++) many[`f${i}.txt`] = new Uint8Array([65]);
    const all = await inspect(zipSync(many, { level: 0 }));
    expect(refused(all).map((r) => r[1])).toEqual(['limit-count']);
    expect(good(all)).toHaveLength(20_000);
  }, 60_000);
});

async function upload(name: string, bytes: Uint8Array, part = MB): Promise<string> {
  const { id } = await beginUpload(people.librarian, { name, size: bytes.length });
  for (let at = 0; at < bytes.length; at += part)
    await uploadPart(people.librarian, id, at, Buffer.from(bytes.subarray(at, at + part)));
  return id;
}
async function arrive(name: string, bytes: Uint8Array): Promise<string> {
  const { arrival } = await finishUpload(people.librarian, await upload(name, bytes));
  await runJob(must((await arrivalFor(people.librarian, arrival)).arrival.job_id), { arrival: readArrival });
  return arrival;
}

describe('uploads', () => {
  test('go on from where they stood; a part sent twice is taken once', async () => {
    const bytes = new Uint8Array(2 * MB + 5).map((_, i) => (i * 31) & 255);
    const { id } = await beginUpload(people.librarian, { name: 'big.bin', size: bytes.length });
    await uploadPart(people.librarian, id, 0, Buffer.from(bytes.subarray(0, MB)));
    expect((await unfinishedUploads(people.librarian)).find((u) => u.id === id)?.received).toBe(MB);
    expect(await uploadPart(people.librarian, id, 0, Buffer.from(bytes.subarray(0, MB)))).toEqual({ received: MB });
    await expect(uploadPart(people.librarian, id, 2 * MB, Buffer.from(bytes.subarray(2 * MB)))).rejects.toMatchObject({
      code: 'upload-part',
    });
    await expect(finishUpload(people.librarian, id)).rejects.toMatchObject({ code: 'upload-part' });
    await uploadPart(people.librarian, id, MB, Buffer.from(bytes.subarray(MB)));
    await finishUpload(people.librarian, id);
    const { rows } = await pool().query<{ n: number; size: number }>(
      `
        select count(*)::int as n, sum(length(data))::bigint as size
        from blob_chunk c join upload u on u.sha256 = c.sha256
        where u.id = $1
      `,
      [id],
    );
    expect(rows[0]).toEqual({ n: 3, size: bytes.length });
  });
  test('of another person cannot be touched', async () => {
    const { id } = await beginUpload(people.librarian, { name: 'x', size: 10 });
    await expect(uploadPart(people.retoucher, id, 0, Buffer.alloc(10))).rejects.toMatchObject({ code: 'not-allowed' });
  });
});

describe('an arrival', () => {
  test('is read, accepted in one go, and what is held is not taken twice', async () => {
    const bytes = zip({
      'P/a.cube': strToU8(cube(2)),
      'P/copy.cube': strToU8(cube(2)),
      'P/b.xmp': strToU8(oxbowOf(must(oxbowPresets[1]))),
      'P/read.txt': strToU8('hello'),
      '__MACOSX/P/._a.cube': strToU8('x'),
    });
    const id = await arrive('P.zip', bytes);
    const { entries } = await arrivalFor(people.librarian, id);
    const outcomes = Object.fromEntries(entries.map((e) => [e.path, e.outcome]));
    expect(outcomes).toEqual({
      'P/a.cube': 'new',
      'P/copy.cube': 'duplicate',
      'P/b.xmp': 'new',
      'P/read.txt': 'document',
      '__MACOSX/P/._a.cube': 'ignored',
    });
    const take = entries.filter((e) => e.outcome === 'new').map((e) => e.id);
    // one bad choice, and nothing is taken
    await expect(
      acceptArrival(people.librarian, id, {
        entries: [...take, must(entries.find((e) => e.outcome === 'document')).id],
        shelfId: shelf,
      }),
    ).rejects.toBeInstanceOf(Problem);
    expect((await searchItems(people.librarian, { shelf }).then((r) => r.rows)).length).toBe(0);
    expect(
      (await acceptArrival(people.librarian, id, { entries: take, shelfId: shelf, supplier: 'Sable Row Looks' })).items,
    ).toHaveLength(2);
    expect((await searchItems(people.librarian, { shelf }).then((r) => r.rows)).map((s) => s.selvedge?.length)).toEqual(
      [12, 12],
    );
    await expect(acceptArrival(people.librarian, id, { entries: take, shelfId: shelf })).rejects.toMatchObject({
      code: 'arrival-settled',
    });
    expect((await pool().query('select 1 from pack_member')).rowCount).toBe(3); // the copy is a member too
    const again = await arrive('P again.zip', bytes);
    expect((await arrivalFor(people.librarian, again)).entries.filter((e) => e.outcome === 'new')).toEqual([]);
    await discardArrival(people.librarian, again);
  });
  test('that cannot be read says so and leaves nothing half-taken', async () => {
    const whole = zip({ 'a.cube': strToU8(cube(3)) });
    const id = await arrive('torn.zip', whole.slice(0, whole.length - 30));
    const { arrival, entries } = await arrivalFor(people.librarian, id);
    expect(arrival.status).toBe('failed');
    expect(arrival.error).toMatchObject({ code: 'zip-truncated' });
    expect(entries).toEqual([]);
  });
  test('that someone stopped, before or while it is read, says so and leaves nothing', async () => {
    const { arrival } = await finishUpload(
      people.librarian,
      await upload('stopped.zip', zip({ 'a.cube': strToU8(cube(7)) })),
    );
    const job = must((await arrivalFor(people.librarian, arrival)).arrival.job_id);
    await cancelJob(people.librarian, job);
    await runJob(job, { arrival: readArrival });
    expect(await arrivalFor(people.librarian, arrival)).toMatchObject({
      arrival: { status: 'failed', error: { code: 'stopped' } },
      entries: [],
    });
    await discardArrival(people.librarian, arrival);
  });
  test('of a single file works like a pack of one', async () => {
    const id = await arrive('Single Plate.cube', strToU8(cube(5)));
    const { entries } = await arrivalFor(people.librarian, id);
    expect(entries.map((e) => [e.path, e.outcome, e.title])).toEqual([
      ['Single Plate.cube', 'new', 'Plate Monochrome'],
    ]);
  });
  test('reading twice gives the same table', async () => {
    const id = await arrive('twice.zip', zip({ 'a.cube': strToU8(cube(6)) }));
    await readArrival({ id: 'x', payload: { arrival: id }, personId: null, progress: async () => {} });
    expect((await arrivalFor(people.librarian, id)).entries).toHaveLength(1);
  });
});
