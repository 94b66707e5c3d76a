/** A camera profile's rendering for one neutral as a table, so that many pixels are quick: balanced camera values behind a square root → sRGB. */
import type { Prepared } from '../look/apply';
import { kernel } from '../look/kernel/kernel';
import { fromRows, type Look } from '../look/look';
import { sampler } from '../look/sample';
import type { Profile } from './dcp';
import { renderer, type Stage } from './render';
import { checkNeutral } from './white';

/** Input x of a channel is √(camera value ÷ neutral), 0…1; output is encoded sRGB, unclamped. */
export function profileTable(profile: Profile, neutral: readonly number[], stages: readonly Stage[], size = 33): Look {
  const light = checkNeutral(neutral);
  const run = renderer(profile, light, stages, 'srgb');
  return fromRows(size, '', (row, count) => {
    for (let i = 0; i < count; i++) row[i] = row[i]! ** 2 * light[i % 3]!;
    run(row, count);
  });
}

/** 16-bit camera values through such a table to RGBA of 8 bits. `table` is prepared at full strength. */
export function developTo(
  table: Prepared,
  neutral: readonly number[],
  linear: Uint16Array,
  target: Uint8ClampedArray,
): void {
  const weights = shares(neutral);
  if (!kernel()?.develop(table, weights, linear, target)) developPlain(table, weights, linear, target);
}

/** The same in plain steps; `k` as the kernel takes it. */
export function developPlain(
  table: Prepared,
  weights: readonly number[],
  linear: Uint16Array,
  target: Uint8ClampedArray,
): void {
  const color = colorOf(table, weights);
  const values = new Float64Array(3);
  for (let i = 0, o = 0; o < target.length; i += 3, o += 4) {
    color(linear[i]!, linear[i + 1]!, linear[i + 2]!, values);
    for (let c = 0; c < 3; c++) target[o + c] = Math.floor(255 * values[c]! + 0.5);
    target[o + 3] = 255;
  }
}

/** One color through such a table: 16-bit camera values to encoded sRGB, unclamped. `k`: one by white level times neutral, by channel. */
export function colorOf(
  table: Prepared,
  weights: readonly number[],
): (r: number, g: number, b: number, out: Float64Array) => void {
  const evaluate = sampler({
    format: 'cube',
    kind: '3d',
    size: table.size,
    table: table.table,
    title: '',
    domain: { min: [0, 0, 0], max: [1, 1, 1] },
    comments: [],
    warnings: [],
  });
  // prepared entries are code values and a half
  return (r, g, b, out) => {
    evaluate(Math.sqrt(r * weights[0]!), Math.sqrt(g * weights[1]!), Math.sqrt(b * weights[2]!), out, 0);
    for (let c = 0; c < 3; c++) out[c] = (out[c]! - 0.5) / 255;
  };
}
export const shares = (neutral: readonly number[]): number[] => checkNeutral(neutral).map((n) => 1 / (65535 * n));
