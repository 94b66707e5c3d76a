import { describe, expect, test } from 'vitest';
import { encodeSrgb } from '../color/transfer';
import { Problem } from '../problem';
import { balancedBy, grayWorld, neutralAt, type Seen } from './neutral';

const width = 40;
const height = 30;
const camera = (color: (x: number, y: number) => number[]): Seen => ({
  kind: 'camera',
  width,
  height,
  data: Uint16Array.from(
    { length: width * height * 3 },
    (_, i) => 65535 * color(Math.floor(i / 3) % width, Math.floor(i / 3 / width))[i % 3]!,
  ),
});
const rendered = (color: (x: number, y: number) => number[]): Seen & { kind: 'rendered' } => ({
  kind: 'rendered',
  width,
  height,
  data: Uint8ClampedArray.from({ length: width * height * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : 255 * encodeSrgb(color(Math.floor(i / 4) % width, Math.floor(i / 4 / width))[i % 4]!),
  ),
});
const cast = [0.5, 1, 0.25];

describe('white balance by what ought to be neutral', () => {
  test.each([
    ['camera values', camera],
    ['a rendered file', rendered],
  ] as const)('of %s: the gray world leaves out what is dark or clipped', (_n, make) => {
    const neutral = grayWorld(
      make((x) => {
        if (x < 10) return [1, 1, 1];
        if (x < 20) return [0, 0, 0];
        return cast.map((v) => v * 0.5 * (x / width));
      }),
    );
    neutral.forEach((v, i) => expect(v).toBeCloseTo(cast[i]!, 1));
    expect(grayWorld(make(() => [1, 1, 1]))).toEqual([1, 1, 1]);
    expect(grayWorld(make(() => [0, 0, 0]))).toEqual([1, 1, 1]);
  });
  test.each([
    ['camera values', camera],
    ['a rendered file', rendered],
  ] as const)('of %s: a picked place gives its own color, at the edges too', (_n, make) => {
    const scene = make((x, y) => (x > 25 && y > 15 ? cast.map((v) => v * 0.6) : [0.3, 0.3, 0.3]));
    neutralAt(scene, 0.9, 0.9).forEach((v, i) => expect(v).toBeCloseTo(cast[i]!, 1));
    neutralAt(scene, 1, 1).forEach((v, i) => expect(v).toBeCloseTo(cast[i]!, 1));
    neutralAt(scene, 0, 0).forEach((v) => expect(v).toBeCloseTo(1, 3));
  });
  test('a place that is clipped or black is refused with what to do', () => {
    for (const values of [
      [1, 0.4, 0.4],
      [0, 0.4, 0.4],
    ]) {
      const error = ((): unknown => {
        try {
          return neutralAt(
            camera(() => values),
            0.5,
            0.5,
          );
        } catch (value) {
          return value;
        }
      })();
      expect(error).toBeInstanceOf(Problem);
      expect((error as Problem).remedy).toContain('Pick a gray');
    }
  });
  test('a rendered file balanced by what it holds is gray there; its source stays', () => {
    const scene = rendered(() => cast.map((v) => v * 0.4));
    const before = scene.data.slice();
    const out = balancedBy(scene.data, neutralAt(scene, 0.5, 0.5));
    expect(Math.max(out[0]!, out[1]!, out[2]!) - Math.min(out[0]!, out[1]!, out[2]!)).toBeLessThanOrEqual(2);
    expect(out[1]).toBe(before[1]);
    expect(scene.data).toEqual(before);
    expect(out[3]).toBe(255);
  });
});
