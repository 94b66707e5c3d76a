/** Who has what: of a shelf, a pack, the everyday list, with what is due where. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { one } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { setRibbon } from '../items/service';
import { confirmRollout } from '../rollouts/service';
import { addStation, approvedLook, carryOut, enrolled, planned } from '../rollouts/testing/world';
import { matrixFor } from './matrix';

withDatabase();

let [desk, room, shelf] = ['', '', ''];
const looks: { itemId: string; versionId: string }[] = [];
beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'macos', ['oxbow@2', 'marlstone@4']);
  room = await addStation('Room', 'linux', ['oxbow@2']);
  await addStation('Bare', 'linux', []);
  for (const n of [0, 1]) looks.push(await approvedLook(n));
  shelf = (await one<{ id: string }>(pool(), "select id from shelf where name = 'S'")).id;
  const token = await enrolled(room, 'linux');
  const rollout = await planned({ versions: [must(looks[0]).versionId], stations: [room] });
  await confirmRollout(people.lead, rollout);
  await carryOut(token);
});

const cellsOf = async (asked: Parameters<typeof matrixFor>[1]) => {
  const { rows } = await matrixFor(people.retoucher, asked);
  return rows.map(({ item, cells }) => [
    looks.findIndex(({ itemId }) => itemId === item),
    cells[desk]?.is ?? null,
    cells[room]?.is ?? null,
  ]);
};

describe('who has what', () => {
  test('is told of a shelf, by the gravest of a station’s editors; where no editor takes it, nothing', async () => {
    expect((await cellsOf({ shelf })).toSorted()).toEqual([
      [0, 'missing', 'in-step'],
      [1, 'missing', 'missing'],
    ]);
    const matrix = await matrixFor(people.retoucher, { shelf });
    expect([matrix.inStep, matrix.places, matrix.columns, matrix.of]).toEqual([1, 6, 3, 2]);
    expect(matrix.rows[0]?.cells[desk]?.editors.map(({ editor }) => editor)).toEqual(
      expect.arrayContaining(['oxbow@2', 'marlstone@4']),
    );
    expect(Object.keys(must(matrix.rows[0]).cells)).toHaveLength(2);
  });

  test('is told of the everyday list where nothing else is asked, and of no items where a pack has none', async () => {
    expect(await cellsOf({})).toEqual([]);
    await setRibbon(people.lead, must(looks[1]).itemId, { on: true, whose: 'house' });
    expect(await cellsOf({})).toEqual([[1, 'missing', 'missing']]);
    expect(await cellsOf({ pack: desk })).toEqual([]);
    expect(await cellsOf({ shelf: 'nonsense' })).toEqual([]);
  });

  test('comes in pages, and as what is due alone', async () => {
    const far = await matrixFor(people.retoucher, { shelf, from: 1, at: 1 });
    expect(far.rows).toHaveLength(1);
    expect(far.stations).toHaveLength(2);
    const token = await enrolled(desk, 'macos');
    const rollout = await planned({ versions: [must(looks[0]).versionId], stations: [desk] });
    await confirmRollout(people.lead, rollout);
    await carryOut(token);
    const due = await matrixFor(people.retoucher, { shelf, due: true });
    expect(due.rows.map(({ item }) => item)).toEqual([must(looks[1]).itemId]);
    expect(due.rows[0]?.due.toSorted()).toEqual([desk, room].toSorted());
  });
});
