import { expect, test } from 'vitest';
import { byGroup, groupNames, groupsIn } from './groups';

test('names are read between commas, each once, without what is empty', () => {
  expect(groupsIn(' Kiln ,, Upper   floor,Kiln, ')).toEqual(['Kiln', 'Upper floor']);
  expect(groupsIn('')).toEqual([]);
});

test('stations are put together by each of their groups', () => {
  const stations = [
    { id: 'a', groups: ['Kiln', 'Floor'] },
    { id: 'b', groups: [] },
    { id: 'c', groups: ['Kiln'] },
  ];
  expect(byGroup(stations)).toEqual([
    { name: 'Floor', ids: ['a'] },
    { name: 'Kiln', ids: ['a', 'c'] },
  ]);
});

test.each([
  [['Kiln'], true],
  [[''], false],
  [['Kiln, loft'], false],
  [['x'.repeat(41)], false],
  [Array.from({ length: 21 }, (_, n) => `G${n}`), false],
])('%j can be sent: %s', (names, fits) => expect(groupNames().isValidSync(names)).toBe(fits));
