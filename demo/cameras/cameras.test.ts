import { describe, expect, test } from 'vitest';
import { profileOf } from '@/core/camera/dcp';
import { whitePoint } from '@/core/camera/white';
import { cameras, neutralUnder } from './cameras';
import { profileFor } from './profiles';
import { daylight, lamp, reflectanceOf, xyzUnder } from './spectra';

describe('the demo’s cameras', () => {
  test('a reflectance made for a color has that color under D65', () => {
    const spectrum = daylight(6504);
    const white = xyzUnder(spectrum);
    for (const rgb of [
      [0.5, 0.5, 0.5],
      [0.6, 0.1, 0.08],
      [0.02, 0.05, 0.2],
      [0.8, 0.7, 0.2],
    ]) {
      const xyz = xyzUnder(spectrum, reflectanceOf(rgb));
      expect(xyz[1]! / white[1]!).toBeCloseTo(0.2126 * rgb[0]! + 0.7152 * rgb[1]! + 0.0722 * rgb[2]!, 3);
      expect(Math.max(...reflectanceOf(rgb))).toBeLessThanOrEqual(1);
    }
  });
  test('a computed profile finds the temperature of the light that lit the scene', () => {
    const profile = profileOf(profileFor(cameras[2]!, 'Standard', 'x'));
    for (const [light, kelvin] of [
      [lamp(2856), 2856],
      [lamp(3400), 3400],
      [daylight(5500), 5500],
      [daylight(7000), 7000],
    ] as const)
      expect(Math.abs(whitePoint(profile, neutralUnder(cameras[2]!, light)).kelvin / kelvin - 1)).toBeLessThan(0.03);
  });
});
