import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demosaic, phased } from './demosaic';
import { cropped, oriented, shownSize, storedRect } from './orient';

const patterns = [
  [0, 1, 1, 2],
  [2, 1, 1, 0],
  [1, 0, 2, 1],
  [1, 2, 0, 1],
] as const;
/** What a sensor under this pattern records of a scene of camera values 0…1. */
const record = (
  w: number,
  h: number,
  cfa: readonly number[],
  color: (x: number, y: number) => number[],
  black = 64,
  white = 4000,
) => ({
  width: w,
  height: h,
  cfa,
  black: [black, black, black, black],
  white: [white, white, white, white],
  samples: Float64Array.from(
    { length: w * h },
    (_, i) =>
      black + color(i % w, Math.floor(i / w))[cfa[((Math.floor(i / w) & 1) << 1) + ((i % w) & 1)]!]! * (white - black),
  ),
});

describe('demosaicing', () => {
  test.each(patterns)('a plane of one color is that color everywhere, in the pattern %i %i %i %i', (...cfa) => {
    const color = [0.21, 0.4, 0.13];
    const out = demosaic({ ...record(17, 13, cfa, () => color), neutral: [0.5, 1, 0.3] });
    for (let i = 0; i < out.length; i++) expect(Math.abs(out[i]! / 65535 - color[i % 3]!)).toBeLessThan(1e-4);
  });
  test('a slope of a neutral scene is kept within', () => {
    const numbers = [0.5, 1, 0.6];
    const out = demosaic({
      ...record(40, 40, [0, 1, 1, 2], (x, y) => numbers.map((v) => v * (0.1 + x * 0.01 + y * 0.005))),
      neutral: numbers,
    });
    for (let y = 3; y < 37; y++)
      for (let x = 3; x < 37; x++)
        for (let c = 0; c < 3; c++)
          expect(out[(y * 40 + x) * 3 + c]! / 65535).toBeCloseTo(numbers[c]! * (0.1 + x * 0.01 + y * 0.005), 3);
  });
  test('what was measured stays as measured, and an edge is drawn nearer than by plain averaging', () => {
    const numbers = [0.5, 1, 0.6];
    const scene = (x: number, y: number) =>
      numbers.map((v) => v * (0.25 + 0.2 * Math.tanh((x * 0.8 + y * 0.6 - 30) / 1.2)));
    const mosaic = { ...record(48, 48, [0, 1, 1, 2], scene), neutral: numbers };
    const out = demosaic(mosaic);
    let ours = 0;
    let plain = 0;
    let places = 0;
    for (let y = 4; y < 44; y++)
      for (let x = 4; x < 44; x++) {
        const own = mosaic.cfa[((y & 1) << 1) + (x & 1)]!;
        const at = (xx: number, yy: number) => (mosaic.samples[yy * 48 + xx]! - 64) / 3936;
        expect(out[(y * 48 + x) * 3 + own]! / 65535).toBeCloseTo(at(x, y), 4);
        if (own === 1) continue;
        const truth = scene(x, y)[1]!;
        ours += (out[(y * 48 + x) * 3 + 1]! / 65535 - truth) ** 2;
        plain += ((at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1)) / 4 - truth) ** 2;
        places++;
      }
    expect(places).toBe(800);
    expect(ours).toBeLessThan(plain / 2);
  });
  test('a part with its margin is what the whole is there', () => {
    const seed = (x: number, y: number, c: number) =>
      ((Math.imul(x * 31 + y * 57 + c * 7, 2654435761) >>> 20) & 1023) / 1300;
    const whole = {
      ...record(32, 32, [1, 0, 2, 1], (x, y) => [0, 1, 2].map((c) => seed(x, y, c))),
      neutral: [1, 1, 1],
    };
    const all = demosaic(whole);
    const cut = (x0: number, y0: number, w: number, h: number) =>
      demosaic({
        ...whole,
        width: w,
        height: h,
        cfa: phased(whole.cfa, x0, y0),
        samples: Float64Array.from(
          { length: w * h },
          (_, i) => whole.samples[(y0 + Math.floor(i / w)) * 32 + x0 + (i % w)]!,
        ),
      });
    const part = cut(7, 10, 12, 11);
    for (let y = 2; y < 9; y++)
      for (let x = 2; x < 10; x++)
        for (let c = 0; c < 3; c++) expect(part[(y * 12 + x) * 3 + c]).toBe(all[((10 + y) * 32 + 7 + x) * 3 + c]);
  });
});

describe('orientation', () => {
  test('a letter turned as TIFF says', () => {
    // stored: 1 2 3 / 4 5 6
    const turned = (o: number) => [...oriented(Uint8Array.of(1, 2, 3, 4, 5, 6), 3, 2, 1, o)].join('');
    expect([1, 2, 3, 4, 5, 6, 7, 8].map(turned)).toEqual([
      '123456',
      '321654',
      '654321',
      '456123',
      '142536',
      '415263',
      '635241',
      '362514',
    ]);
    expect(shownSize(3, 2, 6)).toEqual([2, 3]);
  });
  test('a part as shown is the same whether cut before or after turning', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        fc.nat(),
        fc.nat(),
        fc.nat(),
        fc.nat(),
        (o, w, h, a, b, c, d) => {
          const data = Uint16Array.from({ length: w * h * 3 }, (_, i) => i);
          const [sw, sh] = shownSize(w, h, o);
          const shown = oriented(data, w, h, 3, o);
          const x = a % sw;
          const y = b % sh;
          const region = { x, y, w: 1 + (c % (sw - x)), h: 1 + (d % (sh - y)) };
          const rect = storedRect(region, w, h, o);
          const part = cropped(shown, { x: 0, y: 0, w: sw, h: sh }, region, 3);
          expect(oriented(cropped(data, { x: 0, y: 0, w, h }, rect, 3), rect.w, rect.h, 3, o)).toEqual(part);
          part.forEach((v, i) =>
            expect(v).toBe(
              shown[
                ((region.y + Math.floor(i / 3 / region.w)) * sw + region.x + (Math.floor(i / 3) % region.w)) * 3 +
                  (i % 3)
              ],
            ),
          );
        },
      ),
      { numRuns: 300 },
    ));
});
