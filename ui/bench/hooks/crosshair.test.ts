import { expect, test } from 'vitest';
import { moved } from './crosshair';

test('the arrows move the place, with Shift further, and never out of the cell', () => {
  expect(moved({ x: 0.5, y: 0.5 }, 'ArrowLeft', false)).toEqual({ x: 0.48, y: 0.5 });
  expect(moved({ x: 0.5, y: 0.5 }, 'ArrowDown', true)).toEqual({ x: 0.5, y: 0.6 });
  expect(moved({ x: 0.99, y: 0.01 }, 'ArrowRight', true)).toEqual({ x: 1, y: 0.01 });
  expect(moved({ x: 0.5, y: 0.01 }, 'ArrowUp', true)).toEqual({ x: 0.5, y: 0 });
  expect(moved({ x: 0.5, y: 0.5 }, 'Enter', false)).toBeNull();
});
