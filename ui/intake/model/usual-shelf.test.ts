import { expect, test } from 'vitest';
import { shelfOfKind, usualShelf } from './usual-shelf';

const shelves = [
  { id: 'h', name: 'House looks' },
  { id: 'f', name: 'Fathom Color' },
  { id: 's', name: 'Fathom Color, stage set' },
  { id: 'c', name: 'Camera profiles' },
];
test('an arrival is offered the shelf that its name names, the closest of them', () => {
  expect(usualShelf(shelves, 'Fathom Color - Stage set.zip')).toBe('s');
  expect(usualShelf(shelves, 'Fathom Color - Kiln.zip')).toBe('f');
});
test('otherwise the last; without shelves, none', () => {
  expect(usualShelf(shelves, 'Autumn.zip')).toBe('c');
  expect(usualShelf([], 'Autumn.zip')).toBeNull();
  expect(usualShelf([{ id: 'x', name: '—' }], 'Autumn')).toBe('x');
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
