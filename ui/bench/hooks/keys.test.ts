import { describe, expect, test, vi } from 'vitest';
import type { KeyboardEvent } from 'react';
import { cellName, keysOf, placeOf, type KeyActions } from './keys';

const frames = ['frame a', 'frame b'];
const actions = () =>
  ({
    walk: vi.fn(),
    enlarge: vi.fn(),
    strengthen: vi.fn(),
    makeReference: vi.fn(),
    switchDifferences: vi.fn(),
    judge: vi.fn(),
    takeOff: vi.fn(),
  }) satisfies KeyActions;
const press = (key: string, cell: string | undefined = cellName('frame b', 2), more = {}) => ({
  key,
  target: { dataset: cell === undefined ? {} : { cell } },
  preventDefault: vi.fn(),
  ...more,
});

describe('keys in the matrix', () => {
  const at = { row: 1, column: 2 };

  test.each([
    ['ArrowRight', 'walk', [at, 0, 1]],
    ['ArrowUp', 'walk', [at, -1, 0]],
    ['Enter', 'enlarge', [at]],
    ['+', 'strengthen', [at, 5]],
    ['-', 'strengthen', [at, -5]],
    ['r', 'makeReference', [at]],
    ['d', 'switchDifferences', []],
    ['c', 'judge', [at]],
    ['Delete', 'takeOff', [at]],
  ] as const)('%s does what the line below the matrix says', (key, action, args) => {
    const done = actions();
    const event = press(key);
    keysOf(frames, done)(event as unknown as KeyboardEvent);
    expect(done[action]).toHaveBeenCalledWith(...args);
    expect(event.preventDefault).toHaveBeenCalled();
  });

  test('are left alone outside of cells, and with Control or Command', () => {
    const done = actions();
    const onKey = keysOf(frames, done);
    for (const event of [press('r', ''), press('r', 'gone/0'), press('r', cellName('frame a', 0), { ctrlKey: true })])
      onKey(event as unknown as KeyboardEvent);
    onKey(press('r', cellName('frame a', 0), { metaKey: true }) as unknown as KeyboardEvent);
    expect(done.makeReference).not.toHaveBeenCalled();
  });

  test('a cell is told by its frame and its column', () => {
    expect(placeOf(cellName('frame a', 3), frames)).toEqual({ row: 0, column: 3 });
    expect(placeOf(undefined, frames)).toBeNull();
  });
});
