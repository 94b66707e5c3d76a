import { describe, expect, test } from 'vitest';
import { exceptOf, isLeft, isWhole, leftOut, takeAll, takeEntries, takeGroup } from './choice';

describe('what is left out of an arrival', () => {
  test('is nothing at first', () => {
    expect([leftOut(takeAll), isWhole(takeAll, 'new'), isLeft(takeAll, 'new', 1)]).toEqual([0, true, false]);
  });

  test('is a whole group, what is not shown of it included', () => {
    const choice = takeGroup(takeAll, 'new', 292, false);
    expect([leftOut(choice), isLeft(choice, 'new', 291), isLeft(choice, 'version', 5)]).toEqual([292, true, false]);
    expect(exceptOf(choice)).toEqual({ except: [], exceptGroups: ['new'] });
  });

  test('is a group but for some that are taken all the same', () => {
    const choice = takeEntries(takeGroup(takeAll, 'new', 292, false), 'new', [7, 8], true);
    expect([leftOut(choice), isLeft(choice, 'new', 7), isLeft(choice, 'new', 9)]).toEqual([290, false, true]);
    expect(exceptOf(choice)).toEqual({ except: [7, 8], exceptGroups: ['new'] });
    expect(leftOut(takeEntries(choice, 'new', [7], false))).toBe(291);
  });

  test('is single files, and nothing any more when their group is taken whole', () => {
    const choice = takeEntries(takeEntries(takeAll, 'new', [1, 2], false), 'version', [3], false);
    expect([leftOut(choice), isWhole(choice, 'new'), isWhole(choice, 'frame')]).toEqual([3, false, true]);
    const whole = takeGroup(choice, 'new', 292, true);
    expect([leftOut(whole), isLeft(whole, 'new', 1), isLeft(whole, 'version', 3)]).toEqual([1, false, true]);
  });
});
