/** No file stops a delivery, every state of an arrival has a way out, and taking one back takes nobody's work along. */
import { strToU8, zipSync } from 'fflate';
import { afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { must } from '@/core/must';
import { wholeIcc } from '@/core/testing';
import { cubeOf, oxbowOf } from '@/demo/files';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { transaction, pool } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { archiveItems, editItem } from '../items/edit';
import { setRibbon } from '../items/service';
import { endHopelessJobs, runJob } from '../jobs/service';
import { log } from '../log';
import { addShelf } from '../shelves/service';
import { reader } from './file-reader';
import {
  acceptArrival,
  arrivalFor,
  arrivalView,
  beginArrival,
  correctEntries,
  finishUpload,
  giveUpArrival,
  giveUpReading,
  readAgain,
  readArrival,
  undoArrival,
  uploadPart,
} from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  for (const descriptor of [marlstone4, oxbow2])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});
afterEach(() => {
  vi.restoreAllMocks();
});

const cube = (title: string, warmth = 20) => strToU8(cubeOf({ title, headings: [], settings: { warmth } }, 5));

async function send(files: Record<string, Uint8Array>): Promise<string> {
  const list = Object.entries(files);
  const begun = await beginArrival(people.librarian, {
    name: 'Delivery',
    files: list.map(([path, bytes]) => ({ path, size: bytes.length })),
  });
  for (const [place, [, bytes]] of list.entries()) {
    const { id } = must(begun.files[place]);
    await uploadPart(people.librarian, id, 0, Buffer.from(bytes));
    await finishUpload(people.librarian, id);
  }
  return begun.arrival;
}
const stateOf = async (id: string) => (await arrivalFor(people.librarian, id)).arrival;
const read = async (id: string) => runJob(must((await stateOf(id)).job_id), { arrival: readArrival });
const outcomes = async (id: string) =>
  Object.fromEntries((await arrivalFor(people.librarian, id)).entries.map((entry) => [entry.path, entry.outcome]));

describe('one bad file', () => {
  test.each([
    ['a zero character in its name', { 'a\u0000b.cube': cube('Good name') }],
    ['a zero character in a title', { 'title.cube': strToU8('TITLE "Ki\u0001ln"\nLUT_3D_SIZE 2\n') }],
    ['half a sign in its JSON', { 'half.mpreset': strToU8('{"edition":4,"name":"\\ud83d","steps":[]}') }],
    ['a zero character in its JSON', { 'zero.json': strToU8('{"name":"a\\u0000b"}') }],
    ['half a sign in an ICC profile', { 'half.icc': halfSign() }],
  ])('with %s stops none of the others, and the arrival can be settled', async (_, bad) => {
    const id = await send({
      'pack.zip': zipSync({ ...bad, 'good.cube': cube('Good') }),
      'beside.cube': cube('Beside', 40),
    });
    await read(id);
    expect((await stateOf(id)).status).toBe('ready');
    const found = await outcomes(id);
    expect(found).toMatchObject({ 'beside.cube': 'new', 'pack.zip/good.cube': 'new' });
    expect(Object.keys(found)).toHaveLength(3);
    await giveUpArrival(people.librarian, id);
  });

  test('under a path that another has too does not vanish', async () => {
    const id = await send({ 'pack.zip': zipSync({ 'a.cube': cube('One', 61) }), 'pack.zip/a.cube': cube('Two', 200) });
    await read(id);
    expect(await outcomes(id)).toEqual({ 'pack.zip/a.cube': 'new', 'pack.zip/a.cube (2)': 'new' });
    await giveUpArrival(people.librarian, id);
  });

  test('that is no such thing as an item, or is of one in the archive, becomes no version of it', async () => {
    const look = await send({ 'held.cube': cube('Held', 63) });
    await read(look);
    const { items } = await acceptArrival(people.librarian, look, { shelfId: shelf });
    const itemId = must(items[0]);
    const preset = oxbowOf({ title: 'Not a look', headings: [], steps: [['lamp', { stops: 0.3 }]] });
    const id = await send({ 'preset.xmp': strToU8(preset), 'later.cube': cube('Later', 64) });
    await read(id);
    const entries = (await arrivalFor(people.librarian, id)).entries;
    const entry = (path: string) => must(entries.find((one) => one.path === path)).id;
    const asVersion = async (path: string) => {
      await correctEntries(people.librarian, id, { entries: [entry(path)], outcome: 'version', itemId });
      return acceptArrival(people.librarian, id, { shelfId: shelf, entries: [entry(path)] });
    };
    await expect(asVersion('preset.xmp')).rejects.toMatchObject({ code: 'version-kind' });
    await archiveItems(people.librarian, { items: [itemId], archived: true });
    await expect(asVersion('later.cube')).rejects.toMatchObject({ code: 'item-archived' });
    await archiveItems(people.librarian, { items: [itemId], archived: false });
    expect(await asVersion('later.cube')).toMatchObject({ versions: 1 });
  });

  test('over which our own reader breaks is refused with a number, and the log bears it', async () => {
    const said = vi.spyOn(log, 'error').mockImplementation(() => {});
    const { read: usual } = reader();
    vi.spyOn(reader(), 'read').mockImplementation((path, ...rest) =>
      path === 'cursed.cube' ? Promise.reject(new TypeError('x is undefined')) : usual.call(reader(), path, ...rest),
    );
    const id = await send({ 'cursed.cube': cube('Cursed', 60), 'fine.cube': cube('Fine', 70) });
    await read(id);
    expect(await outcomes(id)).toEqual({ 'cursed.cube': 'refused', 'fine.cube': 'new' });
    const entry = must((await arrivalFor(people.librarian, id)).entries.find((one) => one.path === 'cursed.cube'));
    expect(entry.problem).toMatchObject({ code: 'entry-broken', where: expect.stringContaining('incident') as string });
    expect(JSON.stringify(said.mock.calls)).toContain(must(entry.problem).where.split('incident ')[1]);
    await giveUpArrival(people.librarian, id);
  });
});

