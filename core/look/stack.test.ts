import { describe, expect, it } from 'vitest';
import { applyTrim, noTrim, type Trim } from '../bench/measure';
import { applyLook } from './apply';
import { fromRows, type Look } from './look';
import { sampler } from './sample';
import { stackOf, tableOfStack } from './stack';

const warm: Look = fromRows(17, 'Warm', (values, n) => {
  for (let i = 0; i < n; i += 3) {
    values[i] = Math.min(1, (values[i] ?? 0) * 1.1);
    values[i + 2] = (values[i + 2] ?? 0) * 0.8;
  }
});
const flat: Look = fromRows(17, 'Flat', (values, n) => {
  for (let i = 0; i < n; i++) values[i] = 0.2 + 0.6 * (values[i] ?? 0);
});
const trim: Trim = { slope: [1.1, 1, 0.9], offset: [0.02, 0, -0.02], power: [0.9, 1, 1.2] };

const at = (look: ReturnType<typeof stackOf>, r: number, g: number, b: number): number[] => {
  const out = new Float64Array(3);
  look(r, g, b, out, 0);
  return [...out];
};

describe('a column as one look', () => {
  it('is what a cell shows: each layer at its strength, then the trim', () => {
    const pixels = new Uint8ClampedArray([200, 120, 60, 255, 20, 30, 250, 255]);
    const shown = new Uint8ClampedArray(pixels.length);
    applyLook(warm, 0.5, pixels, shown);
    applyLook(flat, 1, shown, shown);
    applyTrim(shown, trim);
    const stack = stackOf([sampler(warm, 'tetrahedral', 0.5), sampler(flat)], trim);
    for (const i of [0, 4]) {
      const values = at(stack, pixels[i]! / 255, pixels[i + 1]! / 255, pixels[i + 2]! / 255);
      // a cell rounds to 8 bits after each of its three steps
      values.forEach((value, c) => expect(Math.abs(value * 255 - shown[i + c]!)).toBeLessThan(2.5));
    }
  });

  it('of nothing is nothing, and a trim that changes nothing changes nothing', () => {
    expect(at(stackOf([], null), 0.1, 0.5, 0.9)).toEqual([0.1, 0.5, 0.9]);
    expect(at(stackOf([], noTrim), 0.1, 0.5, 0.9)).toEqual([0.1, 0.5, 0.9]);
  });

  it('becomes a table whose error is told, and smaller with more points', () => {
    const stack = stackOf([sampler(warm)], trim);
    const [coarse, fine] = [9, 33].map((size) => tableOfStack(stack, size, 'Kept'));
    expect(fine!.look).toMatchObject({ kind: '3d', size: 33, title: 'Kept' });
    expect(fine!.residual.meanDeltaE).toBeLessThan(coarse!.residual.meanDeltaE);
    expect(fine!.residual.meanDeltaE).toBeGreaterThan(0);
  });
});
