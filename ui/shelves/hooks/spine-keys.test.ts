import { expect, test } from 'vitest';
import type { Spine } from '../model/spine';
import { stepAlong } from './spine-keys';

const on = (shelfId: string, ...ids: string[]) => ids.map((id) => ({ id, shelfId }) as Spine);
const spines = [...on('kiln', 'a', 'b', 'c'), ...on('stage', 'd')];
const step = (id: string, by: -1 | 1) => stepAlong(spines, spines.find((spine) => spine.id === id) as Spine, by);

test('a step to the right stands before the one after the next, at the end before none', () => {
  expect(step('a', 1)).toBe('c');
  expect(step('b', 1)).toBeNull();
});

test('a step to the left stands before the one that was before', () => expect(step('c', -1)).toBe('b'));

test('there is no step beyond the ends of one’s own shelf', () => {
  expect(step('a', -1)).toBeUndefined();
  expect(step('c', 1)).toBeUndefined();
  expect(step('d', 1)).toBeUndefined();
});