/** A profile whose description (ICC.1:2022, 10.15) is the first half of a surrogate pair. */
function halfSign(): Uint8Array {
  const bytes = wholeIcc('abst', 'x'.repeat(60));
  const view = new DataView(bytes.buffer);
  const description = view.getUint32(136);
  bytes.set(strToU8('mluc'), description);
  view.setUint32(description + 8, 1);
  view.setUint32(description + 12, 12);
  bytes.set(strToU8('enUS'), description + 16);
  view.setUint32(description + 20, 4);
  view.setUint32(description + 24, 28);
  view.setUint16(description + 28, 0x41);
  view.setUint16(description + 30, 0xd83d);
  return bytes;
}

describe('an arrival', () => {
  test('that was read is not read over by a job that is run once more, nor is one that was discarded meanwhile', async () => {
    const id = await send({ 'once.cube': cube('Once', 82) });
    await read(id);
    const [entry] = (await arrivalFor(people.librarian, id)).entries;
    await correctEntries(people.librarian, id, { entries: [must(entry).id], outcome: 'document' });
    await pool().query(`update job set status = 'running' where id = $1`, [(await stateOf(id)).job_id]);
    await read(id);
    expect(await stateOf(id)).toMatchObject({ status: 'ready' });
    expect(await outcomes(id)).toEqual({ 'once.cube': 'document' });
    await giveUpArrival(people.librarian, id);

    const other = await send({ 'gone.cube': cube('Gone', 84) });
    const { read: usual } = reader();
    vi.spyOn(reader(), 'read').mockImplementation(async (...asked) => {
      await giveUpArrival(people.librarian, other);
      return usual.call(reader(), ...asked);
    });
    await read(other);
    expect((await stateOf(other)).status).toBe('discarded');
  });
  test('with which no worker goes on says so', async () => {
    const id = await send({ 'dead.cube': cube('Dead', 86) });
    const job = must((await stateOf(id)).job_id);
    await pool().query('delete from graphile_worker._private_jobs where key = $1', [job]);
    await pool().query(`update job set created_at = now() - interval '1 minute' where id = $1`, [job]);
    await endHopelessJobs({ arrival: giveUpReading });
    expect(await stateOf(id)).toMatchObject({ status: 'failed', error: { code: 'job-died' } });
    await readAgain(people.librarian, id);
    await read(id);
    expect((await stateOf(id)).status).toBe('ready');
    await giveUpArrival(people.librarian, id);
  });
  test('whose reading broke by a fault of ours says so, and is read again', async () => {
    vi.spyOn(log, 'error').mockImplementation(() => {});
    const id = await send({ 'again.cube': cube('Again', 80) });
    const broken = vi.spyOn(reader(), 'read').mockImplementation(() => {
      throw Object.assign(new Error('the connection'), { code: '57P01' });
    });
    await read(id);
    expect(await stateOf(id)).toMatchObject({ status: 'failed', error: { remedy: 'Read it again in a moment.' } });
    broken.mockRestore();
    await readAgain(people.librarian, id);
    expect((await stateOf(id)).status).toBe('reading');
    await read(id);
    expect(await outcomes(id)).toEqual({ 'again.cube': 'new' });
    await giveUpArrival(people.librarian, id);
  });

  test('that is being read is left alone; one whose readers have all died is told, read again or discarded', async () => {
    const id = await send({ 'slow.cube': cube('Slow', 90) });
    expect((await arrivalView(people.librarian, id)).stuck).toBe(false);
    await expect(readAgain(people.librarian, id)).rejects.toMatchObject({ message: 'This arrival is being read.' });
    // three workers have died over it, the last of them a while ago
    await pool().query(
      `
        update graphile_worker._private_jobs
        set attempts = max_attempts
        where key = $1
      `,
      [(await stateOf(id)).job_id],
    );
    await pool().query(`update job set status = 'running', heartbeat_at = now() - interval '5 minutes' where id = $1`, [
      (await stateOf(id)).job_id,
    ]);
    expect((await arrivalView(people.librarian, id)).stuck).toBe(true);
    await readAgain(people.librarian, id);
    await read(id);
    expect((await stateOf(id)).status).toBe('ready');
    await readAgain(people.librarian, id);
    await giveUpArrival(people.librarian, id);
    expect((await stateOf(id)).status).toBe('discarded');
    // what still waited in the queue for it does nothing any more
    await read(id);
    expect((await stateOf(id)).status).toBe('discarded');
    await expect(readAgain(people.librarian, id)).rejects.toMatchObject({ code: 'arrival-settled' });
  });
});

