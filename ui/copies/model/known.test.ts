import { expect, test } from 'vitest';
import type { Spine } from '../../shelves/model/spine';
import { knownBest } from './known';

type Item = Pick<Spine, 'id' | 'status' | 'house' | 'mine' | 'stations'>;

const item = (id: string, more: Partial<Item> = {}): Item => ({
  id,
  status: 'draft',
  house: false,
  mine: false,
  stations: 0,
  ...more,
});

test.each<[string, Partial<Item>]>([
  ['is approved', { status: 'approved' }],
  ['has the ribbon of the house', { house: true }],
  ['has my ribbon', { mine: true }],
  ['lies on a station', { stations: 1 }],
])('of two that do the same, the one that %s stays', (_, more) =>
  expect(knownBest([item('first'), item('known', more)]).id).toBe('known'),
);

test('two stations outweigh an approval, and of equals the first stays', () => {
  expect(knownBest([item('approved', { status: 'approved' }), item('placed', { stations: 2 })]).id).toBe('placed');
  expect(knownBest([item('first'), item('second')]).id).toBe('first');
});
