import { expect, test } from 'vitest';
import { neutralRamps, pixelDistance, presetCurves, straight } from './compare';
import { fromFunction, identity } from './look';

const pixels = new Uint8Array([0, 0, 0, 255, 128, 128, 128, 255, 255, 255, 255, 255, 200, 40, 90, 255]);
test('a look is no distance from itself, and a known one from black', () => {
  expect(pixelDistance(pixels, identity(3), identity(9))).toEqual({ mean: 0, p95: 0, max: 0 });
  // white against black is the whole of lightness
  expect(
    pixelDistance(
      pixels,
      identity(3),
      fromFunction(3, 'black', (values) => {
        values[0] = values[1] = values[2] = 0;
      }),
    ).max,
  ).toBeCloseTo(100, 2);
});
test('ramps and curves run as the table and the preset say', () => {
  expect(neutralRamps(identity(5))[1]!.points[32]).toEqual([0.5, 0.5]);
  expect(
    neutralRamps(
      fromFunction(5, 'x', (values) => {
        values[2] = values[2]! / 2;
      }),
    )[2]!.points[64]![1],
  ).toBeCloseTo(0.5, 6);
  expect(
    presetCurves({
      curveRed: [
        [0, 0],
        [0.5, 0.6],
        [1, 1],
      ],
    }),
  ).toMatchObject([{ name: 'red curve' }]);
  expect(presetCurves({})).toEqual([]);
  expect(straight[64]).toEqual([1, 1]);
});
