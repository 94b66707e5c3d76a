/** What editors listed before and after a rollout, from their own lists. */
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { pastFor } from '../stations/past';
import { instructionsFor } from '../stations/service';
import { readingsOf } from './readings';
import { confirmRollout, rolloutFor } from './service';
import { addStation, agent, approvedLook, carryOut, enrolled, planned, report } from './testing/world';

withDatabase();
let [desk, token] = ['', ''];
const looks: { itemId: string; versionId: string }[] = [];
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  for (const n of [0, 1]) looks.push(await approvedLook(n));
});

let hour = 0;
/** The editor tells what it lists, and what it refuses. */
async function tells(paths: readonly string[], refused: readonly string[] = []): Promise<void> {
  const { listings } = await instructionsFor(await agent(token));
  const at = new Date(Date.UTC(2026, 10, 1, hour++)).toISOString();
  const text = JSON.stringify({
    at,
    running: true,
    listed: paths.map((path) => ({ path, title: path.replace(/^.*\/|\.cube$/g, ''), kind: 'look' })),
    refused: refused.map((path) => ({ path, reason: 'cut off' })),
  });
  await report(token, [], [{ editor: must(listings[0]).editor, text, running: true, at }]);
}
async function rolledOut(n: number): Promise<{ id: string; path: string }> {
  const id = await planned({ versions: [must(looks[n]).versionId], stations: [desk] });
  await confirmRollout(people.lead, id);
  const path = must((await carryOut(token)).find(({ sha256 }) => sha256)).path;
  return { id, path };
}
const readings = async (id: string) => {
  const { rollout, steps } = await rolloutFor(people.librarian, id);
  return readingsOf(people.retoucher, rollout, steps);
};

test('a rollout is told with what the editor listed before and after it, until the next one', async () => {
  await tells(['Oxbow/Looks/theirs.cube']);
  const first = await rolledOut(0);
  expect(await readings(first.id)).toEqual([]);
  await tells(['Oxbow/Looks/theirs.cube', first.path]);
  const after = { before: 1, after: 2, gone: [], refused: [], waiting: 0 };
  expect(await readings(first.id)).toMatchObject([{ title: 'Oxbow 2', came: [{ path: first.path }], ...after }]);

  const second = await rolledOut(1);
  await tells(['Oxbow/Looks/theirs.cube', first.path], [second.path]);
  // what the next one brought is not told of the first
  expect(await readings(first.id)).toMatchObject([after]);
  expect(await readings(second.id)).toMatchObject([
    { before: 2, after: 2, came: [], refused: [{ path: second.path, reason: 'cut off' }], waiting: 0 },
  ]);
});

test('a list that says the same again leaves nothing behind; the station’s past has each change', async () => {
  const count = async () => (await pastFor(people.retoucher, desk, undefined)).lists.length;
  const before = await count();
  const { lists } = await pastFor(people.retoucher, desk, undefined);
  const told = must(lists[0]);
  expect(told.refused.length).toBe(1);
  const { came } = must(lists[1]);
  await tells(['Oxbow/Looks/theirs.cube', must(came[0]).path], [must(told.refused[0]).path]);
  expect(await count()).toBe(before);
  expect((await pastFor(people.retoucher, desk, '2020-01-01')).lists).toEqual([]);
});

test('a plan that nobody has confirmed has none', async () => {
  const [look] = [await approvedLook(2)];
  const id = await planned({ versions: [look.versionId], stations: [desk] });
  expect(await readings(id)).toEqual([]);
});
