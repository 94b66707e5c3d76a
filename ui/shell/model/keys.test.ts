import { expect, test } from 'vitest';
import { keysAt } from './keys';

const titles = (path: string): string[] => keysAt(path).map((group) => group.title);

test('a screen has its own keys, and those that hold everywhere', () => {
  expect(titles('/shelves')).toEqual(['On the shelves', 'Everywhere']);
  expect(titles('/bench')[0]).toBe('On the bench');
  expect(titles('/items/1')).toEqual(['On an item', 'Everywhere']);
  expect(titles('/studio')).toEqual(['Everywhere']);
});
