import { describe, expect, test } from 'vitest';
import { differingProfiles } from './differing-profiles';
import { prepare } from '../look/apply';
import { identity } from '../look/look';
import type { Evaluate } from '../look/sample';
import { isOutside, markOutside, uncut } from './display-gamut';

describe('what a display cannot show', () => {
  test('sRGB’s own colors are shown everywhere; a color of P3 alone is not in sRGB, and one of Rec. 2020 alone not in P3', () => {
    for (const color of [
      [0, 0, 0],
      [1, 1, 1],
      [1, 0, 0],
      [0, 1, 1],
      [0.3, 0.9, 0.1],
    ] as [number, number, number][])
      for (const g of ['srgb', 'p3', 'rec2020'] as const) expect(isOutside(...color, g)).toBe(false);
    const p3green = [-0.5116, 1.0183, -0.3107] as const; // P3's own green, encoded as sRGB
    expect([isOutside(...p3green, 'srgb'), isOutside(...p3green, 'p3'), isOutside(...p3green, 'rec2020')]).toEqual([
      true,
      false,
      false,
    ]);
    const wide = [-0.7918, 1.0564, -0.3501] as const; // the green of Rec. 2020
    expect([isOutside(...wide, 'srgb'), isOutside(...wide, 'p3'), isOutside(...wide, 'rec2020')]).toEqual([
      true,
      true,
      false,
    ]);
  });
  test('lighter than white is clipped, not outside; a saturated color cut at the top is', () => {
    expect(isOutside(1.2, 1.2, 1.2, 'srgb')).toBe(false);
    expect(isOutside(1.2, 0.5, 0.2, 'srgb')).toBe(true);
  });
  test('marked pixels are gray, the others stay, and their share is told', () => {
    const out = new Uint8ClampedArray(16 * 4).fill(50);
    const share = markOutside(out, 4, 'srgb', (i, v) => v.set(i < 4 ? [1.3, 0, 0] : [0.5, 0.5, 0.5]));
    expect(share).toBe(25);
    expect([...out.subarray(0, 3)].every((x) => x === 96 || x === 196)).toBe(true);
    expect(out[3]).toBe(50);
    expect([...out.subarray(16)]).toEqual(new Array(48).fill(50));
  });
});
describe('colors before they are cut', () => {
  const table = prepare({ ...identity(9), table: identity(9).table.map((v) => v * 1.4 - 0.1) });
  const neutral = [0.5, 1, 0.5];
  const values = new Float64Array(3);
  test('camera values go through the profile’s table, below black and above white', () => {
    const samples = Uint16Array.from([65535 * 0.5, 65535, 65535 * 0.5, 0, 0, 0]);
    const at = uncut(new Uint8ClampedArray(8), { samples, table, neutral }, []);
    at(0, values);
    values.forEach((x) => expect(x).toBeCloseTo(1.3, 4));
    at(1, values);
    values.forEach((x) => expect(x).toBeCloseTo(-0.1, 4));
  });
  test('without camera values they are the codes; looks take what is within 0…1, at their strength, one after the other', () => {
    const double: Evaluate = (r, g, b, out, i) => {
      out[i] = 2 * r;
      out[i + 1] = 2 * g;
      out[i + 2] = 2 * b;
    };
    const at = uncut(Uint8ClampedArray.of(204, 51, 0, 255), null, [
      { f: double, strength: 1 },
      { f: double, strength: 0.5 },
    ]);
    at(0, values);
    [...values].forEach((x, i) => expect(x).toBeCloseTo([1.5, 0.6, 0][i]!, 6));
  });
});
describe('which frames came with another profile than most', () => {
  const frame = (id: string, camera: string, profile: string, light = 'daylight') => ({ id, camera, profile, light });
  test('by camera, those that differ from more than half', () =>
    expect([
      ...differingProfiles([
        frame('1', 'A', 'Standard'),
        frame('2', 'A', 'Standard'),
        frame('3', 'A', 'Portrait'),
        frame('4', 'B', 'Portrait'),
        frame('5', 'A', ''),
      ]),
    ]).toEqual([['3', 'Standard']]));
  test('within one light: a profile for lamps is not odd beside those for daylight', () => {
    const daylight = [frame('1', 'A', 'Standard'), frame('2', 'A', 'Standard')];
    expect(differingProfiles([...daylight, frame('3', 'A', 'Tungsten', 'tungsten')]).size).toBe(0);
  });
  test('where none is most, none is odd', () => {
    expect(differingProfiles([frame('1', 'A', 'x'), frame('2', 'A', 'y')]).size).toBe(0);
    expect(differingProfiles([]).size).toBe(0);
  });
});
