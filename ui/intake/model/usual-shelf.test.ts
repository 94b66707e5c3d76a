import { expect, test } from 'vitest';
import { shelfNameOf, shelfOfKind, usualShelf } from './usual-shelf';

const shelves = [
  { id: 'h', name: 'House looks' },
  { id: 'f', name: 'Fathom Color' },
  { id: 's', name: 'Fathom Color, stage set' },
  { id: 'c', name: 'Camera profiles' },
];
test('an arrival is offered the shelf that its name names, the closest of them', () => {
  expect(usualShelf(shelves, 'Fathom Color - Stage set.zip', 9)).toBe('s');
  expect(usualShelf(shelves, 'Fathom Color - Kiln.zip', 9)).toBe('f');
});
test('otherwise none of them for a pack, but a new one of its name; the last for a single file', () => {
  expect(usualShelf(shelves, 'Autumn.cube', 1)).toBe('c');
  expect(usualShelf([], 'Autumn.cube', 1)).toBeNull();
  expect(usualShelf(shelves, 'Autumn.zip', 9)).toBeNull();
  expect(usualShelf([], 'Autumn.zip', 9)).toBeNull();
  expect(usualShelf([{ id: 'x', name: '—' }], 'Autumn', 9)).toBeNull();
  expect(shelfNameOf('Sable_Row Looks 1.2.zip')).toBe('Sable Row Looks');
  expect(shelfNameOf('Autumn v3')).toBe('Autumn');
  expect(shelfNameOf('Kiln - Night.cube')).toBe('Kiln - Night');
});

test('a kind is offered the shelf that bears its name', () => {
  const shelves = [
    { id: '1', name: 'House looks' },
    { id: '2', name: 'Camera profiles' },
    { id: '3', name: 'Lens databases' },
  ];
  expect(shelfOfKind(shelves, 'camera-profile')).toBe('2');
  expect(shelfOfKind(shelves, 'lens-database')).toBe('3');
  expect(shelfOfKind(shelves, 'look')).toBeNull();
});
