import { expect, test } from 'vitest';
import { hasColor } from './has-color';

const picture = (count: number, colored: number): Uint8Array => {
  const out = new Uint8Array(count * 4).fill(128);
  for (let i = 0; i < colored; i++) out.set([200, 60, 60], i * 4);
  return out;
};

test('a gray picture has none, also where it is faintly toned; one of few colored pixels neither', () => {
  expect(hasColor(picture(5000, 0))).toBe(false);
  expect(hasColor(new Uint8Array([130, 128, 126, 255]))).toBe(false);
  expect(hasColor(picture(5000, 5))).toBe(false);
});

test('a picture of which more than one pixel in a thousand is colored has', () => {
  expect(hasColor(picture(5000, 6))).toBe(true);
});
