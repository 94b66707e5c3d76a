/** Files of ours are taken away from a station: by a plan, with the lists that name them, and brought back by its undo. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { stationView } from '../stations/views';
import { takeReport } from '../stations/service';
import { planAgain } from './planning';
import { planRemoval } from './removal';
import { confirmRollout, planFor, rolloutFor, takeResults, undoRollout } from './service';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { approve } from '../items/approval';
import { confirmEncoding } from '../items/encoding';
import { versionOf } from '../items/testing/item-of';
import { addStation, agent, approvedLook, carryOut, done, enrolled, planned, sha, srgb } from './testing/world';

withDatabase();

let room = '';
let card = '';
let token = '';
/** What lies at the station, by path. */
const lying = new Map<string, string>();
const INDEX = 'media/ALDER/LOOKS.LST';
/** As the agent tells it; null where it is too long to be told. */
let listed: string | null = '';

/** Plays the agent's report of what lies there, with the text of the card's list. */
const says = async (): Promise<void> => {
  const files = [...lying].map(([path, sha256]) => ({ path, size: 9, sha256 }));
  await takeReport(await agent(token), {
    agentVersion: '0.2.0',
    files,
    digest: sha(JSON.stringify(files)),
    listings: [],
    indexes: listed === null ? [] : [{ path: INDEX, text: listed }],
    waiting: null,
  });
};

/** Carries out what is planned, and reports what lies there then. */
async function carried(): Promise<string[]> {
  const operations = await carryOut(token);
  for (const { path, do: what, sha256 } of operations)
    if (what === 'remove') lying.delete(path);
    else lying.set(path, must(sha256));
  await says();
  return operations.map(({ do: what, path }) => `${what} ${path}`);
}

async function out(versions: string[], stations: string[]): Promise<string> {
  const rollout = await planned({ versions, stations });
  await confirmRollout(people.librarian, rollout);
  await carried();
  return rollout;
}

const stepsOf = async (rollout: string) =>
  (await rolloutFor(people.lead, rollout)).steps.map(({ path, do_what, decision, note }) => ({
    path,
    do_what,
    decision,
    note,
  }));
const rowOf = async (path: string) => (await stationView(people.lead, room)).rows.find((row) => row.path === path);

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4, perrinAlder, { ...oxbow2, editor: 'trestle', title: 'Trestle 2' }])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  room = await addStation('Room', 'linux', ['oxbow@2', 'trestle@2']);
  card = await addStation('Card', 'linux', ['perrin-alder@1'], { hostId: room });
  token = await enrolled(room, 'linux');
  await says();
});

describe('a file of ours', () => {
  let path = '';
  let item = '';
  let removal = '';

  beforeAll(async () => {
    const look = await approvedLook(0);
    item = look.itemId;
    await out([look.versionId], [room]);
    path = must([...lying.keys()].find((one) => one.startsWith('Oxbow/Looks/')));
  });

  test('of an archived item is not in step, and says why', async () => {
    expect((await rowOf(path))?.state).not.toBe('surplus');
    await pool().query('update item set archived_at = now() where id = $1', [item]);
    expect(await rowOf(path)).toMatchObject({
      state: 'surplus',
      reason: 'its item is archived, and it lies here still',
    });
  });

  test('is taken away by a plan, which names the other editor that reads it', async () => {
    removal = (await planRemoval(people.lead, room, { paths: [path, path] })).rollout;
    expect(await stepsOf(removal)).toEqual([
      { path, do_what: 'remove', decision: 'remove', note: 'Trestle 2 there reads it too' },
    ]);
    await expect(planAgain(people.lead, removal)).rejects.toMatchObject({ code: 'rollout-settled' });
    expect(lying.has(path)).toBe(true);
    await confirmRollout(people.lead, removal);
    expect(await carried()).toEqual([`remove ${path}`]);
    expect(await rowOf(path)).toBeUndefined();
  });

  test('is taken away once, whoever else has planned the same', async () => {
    await undoRollout(people.lead, removal);
    await carried();
    const one = await planRemoval(people.lead, room, { paths: [path] });
    const other = await planRemoval(people.librarian, room, { paths: [path] });
    await confirmRollout(people.lead, one.rollout);
    await expect(confirmRollout(people.librarian, other.rollout)).rejects.toMatchObject({ code: 'rollout-overlaps' });
    await carried();
    await expect(confirmRollout(people.librarian, other.rollout)).rejects.toMatchObject({ code: 'rollout-outdated' });
    removal = one.rollout;
  });

  test('comes back with the undo, and is looked after again', async () => {
    await undoRollout(people.lead, removal);
    expect(await carried()).toEqual([`put ${path}`]);
    expect(await rowOf(path)).toMatchObject({ itemId: item, decision: 'in-step' });
  });

  test('that was changed there meanwhile is left alone', async () => {
    const ours = must(lying.get(path));
    const other = await approvedLook(1);
    await out([other.versionId], [room]);
    const second = must([...lying.keys()].find((one) => one.startsWith('Oxbow/Looks/') && one !== path));
    lying.set(path, sha('theirs'));
    await says();
    const { rollout } = await planRemoval(people.lead, room, { paths: [path, second] });
    expect((await stepsOf(rollout)).map(({ do_what, decision }) => [do_what, decision])).toEqual([
      ['none', 'changed-there'],
      ['remove', 'remove'],
    ]);
    await expect(planRemoval(people.lead, room, { paths: [path] })).rejects.toMatchObject({ code: 'removal-nothing' });
    lying.set(path, ours);
    await says();
  });

  test('that is changed between plan and agent is left, and the step says so', async () => {
    const { rollout } = await planRemoval(people.lead, room, { paths: [path] });
    await confirmRollout(people.lead, rollout);
    const plan = must(await planFor(await agent(token)));
    expect(plan.operations).toMatchObject([{ do: 'remove', expect: lying.get(path) }]);
    const [result] = done(plan.operations);
    await takeResults(await agent(token), plan.id, { results: [{ ...must(result), outcome: 'conflict' }] });
    expect(await rowOf(path)).toMatchObject({ decision: 'in-step' });
  });
});

