import { describe, expect, test } from 'vitest';
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { differencePicture, pictureDifference } from './picture-difference';

const rgba = (...colors: [number, number, number][]) =>
  Uint8ClampedArray.from(colors.flatMap((color) => [...color, 255]));

describe('two pictures', () => {
  test('are apart by the mean, the 95th percentile and the largest of their pixels', () => {
    const grays = Array.from({ length: 20 }, (): [number, number, number] => [100, 100, 100]);
    const one = rgba(...grays);
    const other = rgba(...grays.slice(1), [200, 60, 10]);
    const lab = new Float64Array(6);
    labOfSrgb(100 / 255, 100 / 255, 100 / 255, lab, 0);
    labOfSrgb(200 / 255, 60 / 255, 10 / 255, lab, 3);
    const far = deltaE2000(...([...lab] as [number, number, number, number, number, number]));
    const { mean, p95, max, values } = pictureDifference(one, other);
    expect(max).toBeCloseTo(far, 4);
    expect(mean).toBeCloseTo(far / 20, 4);
    expect(p95).toBe(0);
    expect(values[19]).toBe(max);
  });
  test('of other sizes cannot be compared', () => {
    expect(() => pictureDifference(rgba([0, 0, 0]), rgba([0, 0, 0], [1, 1, 1]))).toThrow(/one size/);
  });
  test('as a picture: black for the same, white from the given distance on', () => {
    const picture = differencePicture(Float32Array.from([0, 5, 10, 40]), 10);
    expect([...picture]).toEqual([0, 0, 0, 255, 128, 128, 128, 255, 255, 255, 255, 255, 255, 255, 255, 255]);
  });
});
