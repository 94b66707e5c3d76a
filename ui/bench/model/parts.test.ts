import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PART, partsInView } from './parts';

const whole = { width: 6000, height: 4000 };
test('a window within the picture asks for the parts that it touches, the middle first', () => {
  const rects = partsInView(whole, { width: 1000, height: 600 }, -2000, -1500, 1);
  expect(rects.map((r) => [r.x / PART, r.y / PART]).sort()).toEqual(
    [3, 4, 5].flatMap((x) => [2, 3, 4].map((y) => [x, y])),
  );
  expect(rects[0]).toEqual({ x: 4 * PART, y: 3 * PART, w: PART, h: PART });
});
test('the last parts end with the picture', () =>
  expect(partsInView(whole, { width: 500, height: 400 }, -5600, -3700, 1)).toContainEqual({
    x: 11 * PART,
    y: 7 * PART,
    w: 6000 - 11 * PART,
    h: 4000 - 7 * PART,
  }));
test('every place in the window that is in the picture is in a part, once', () =>
  fc.assert(
    fc.property(
      fc.integer({ min: -5000, max: 0 }),
      fc.integer({ min: -3400, max: 0 }),
      fc.constantFrom(0.5, 1, 2),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (left, top, scale, u, v) => {
        const room = { width: 900, height: 600 };
        const rects = partsInView(whole, room, left, top, scale);
        const x = (u * room.width - left) / scale;
        const y = (v * room.height - top) / scale;
        const n = rects.filter((r) => x >= r.x && x < r.x + r.w && y >= r.y && y < r.y + r.h).length;
        expect(n).toBe(x < whole.width && y < whole.height ? 1 : 0);
      },
    ),
  ));
