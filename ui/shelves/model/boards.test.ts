import { describe, expect, test } from 'vitest';
import { boardsInWindow, firstPaint } from './boards';

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
  test('have the names of eight more below them, and room for the others', () => {
    const shelves = Array.from({ length: 67 }, () => 7);
    expect(firstPaint(shelves, 7)).toEqual({ whole: 4, named: 12, restPx: 55 * 240 });
    expect(firstPaint(shelves.slice(0, 9), 7)).toEqual({ whole: 4, named: 9, restPx: 0 });
    expect(firstPaint([], 7)).toEqual({ whole: 0, named: 0, restPx: 0 });
  });
});
