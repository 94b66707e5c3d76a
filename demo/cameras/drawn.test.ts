import { expect, test } from 'vitest';
import { unbent } from '@/core/lens/warp';
import { must } from '@/core/must';
import { cameras } from './cameras';
import { drawnBy, lensInFront } from './drawn';

const [width, height] = [600, 400];
const LINE = 40;
const wide = { camera: must(cameras[0]), lens: 'Perrin 24-70 mm f/4', focal: 24, aperture: 8 };

/** A dark scene with one straight line across, near its upper edge. */
const line = Float32Array.from({ length: width * height * 3 }, (_, i) => {
  const y = Math.floor(i / 3 / width);
  return 0.02 + 0.8 * Math.exp(-0.5 * ((y - LINE) / 2.5) ** 2);
});

/** In a column of a picture's green, where the line stands. */
function lineAt(data: ArrayLike<number>, x: number): number {
  let sum = 0;
  let weight = 0;
  const column = Array.from({ length: height / 2 }, (_, y) => must(data[(y * width + x) * 3 + 1]));
  const ground = Math.min(...column.slice(60, 120));
  column.forEach((value, y) => {
    const light = Math.max(0, value - ground * 2);
    sum += y * light;
    weight += light;
  });
  return sum / weight;
}
const bow = (data: ArrayLike<number>): number => Math.abs(lineAt(data, width / 2) - lineAt(data, 30));

test('a zoom at its widest bends a line and darkens the corners; its calibration takes both away', () => {
  const lens = must(lensInFront(wide));
  const photo = Uint16Array.from(drawnBy(lens, line, width, height), (v) => Math.round(v * 60000));
  const corrected = unbent({ data: photo, width, height }, lens).data;
  expect(bow(photo)).toBeGreaterThan(3);
  expect(bow(corrected)).toBeLessThan(0.2);
  const corner = (data: Uint16Array) => must(data[((height - 1) * width + 1) * 3 + 1]);
  expect(corner(photo)).toBeLessThan(0.02 * 60000 * 0.75);
  expect(corner(corrected)).toBeGreaterThan(0.02 * 60000 * 0.97);
});

test('a lens that nobody has measured draws as it is', () => {
  expect(lensInFront({ ...wide, lens: 'Perrin Macro 90 mm f/2.8' })).toBeNull();
});
