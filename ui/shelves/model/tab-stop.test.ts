import { expect, test } from 'vitest';
import type { Spine } from './spine';
import { tabStop } from './tab-stop';

const spine = (id: string) => ({ id }) as Spine;
const [ash, bone, clay] = [spine('ash'), spine('bone'), spine('clay')];

test('Tab comes to the spine that was looked at last, also where it was fetched anew', () => {
  expect(tabStop([ash, bone, clay], spine('bone'))).toBe(bone);
});

test('and to the first one that is there where it stands elsewhere, or where none was looked at', () => {
  expect(tabStop([undefined, bone, clay], ash)).toBe(bone);
  expect(tabStop([ash, bone], undefined)).toBe(ash);
  expect(tabStop([], ash)).toBeUndefined();
});
