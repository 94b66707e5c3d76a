/** What was changed at a station is no dead end; and what lies there already is looked after, not written twice. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import type { InventoryFile } from '@/core/sync/protocol';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { stationView } from '../stations/views';
import { decideChanged } from './changed-there';
import { moveRollout, rolloutFor, undoRollout } from './service';
import { addStation, approvedLook, carryOut, enrolled, planned, report, sha, work } from './testing/world';

withDatabase();
let station = '';
let token = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  station = await addStation('Room', 'linux', ['oxbow@2']);
  token = await enrolled(station, 'linux');
  await report(token, []);
});

const confirm = (id: string) => moveRollout(people.librarian, id, { verb: 'confirm' });
const stepsOf = async (id: string) => (await rolloutFor(people.librarian, id)).steps;
const rows = async () =>
  (await stationView(people.librarian, station)).rows.map(({ path, decision, number }) => [path, decision, number]);

/** One look at the station, as it was put there. */
async function placedLook(n: number): Promise<InventoryFile> {
  const id = await planned({ versions: [(await approvedLook(n)).versionId], stations: [station] });
  await confirm(id);
  const [put] = await carryOut(token);
  const { path, sha256, size } = must(put);
  return { path, size, sha256: must(sha256) };
}
const edited = (file: InventoryFile): InventoryFile => ({ ...file, sha256: sha('by hand'), size: 7 });

describe('a file of ours that was changed there', () => {
  let file: InventoryFile;
  let other: InventoryFile;
  beforeAll(async () => {
    file = await placedLook(0);
    other = await placedLook(1);
    await report(token, [edited(file), other]);
  });
  const decide = (verb: string, paths = [file.path]) =>
    decideChanged(people.librarian, station, { verb: verb as 'keep', paths });

  test('gets ours again by a plan of that file alone, and theirs comes back with its undo', async () => {
    const { rollout } = await decide('put');
    const id = must(rollout);
    await work(id);
    expect((await stepsOf(id)).map((step) => [step.path, step.do_what, step.expect])).toEqual([
      [file.path, 'put', sha('by hand')],
    ]);
    await confirm(id);
    await carryOut(token);
    await report(token, [file, other]);
    expect(await rows()).toEqual([file, other].map(({ path }) => [path, 'in-step', 1]).sort());
    const undo = await undoRollout(people.librarian, id);
    expect((await stepsOf(undo)).map((step) => [step.do_what, step.sha])).toEqual([['put', sha('by hand')]]);
    await carryOut(token);
    await report(token, [edited(file), other]);
    expect(await rows()).toContainEqual([file.path, 'changed-there', 1]);
  });

  test('that was taken away is put there again', async () => {
    await report(token, [other]);
    expect(await rows()).toContainEqual([file.path, 'gone-there', 1]);
    const id = must((await decide('put')).rollout);
    await work(id);
    expect((await stepsOf(id)).map((step) => [step.do_what, step.expect])).toEqual([['put', null]]);
    await moveRollout(people.librarian, id, { verb: 'drop' });
    await report(token, [edited(file), other]);
  });

  test('comes in as what it is now', async () => {
    const { arrival } = await decide('take-in');
    expect(
      await many(pool(), `select path, encode(sha256, 'hex') as sha from arrival_file where arrival_id = $1`, [
        arrival,
      ]),
    ).toEqual([{ path: file.path, sha: null }]);
    await expect(decideChanged(people.lead, station, { verb: 'take-in', paths: [file.path] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });

  test('is let be: it is theirs then, and nobody writes over it', async () => {
    expect(await decide('keep')).toEqual({ rollout: null, arrival: null });
    expect(await rows()).toContainEqual([file.path, 'theirs', null]);
    await expect(decide('keep')).rejects.toMatchObject({ code: 'placement-unknown', where: file.path });
    const [event] = await many<{ after: object }>(
      pool(),
      `select after from event where action = 'theirs kept' order by id desc limit 1`,
    );
    expect(event?.after).toEqual({ files: 1 });
  });

  test('is not decided on by whoever may not plan, nor at a station that is not there', async () => {
    await expect(decideChanged(people.retoucher, station, { verb: 'keep', paths: [other.path] })).rejects.toMatchObject(
      { code: 'not-allowed' },
    );
    await expect(decideChanged(people.librarian, 'x', { verb: 'keep', paths: ['a'] })).rejects.toMatchObject({
      code: 'not-found',
    });
  });
});

describe('what lies there already', () => {
  test('is looked after under its own name, and not written a second time', async () => {
    const { versionId } = await approvedLook(2);
    const probe = await planned({ versions: [versionId], stations: [station] });
    const [step] = await stepsOf(probe);
    await moveRollout(people.librarian, probe, { verb: 'drop' });
    const { path, sha: hash, size } = must(step);
    const theirs = { path: path.replace('.cube', ' (kept).cube'), sha256: must(hash), size };
    await report(token, [theirs]);
    const id = await planned({ versions: [versionId], stations: [station] });
    expect((await stepsOf(id)).map((one) => [one.path, one.do_what, one.expect, one.note])).toEqual([
      [theirs.path, 'put', hash, 'lies there already: it is looked after from now on, and not written again'],
    ]);
    await confirm(id);
    await carryOut(token);
    expect(await rows()).toContainEqual([theirs.path, 'in-step', 1]);
    await undoRollout(people.librarian, id);
    await carryOut(token);
    expect(await rows()).toContainEqual([theirs.path, 'theirs', null]);
  });

  test('and is looked after for another item stays that one’s', async () => {
    const first = await placedLook(3);
    await report(token, [first]);
    const twin = await approvedLook(3);
    const id = await planned({ versions: [twin.versionId], stations: [station] });
    const [step] = await stepsOf(id);
    expect(must(step).path).not.toBe(first.path);
  });
});
