import { expect, test } from 'vitest';
import { nearestInRow } from './nearest';

/** Three rows of four, 128 wide and 175 high, the last one short. */
const spines = Array.from({ length: 10 }, (_, n) => ({
  at: n,
  box: { left: (n % 4) * 128, top: Math.floor(n / 4) * 175 },
}));
const from = (n: number, direction: 'up' | 'down') =>
  nearestInRow({ left: (n % 4) * 128, top: Math.floor(n / 4) * 175 }, spines, direction, 20);

test('an arrow leads to the spine straight above or below', () => {
  expect(from(1, 'down')).toBe(5);
  expect(from(9, 'up')).toBe(5);
});

test('where the row below is shorter, it leads to its last', () => expect(from(7, 'down')).toBe(9));

test('it leads nowhere beyond the first and the last row', () => {
  expect(from(2, 'up')).toBeUndefined();
  expect(from(9, 'down')).toBeUndefined();
});
