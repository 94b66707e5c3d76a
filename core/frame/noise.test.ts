import { describe, expect, test } from 'vitest';
import { must } from '../must';
import { seeded } from '../random';
import type { LinearPicture } from './linear-picture';
import { noiseOf, withoutNoise, type NoiseTaken } from './noise';

const [width, height] = [96, 64];
const neutral = [0.5, 1, 0.7];

/** Two fields, one twice as light, that meet at an edge; with noise of light: its variance grows with it. */
function photo(noise: number): LinearPicture {
  const next = seeded(7);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  const data = Uint16Array.from({ length: width * height * 3 }, (_, i) => {
    const channel = i % 3;
    const x = Math.floor(i / 3) % width;
    const value = (x < width / 2 ? 0.2 : 0.4) * must(neutral[channel]);
    return Math.round(65535 * Math.max(0, value + noise * Math.sqrt(value) * normal()));
  });
  return { data, width, height };
}
const clean = photo(0);

/** How far the light and the color of a picture are from the one without noise, in square roots; as a standard deviation. */
function off({ data }: LinearPicture): { light: number; color: number } {
  let light = 0;
  let color = 0;
  const root = (of: Uint16Array, i: number, channel: number) =>
    Math.sqrt(must(of[i + channel]) / (65535 * must(neutral[channel])));
  for (let i = 0; i < data.length; i += 3) {
    const [r, g, b] = [0, 1, 2].map((channel) => root(data, i, channel) - root(clean.data, i, channel));
    light += ((must(r) + must(g) + must(b)) / 3) ** 2;
    color += (must(r) - must(g)) ** 2;
  }
  return { light: Math.sqrt(light / (data.length / 3)), color: Math.sqrt(color / (data.length / 3)) };
}

describe('noise', () => {
  const noisy = photo(0.05);
  const taken = (what: NoiseTaken) => off(withoutNoise(noisy, neutral, what));

  test('of color alone goes from color, and light stays as it is', () => {
    const [before, after] = [off(noisy), taken('color')];
    expect(after.color).toBeLessThan(before.color / 3);
    expect(after.light).toBeGreaterThan(before.light * 0.98);
  });
  test('of light goes too, where that is asked for', () => {
    const [before, after] = [off(noisy), taken('color and luminance')];
    expect(after.light).toBeLessThan(before.light / 1.8);
    expect(after.color).toBeLessThan(before.color / 3);
  });
  test('goes, and an edge stays where it was', () => {
    const { data } = withoutNoise(noisy, neutral, 'color and luminance');
    const column = (x: number): number => {
      let sum = 0;
      for (let y = 0; y < height; y++) sum += must(data[(y * width + x) * 3 + 1]);
      return sum / height / 65535;
    };
    expect(column(width / 2 - 1)).toBeLessThan(0.24);
    expect(column(width / 2)).toBeGreaterThan(0.36);
  });
  test('that is not there leaves the picture alone', () => {
    const { data } = withoutNoise(clean, neutral, 'color and luminance');
    expect(Math.max(...data.map((value, i) => Math.abs(value - must(clean.data[i]))))).toBeLessThan(3);
  });
  test('is measured as what it is', () => {
    const next = seeded(3);
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
    const values = Float32Array.from({ length: 200 * 200 }, (_, i) => 0.5 + (i % 200) / 400 + 0.02 * normal());
    expect(noiseOf({ values, width: 200, height: 200 })).toBeCloseTo(0.02, 3);
  });
});
