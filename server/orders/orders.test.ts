/** Standing orders: what is followed, by whom it is due, and that its plan brings the stations in step. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { one } from '../db/query';
import { bringDescriptor } from '../editors/service';
import { confirmEncoding } from '../items/encoding';
import { approve } from '../items/approval';
import { setRibbon } from '../items/service';
import { itemOf, versionOf } from '../items/testing/item-of';
import { confirmRollout, moveRollout, rolloutFor } from '../rollouts/service';
import { changeStation } from '../stations/service';
import { addStation, carryOut, enrolled, srgb, work } from '../rollouts/testing/world';
import { addShelf } from '../shelves/service';
import { addOrder, changeOrder, dueAt, dueByStation, ordersFor, planOrder, removeOrder } from './service';

withDatabase();

let shelf = '';
let desk = '';
let room = '';
let token = '';
const items: { itemId: string; versionId: string }[] = [];
const order = {
  name: 'Ceramics',
  shelves: [] as string[],
  packs: [],
  ribbons: false,
  choices: false,
  stations: [] as string[],
};

async function look(n: number, shelfId: string): Promise<{ itemId: string; versionId: string }> {
  const design = must(houseLooks[n]);
  const made = await itemOf(cubeOf(design, 9), `${n}.cube`, { title: design.title, headings: [], shelfId });
  await confirmEncoding(people.librarian, made.versionId, srgb);
  await approve(people.librarian, made.versionId);
  return made;
}

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  shelf = await addShelf(people.librarian, { name: 'Ceramics' });
  items.push(await look(0, shelf), await look(1, shelf));
  desk = await addStation('Desk', 'macos', ['marlstone@4', 'oxbow@2']);
  room = await addStation('Room', 'linux', ['oxbow@2']);
  token = await enrolled(room, 'linux');
  Object.assign(order, { shelves: [shelf], stations: [desk, room] });
});

const counts = async (name: string) => {
  const found = must((await ordersFor(people.retoucher)).find((one) => one.name === name));
  return found.due.map(({ station, ...rest }) => ({ ...rest, at: station === desk ? 'desk' : 'room' }));
};

describe('a standing order', () => {
  let id = '';

  test('says what is missing at each station, for each editor that takes it', async () => {
    id = (await addOrder(people.librarian, order)).id;
    expect(await counts('Ceramics')).toEqual([
      { at: 'desk', missing: 4, updates: 0, inStep: 0 },
      { at: 'room', missing: 2, updates: 0, inStep: 0 },
    ]);
  });

  test('is planned at one of its stations alone, where that is said', async () => {
    const { rollout } = await planOrder(people.lead, id, { station: room });
    await work(rollout);
    const { steps } = await rolloutFor(people.lead, rollout);
    expect(steps.map(({ station_id: station }) => station)).toEqual([room, room]);
    await moveRollout(people.lead, rollout, { verb: 'drop' });
    const elsewhere = planOrder(people.lead, id, { station: id });
    await expect(elsewhere).rejects.toMatchObject({ code: 'order-in-step' });
  });

  test('is brought in step by its plan, which is a rollout like any other', async () => {
    await changeOrder(people.lead, id, { ...order, stations: [room], revision: 1 });
    const { rollout } = await planOrder(people.lead, id);
    await work(rollout);
    const { steps } = await rolloutFor(people.lead, rollout);
    expect(steps.map(({ decision }) => decision)).toEqual(['put', 'put']);
    await confirmRollout(people.lead, rollout);
    await carryOut(token);
    expect(await counts('Ceramics')).toEqual([{ at: 'room', missing: 0, updates: 0, inStep: 2 }]);
    await expect(planOrder(people.lead, id)).rejects.toMatchObject({ code: 'order-in-step' });
  });

  test('says what is due once a newer version is approved, and what comes onto the shelf', async () => {
    const newer = await versionOf(must(items[0]).itemId, cubeOf(must(houseLooks[5]), 9), 'newer.cube');
    await confirmEncoding(people.librarian, newer, srgb);
    expect(await counts('Ceramics')).toEqual([{ at: 'room', missing: 0, updates: 0, inStep: 2 }]);
    await approve(people.librarian, newer);
    items.push(await look(2, shelf));
    expect(await counts('Ceramics')).toEqual([{ at: 'room', missing: 1, updates: 1, inStep: 1 }]);
    const [here] = await dueAt(people.retoucher, room);
    expect(must(here).due.map(({ is, there, followed }) => [followed.number, there, is])).toEqual(
      expect.arrayContaining([
        [2, 1, 'update-due'],
        [1, null, 'missing'],
      ]),
    );
    expect(await dueAt(people.retoucher, desk)).toEqual([]);
    expect(await dueByStation(people.retoucher, [desk, room])).toEqual(new Map([[room, 2]]));
  });

  test('follows the house’s list too, each thing once', async () => {
    const other = await look(3, await addShelf(people.librarian, { name: 'Other' }));
    await setRibbon(people.librarian, other.itemId, { whose: 'house', on: true });
    await setRibbon(people.librarian, must(items[1]).itemId, { whose: 'house', on: true });
    await changeOrder(people.librarian, id, { ...order, ribbons: true, stations: [room], revision: 2 });
    expect(await counts('Ceramics')).toEqual([{ at: 'room', missing: 2, updates: 1, inStep: 1 }]);
  });

  test('follows a self-filling shelf by what its search finds', async () => {
    const filling = await addShelf(people.librarian, { name: 'Found', query: { q: must(houseLooks[2]).title } });
    await addOrder(people.lead, { ...order, name: 'By search', shelves: [filling], stations: [desk] });
    expect(await counts('By search')).toEqual([{ at: 'desk', missing: 2, updates: 0, inStep: 0 }]);
  });
});

describe('what cannot be ordered', () => {
  test('is told: nothing, a name twice, an order that somebody else has changed', async () => {
    await expect(addOrder(people.librarian, { ...order, name: 'Empty', shelves: [] })).rejects.toMatchObject({
      code: 'order-empty',
    });
    await expect(addOrder(people.librarian, { ...order, name: 'ceramics' })).rejects.toMatchObject({
      code: 'order-exists',
    });
    const { id } = await addOrder(people.librarian, { ...order, name: 'Both' });
    await changeOrder(people.librarian, id, { ...order, name: 'Both, mine', revision: 1 });
    await expect(changeOrder(people.lead, id, { ...order, name: 'Both, theirs', revision: 1 })).rejects.toMatchObject({
      code: 'edited-meanwhile',
    });
    await removeOrder(people.lead, id);
    await expect(planOrder(people.lead, id)).rejects.toMatchObject({ code: 'not-found' });
    await expect(planOrder(people.lead, 'nonsense')).rejects.toMatchObject({ code: 'not-found' });
  });

  test('a station that is retired follows nothing, and comes back with what it followed', async () => {
    const before = (await dueByStation(people.lead, [desk])).get(desk);
    await addOrder(people.librarian, { ...order, name: 'Retiring' });
    await addOrder(people.librarian, { ...order, name: 'Retiring too' });
    const after = must((await dueByStation(people.lead, [desk])).get(desk));
    expect(after).toBeGreaterThan(before ?? 0);
    // two orders for the same ask for each file once
    const alone = must((await counts('Retiring')).find(({ at }) => at === 'desk'));
    expect(after).toBe(alone.missing + alone.updates);
    await pool().query('update station set retired_at = now() where id = $1', [desk]);
    expect((await counts('Retiring')).map(({ at }) => at)).toEqual(['room']);
    await pool().query('update station set retired_at = null where id = $1', [desk]);
    expect((await counts('Retiring')).map(({ at }) => at)).toEqual(['desk', 'room']);
    expect((await one<{ n: number }>(pool(), 'select count(*)::int as n from standing_order')).n).toBeGreaterThan(2);
  });
});

test('a group follows an order: who comes into it has what is missing, who leaves it nothing', async () => {
  const { id } = await addOrder(people.librarian, { ...order, name: 'For the kiln', stations: [], groups: ['Kiln'] });
  expect(await counts('For the kiln')).toEqual([]);
  await changeStation(people.librarian, desk, { name: 'Desk', groups: ['Kiln', 'Loft'] });
  expect((await counts('For the kiln')).map(({ at }) => at)).toEqual(['desk']);
  expect((await dueAt(people.retoucher, desk)).map(({ order: { name } }) => name)).toContain('For the kiln');
  const [own] = (await ordersFor(people.retoucher)).filter((one) => one.id === id);
  expect(must(own)).toMatchObject({ groups: ['Kiln'], stations: [{ id: desk, named: false }] });
  // named and in the group too: once
  await changeOrder(people.librarian, id, {
    ...order,
    name: 'For the kiln',
    stations: [desk],
    groups: ['Kiln'],
    revision: 1,
  });
  expect((await counts('For the kiln')).map(({ at }) => at)).toEqual(['desk']);
  await changeOrder(people.librarian, id, {
    ...order,
    name: 'For the kiln',
    stations: [],
    groups: ['Kiln'],
    revision: 2,
  });
  await changeStation(people.librarian, desk, { name: 'Desk', groups: [] });
  expect(await counts('For the kiln')).toEqual([]);
  const nobody = { ...order, name: 'For nobody', stations: [], groups: [] };
  await expect(addOrder(people.librarian, nobody)).rejects.toMatchObject({ code: 'input-invalid' });
});
