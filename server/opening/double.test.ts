/** Opening rules that have an effect twice. */
import { beforeAll, expect, test } from 'vitest';
import { oxbowPreset } from '@/core/preset/testing';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { itemOf } from '../items/testing/item-of';
import { addShelf } from '../shelves/service';
import { convertPreset } from '../versions/convert';
import { doubleInRules } from './double';
import { openingFor, setOpening } from './service';

withDatabase();

let shelf = '';
let made = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
  const { versionId } = await itemOf(
    oxbowPreset('<rdf:li run:step="lamp" run:stops="0.7"/>', { title: 'Dusk' }),
    'a.xmp',
    {
      title: 'Dusk',
      shelfId: shelf,
    },
  );
  made = (await convertPreset(people.librarian, { versionId, size: 17, title: 'Dusk, a look' })).itemId;
  const calls = '<rdf:li run:step="lamp" run:stops="0.5"/><rdf:li run:step="table" run:name="Own" run:share="0.4"/>';
  const calling = await itemOf(oxbowPreset(calls, { title: 'Ring' }), 'b.xmp', { title: 'Ring', shelfId: shelf });
  await convertPreset(people.librarian, {
    versionId: calling.versionId,
    size: 17,
    title: 'Own',
    settings: ['level'],
  });
});

test('a rule that names a preset and the look made from it has the effect twice; with either alone it has it once', async () => {
  const rule = { words: 'any photo', preset: 'dusk', look: 'DUSK, a look' };
  expect(await doubleInRules(pool(), [rule])).toEqual([
    { words: 'any photo', preset: 'Dusk', look: { id: made, title: 'Dusk, a look' }, calls: false },
  ]);
  expect(await doubleInRules(pool(), [{ ...rule, look: '' }])).toEqual([]);
  expect(await doubleInRules(pool(), [{ ...rule, look: 'Another' }])).toEqual([]);
  expect(await doubleInRules(pool(), [])).toEqual([]);
});

test('a rule whose preset calls the look that was made from it has the effect twice by itself', async () => {
  expect(await doubleInRules(pool(), [{ words: 'Ondine 40', preset: 'Ring', look: '' }])).toMatchObject([
    { words: 'Ondine 40', preset: 'Ring', look: { title: 'Own' }, calls: true },
  ]);
});

test('the studio’s rules are told of it', async () => {
  await setOpening(people.lead, {
    revision: 0,
    rules: [
      { when: { camera: 'Ondine 40' }, start: { preset: 'Dusk', look: 'Dusk, a look' } },
      { when: {}, start: { look: 'Dusk, a look' } },
    ],
  });
  expect((await openingFor(people.retoucher)).doubles.map(({ words, calls }) => [words, calls])).toEqual([
    ['Ondine 40', false],
  ]);
});