describe('an arrival is not put back', () => {
  let id = '';
  let item = '';
  const refused = (what: string) =>
    expect(undoArrival(people.librarian, id)).rejects.toMatchObject({
      code: 'arrival-needed',
      message: expect.stringContaining(what) as string,
    });

  beforeAll(async () => {
    id = await send({ 'kept.cube': cube('Kept', 33) });
    await read(id);
    const taken = await acceptArrival(people.librarian, id, { shelfId: shelf });
    item = must(taken.items[0]);
  });

  test('over a ribbon that somebody else put on it', async () => {
    await setRibbon(people.retoucher, item, { on: true, whose: 'mine' });
    await refused('marked with a ribbon (Kept)');
    await setRibbon(people.retoucher, item, { on: false, whose: 'mine' });
  });

  test('over a verdict and a house choice', async () => {
    const [version] = await many<{ id: string }>(pool(), 'select id from version where item_id = $1', [item]);
    await pool().query(`insert into verdict (item_id, version_id, chosen, provisional) values ($1, $2, true, false)`, [
      item,
      must(version).id,
    ]);
    await refused('judged on the bench (Kept)');
    await pool().query('delete from verdict');
    await pool().query(`insert into house_choice (client, look_version_id) values ('Aldous', $1)`, [must(version).id]);
    await refused('a house choice (Aldous)');
    // and the database itself says no, whoever asks
    await expect(pool().query('delete from version where id = $1', [must(version).id])).rejects.toMatchObject({
      code: '23503',
    });
    await pool().query('delete from house_choice');
  });

  test('over what was written on it since', async () => {
    await editItem(people.librarian, item, { revision: 1, base: {}, mine: { description: 'for the autumn window' } });
    await refused('changed by hand since (Kept)');
    await pool().query('update item set revision = 1 where id = $1', [item]);
    expect(await undoArrival(people.librarian, id)).toMatchObject({ items: 1 });
  });
});