test('a folder that two editors share gets one file for both, at first and later', async () => {
  const look = await approvedLook(3);
  const decisions = async (version: string) =>
    (await stepsOf(await planned({ versions: [version], stations: [room] }))).map(({ decision }) => decision);
  await out([look.versionId], [room]);
  expect(await decisions(look.versionId)).toEqual(['in-step', 'in-step']);
  const newer = await versionOf(look.itemId, cubeOf(must(houseLooks[4]), 9), 'newer.cube');
  await confirmEncoding(people.librarian, newer, srgb);
  await approve(people.librarian, newer);
  expect(await decisions(newer)).toEqual(['put', 'in-step']);
});

describe('a look on a card', () => {
  test('goes with its line in the card’s list; what others wrote there stays', async () => {
    const look = await approvedLook(2);
    listed = 'OLD_TEST.cube\r\n';
    await says();
    await out([look.versionId], [card]);
    const path = must([...lying.keys()].find((one) => one.startsWith('media/ALDER/LOOKS/')));
    listed = `OLD_TEST.cube\r\n${path.slice(path.lastIndexOf('/') + 1)}\r\n`;
    await says();
    const { rollout } = await planRemoval(people.librarian, card, { paths: [path] });
    expect((await stepsOf(rollout)).map((step) => [step.do_what, step.path])).toEqual([
      ['remove', path],
      ['put', INDEX],
    ]);
    await confirmRollout(people.librarian, rollout);
    await carried();
    expect(lying.get(INDEX)).toBe(sha('OLD_TEST.cube\r\n'));
  });

  test.each([
    ['too long', null],
    ['in another encoding', 'T\ufffdpferei.cube\r\n'],
  ])('is not named in a list that is %s, and no undo writes that: what stands there would be lost', async (_, told) => {
    listed = '';
    lying.delete(INDEX);
    await says();
    const look = await approvedLook(5);
    const rollout = await out([look.versionId], [card]);
    const path = must([...lying.keys()].filter((one) => one.startsWith('media/ALDER/LOOKS/')).at(-1));
    listed = told;
    lying.set(INDEX, sha('by somebody there'));
    await says();
    const { rollout: removal } = await planRemoval(people.librarian, card, { paths: [path] });
    const removed = await stepsOf(removal);
    expect(removed.map((step) => [step.do_what, step.decision, step.path])).toEqual([
      ['remove', 'remove', path],
      ['none', 'conflict', INDEX],
    ]);
    expect(must(removed[1]).note).toMatch(/\.cube must be taken out there by hand$/);
    const undo = await undoRollout(people.librarian, rollout);
    expect((await stepsOf(undo)).map((step) => [step.do_what, step.decision, step.path])).toEqual([
      ['none', 'conflict', INDEX],
      ['remove', 'remove', path],
    ]);
    await carried();
    const again = await stepsOf(await planned({ versions: [look.versionId], stations: [card] }));
    expect(again.map((step) => [step.do_what, step.decision, step.path])).toEqual([
      ['put', 'put', path],
      ['none', 'conflict', INDEX],
    ]);
    expect(must(again[1]).note).toMatch(
      /^the list from which .* loads is no UTF-8 text, .*: .*\.cube must be named there/,
    );
  });
});

test('what is not ours cannot be taken away, nor by everybody', async () => {
  await expect(planRemoval(people.librarian, room, { paths: ['Oxbow/Looks/theirs.cube'] })).rejects.toMatchObject({
    code: 'placement-unknown',
  });
  await expect(planRemoval(people.retoucher, room, { paths: ['x'] })).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(planRemoval(people.librarian, 'nonsense', { paths: ['x'] })).rejects.toMatchObject({
    code: 'not-found',
  });
});
