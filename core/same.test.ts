import { expect, test } from 'vitest';
import { equal, same } from './same';

const copy = (text: string): [unknown, unknown] => [JSON.parse(text), JSON.parse(text)];

test.each([
  '{"toString":0}',
  '[{"valueOf":[]}]',
  '{"constructor":{"a":1}}',
  '{"__proto__":{"a":1}}',
  '{"":{"hasOwnProperty":1}}',
])('two readings of %s are the same', (text) => expect(equal(...copy(text))).toBe(true));

test('the order of keys says nothing, that of a list does', () => {
  expect(equal({ a: 1, b: [1, 2] }, { b: [1, 2], a: 1 })).toBe(true);
  expect(equal({ a: [1, 2] }, { a: [2, 1] })).toBe(false);
});

test.each([
  [{ a: 1 }, { a: 1, b: undefined }],
  [{ a: 1 }, { b: 1 }],
  [[], {}],
  [null, {}],
  ['1', 1],
  [{ toString: 1 }, {}],
])('%j and %j are not the same', (one, other) => expect(equal(one, other)).toBe(false));

test('a number that is none is as another; a missing value is as null, on the outside alone', () => {
  expect(equal({ a: NaN }, { a: NaN })).toBe(true);
  expect(same(undefined, null)).toBe(true);
  expect(same({ a: undefined }, {})).toBe(false);
});
