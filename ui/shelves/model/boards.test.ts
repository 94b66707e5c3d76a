import { describe, expect, test } from 'vitest';
import { boardsInWindow } from './boards';

describe('boards that are painted first', () => {
  test('fill a window: the last of them whole, an empty one for a row', () => {
    expect(boardsInWindow([8, 8, 8, 8], 7)).toBe(2);
    expect(boardsInWindow([7, 0, 7, 7, 1, 1, 7, 7], 7)).toBe(4);
    expect(boardsInWindow([24, 24, 24], 4)).toBe(1);
    expect(boardsInWindow([24, 24, 24], 8)).toBe(2);
  });
  test('are all of them where they are few, and none where there are none', () => {
    expect([boardsInWindow([3, 3], 7), boardsInWindow([], 7)]).toEqual([2, 0]);
  });
});
