import { expect, test } from 'vitest';
import { moved } from './order';

test('one goes to where it is put, up or down, and nothing is lost', () => {
  expect(moved(['a', 'b', 'c', 'd'], 0, 2)).toEqual(['b', 'c', 'a', 'd']);
  expect(moved(['a', 'b', 'c', 'd'], 3, 1)).toEqual(['a', 'd', 'b', 'c']);
  expect(moved(['a', 'b'], 5, 0)).toEqual(['a', 'b']);
});
