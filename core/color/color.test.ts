import { differenceCiede2000, converter } from 'culori';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { deltaE2000 } from './difference';
import { labOfSrgb } from './lab';
import { invert, multiply } from './matrix';
import { fromOklab, toOklab } from './oklab';
import { adapt, between, D50, D65, spaces, toXyz, xyzOf } from './spaces';
import { planckian, xyOfUv } from './temperature';
import { decodeSrgb, encodeSrgb, logShaper } from './transfer';
import { cubeRootQuickly, decodeSrgbQuickly, encodeSrgbQuickly, powerQuickly } from './transfer-table';

/** Sharma, Wu, Dalal (2005), table 1: L1 a1 b1 L2 a2 b2 ΔE00. */
const pairs =
  `50 2.6772 -79.7751 50 0 -82.7485 2.0425|50 3.1571 -77.2803 50 0 -82.7485 2.8615|50 2.8361 -74.02 50 0 -82.7485 3.4412|50 -1.3802 -84.2814 50 0 -82.7485 1|50 -1.1848 -84.8006 50 0 -82.7485 1|50 -0.9009 -85.5211 50 0 -82.7485 1|50 0 0 50 -1 2 2.3669|50 -1 2 50 0 0 2.3669|50 2.49 -0.001 50 -2.49 0.0009 7.1792|50 2.49 -0.001 50 -2.49 0.001 7.1792|50 2.49 -0.001 50 -2.49 0.0011 7.2195|50 2.49 -0.001 50 -2.49 0.0012 7.2195|50 -0.001 2.49 50 0.0009 -2.49 4.8045|50 -0.001 2.49 50 0.001 -2.49 4.8045|50 -0.001 2.49 50 0.0011 -2.49 4.7461|50 2.5 0 50 0 -2.5 4.3065|50 2.5 0 73 25 -18 27.1492|50 2.5 0 61 -5 29 22.8977|50 2.5 0 56 -27 -3 31.903|50 2.5 0 58 24 15 19.4535|50 2.5 0 50 3.1736 0.5854 1|50 2.5 0 50 3.2972 0 1|50 2.5 0 50 1.8634 0.5757 1|50 2.5 0 50 3.2592 0.335 1|60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644|63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.263|61.2901 3.7196 -5.3901 61.4292 2.248 -4.962 1.8731|35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645|22.7233 20.0904 -46.694 23.0331 14.973 -42.5619 2.0373|36.4612 47.858 18.3852 36.2715 50.5065 21.2231 1.4146|90.8027 -2.0831 1.441 91.1528 -1.6435 0.0447 1.4441|90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381|6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377|2.0776 0.0795 -1.135 0.9033 -0.0636 -0.5514 0.9082`
    .split('|')
    .map((r) => r.split(' ').map(Number) as [number, number, number, number, number, number, number]);

