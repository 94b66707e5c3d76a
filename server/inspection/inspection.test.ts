import { readFileSync } from 'node:fs';
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { transaction } from '../db/pool';
import { people as p, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { itemOf } from '../items/testing/item-of';
import { inspectionById } from '../items/service';
import { actorOf } from '../people/roles';
import { addShelf } from '../shelves/service';
import { checkAgainst, itemsToInspect } from './service';

withDatabase();
let shelf = '';
let large = '';
let small = '';
beforeAll(async () => {
  for (const name of ['perrin-alder-1', 'oxbow-2'])
    await transaction(async (sql) =>
      bringDescriptor(
        sql,
        actorOf(p.librarian),
        JSON.parse(readFileSync(`standins/descriptors/${name}.json`, 'utf8')),
        name,
      ),
    );
  shelf = await addShelf(p.librarian, { name: 'To be sent' });
  const look = (title: string, points: number) =>
    itemOf(cubeOf(must(houseLooks[0]), points), `${title}.cube`, { shelfId: shelf, title });
  large = (await look('Amber large', 65)).itemId;
  small = (await look('Amber small', 33)).itemId;
});

test('items are listed in the order that the address gives, once each; what is none is passed over', async () => {
  const { rows, more } = await itemsToInspect(p.retoucher, {
    items: [small, 'nonsense', large, small, '00000000-0000-7000-8000-000000000000'].join(','),
  });
  expect(rows.map(({ title, points }) => [title, points])).toEqual([
    ['Amber small', 33],
    ['Amber large', 65],
  ]);
  expect(more).toBe(false);
});

test('a shelf is inspected whole', async () => {
  const { rows } = await itemsToInspect(p.retoucher, { shelf });
  expect(rows.map(({ id }) => id).sort()).toEqual([large, small].sort());
  expect((await itemsToInspect(p.retoucher, { pack: shelf })).rows).toEqual([]);
  const filled = await addShelf(p.librarian, { name: 'Large ones', query: { q: 'Amber large' } });
  expect((await itemsToInspect(p.retoucher, { shelf: filled })).rows.map(({ id }) => id)).toEqual([large]);
});

test('each is held against what a card asks: points, encoding and approval by what is kept of it', async () => {
  const { rows } = await itemsToInspect(p.librarian, { items: `${large},${small}` });
  const { targets, checked } = await checkAgainst(p.librarian, rows, 'perrin-alder@1');
  expect(targets.map(({ title }) => title)).toEqual(['Oxbow 2', 'Perrin Alder']);
  const [first, second] = must(checked).things;
  expect(must(first).checks.points).toMatchObject({ is: 'on-the-way', words: '65 become 33' });
  expect(must(second).checks.points).toEqual({ is: 'passed', words: '33' });
  expect(must(second).checks.approval).toMatchObject({ is: 'to-change', cure: { does: 'approve' } });
  expect(must(second).checks.encoding).toMatchObject({ is: 'to-change', cure: { does: 'confirm-encoding' } });
  expect((await checkAgainst(p.librarian, rows, 'nobody@1')).checked).toBeNull();
});

test('figures are those of the look itself, by its version', async () => {
  const { rows } = await itemsToInspect(p.librarian, { items: small });
  const found = must(await inspectionById(p.librarian, must(rows[0]).version_id));
  expect(found.figures.folds).toBe(0);
  expect(found.ramp.length).toBeGreaterThan(50);
});