describe('CIEDE2000', () => {
  test.each(pairs)('gives the published figure for %d %d %d and %d %d %d', (L1, a1, b1, L2, a2, b2, expected) => {
    expect(Math.abs(deltaE2000(L1, a1, b1, L2, a2, b2) - expected)).toBeLessThan(1e-4);
    expect(Math.abs(deltaE2000(L2, a2, b2, L1, a1, b1) - expected)).toBeLessThan(1e-4);
  });
  test('agrees with an independent library on any two colors', () => {
    const lab = converter('lab65');
    const other = differenceCiede2000();
    const arbitrary = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(arbitrary, arbitrary, arbitrary),
        fc.tuple(arbitrary, arbitrary, arbitrary),
        (point, second) => {
          const ours = new Float64Array(6);
          labOfSrgb(...point, ours, 0);
          labOfSrgb(...second, ours, 3);
          const color = lab({ mode: 'rgb', r: point[0], g: point[1], b: point[2] });
          const theirs = lab({ mode: 'rgb', r: second[0], g: second[1], b: second[2] });
          expect(deltaE2000(ours[0]!, ours[1]!, ours[2]!, ours[3]!, ours[4]!, ours[5]!)).toBeCloseTo(
            other(color, theirs),
            2,
          );
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('spaces', () => {
  test('the sRGB matrix is the one of IEC 61966-2-1, to its four digits', () => {
    const expected = [0.4124, 0.3576, 0.1805, 0.2126, 0.7152, 0.0722, 0.0193, 0.1192, 0.9505];
    toXyz(spaces.srgb).forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, 3));
  });
  test('white stays white between any two spaces', () => {
    for (const from of Object.values(spaces))
      for (const to of Object.values(spaces)) {
        const matrix = between(from, to);
        for (let r = 0; r < 3; r++) expect(matrix[r * 3]! + matrix[r * 3 + 1]! + matrix[r * 3 + 2]!).toBeCloseTo(1, 10);
      }
  });
  test('adapting there and back is the identity, and takes one white to the other', () => {
    const there = adapt(D65, D50);
    const round = multiply(adapt(D50, D65), there);
    round.forEach((v, i) => expect(v).toBeCloseTo(i % 4 === 0 ? 1 : 0, 10));
    const triple = xyzOf(D65);
    const to = xyzOf(D50);
    for (let r = 0; r < 3; r++)
      expect(there[r * 3]! * triple[0] + there[r * 3 + 1]! * triple[1] + there[r * 3 + 2]! * triple[2]).toBeCloseTo(
        to[r]!,
        10,
      );
  });
  test('a singular matrix is refused', () => {
    expect(() => invert([1, 2, 3, 2, 4, 6, 0, 0, 1])).toThrow(RangeError);
  });
});

describe('transfer and OKLab', () => {
  const any = fc.double({ min: -4, max: 4, noNaN: true });
  test('sRGB decodes what it encodes, and is odd', () =>
    fc.assert(
      fc.property(any, (v) => {
        expect(decodeSrgb(encodeSrgb(v))).toBeCloseTo(v, 6);
        expect(encodeSrgb(-v)).toBeCloseTo(-encodeSrgb(v), 12);
      }),
    ));
  test('from tables it is the same, within 2e-10', () =>
    fc.assert(
      fc.property(fc.double({ min: -0.5, max: 5, noNaN: true }), (v) => {
        expect(Math.abs(encodeSrgbQuickly(v) - encodeSrgb(v))).toBeLessThan(2e-10);
        expect(Math.abs(decodeSrgbQuickly(v) - decodeSrgb(v))).toBeLessThan(2e-10);
      }),
      { numRuns: 5000 },
    ));
  test('a power from tables is the power, within 4e-9', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        fc.double({ min: 1e-6, max: 3, noNaN: true }),
        (p, x) => {
          expect(Math.abs(powerQuickly(p)(x) - x ** p) / Math.max(1, x ** p)).toBeLessThan(4e-9);
        },
      ),
      { numRuns: 400 },
    ));
  test('a cube root from tables is the root, within 1e-9', () =>
    fc.assert(
      fc.property(fc.double({ min: -1, max: 5, noNaN: true }), (x) => {
        expect(Math.abs(cubeRootQuickly(x) - Math.cbrt(x))).toBeLessThan(1e-9);
      }),
      { numRuns: 2000 },
    ));
  test('a log shaper puts middle gray where its range says', () => {
    const transfer = logShaper(-9, 4);
    expect(transfer.encode(0.18)).toBeCloseTo(9 / 13, 12);
    expect(transfer.decode(1)).toBeCloseTo(0.18 * 16, 10);
    expect(transfer.decode(transfer.encode(0.5))).toBeCloseTo(0.5, 12);
  });
  test('OKLab goes back to where it came from', () =>
    fc.assert(
      fc.property(any, any, any, (r, g, b) => {
        const values = new Float64Array([r, g, b]);
        toOklab(values);
        fromOklab(values);
        [r, g, b].forEach((x, i) => expect(Math.abs(values[i]! - x)).toBeLessThan(2e-6));
      }),
    ));
  test('white is L = 1 without chroma', () => {
    const values = new Float64Array([1, 1, 1]);
    toOklab(values);
    expect(values[0]).toBeCloseTo(1, 4);
    expect(Math.hypot(values[1]!, values[2]!)).toBeLessThan(1e-4);
  });
  test('a black body of 6504 K lies by the daylight white', () => {
    const [x, y] = xyOfUv(planckian(6504));
    expect(x).toBeCloseTo(0.3135, 2);
    expect(y).toBeCloseTo(0.3237, 2);
  });
});
