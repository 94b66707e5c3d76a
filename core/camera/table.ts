/** A camera profile's rendering for one neutral as a table, so that many pixels are quick: balanced camera values behind a square root → sRGB. */
import { fromRows, type Look } from '../look/look';
import { sampler } from '../look/sample';
import type { Profile } from './dcp';
import { renderer, type Stage } from './render';
import { checkNeutral } from './white';

/** Input x of a channel is √(camera value ÷ neutral), 0…1; output is encoded sRGB, unclamped. */
export function profileTable(p: Profile, neutral: readonly number[], stages: readonly Stage[], size = 33): Look {
  const n = checkNeutral(neutral), run = renderer(p, n, stages, 'srgb');
  return fromRows(size, '', (row, count) => { for (let i = 0; i < count; i++) row[i] = row[i]! ** 2 * n[i % 3]!; run(row, count); });
}

/** 16-bit camera values through such a table to RGBA of 8 bits. */
export function developTo(table: Look, neutral: readonly number[], linear: Uint16Array, target: Uint8ClampedArray): void {
  const f = sampler(table), v = new Float64Array(3), root = checkNeutral(neutral).map((n) => { const out = new Float32Array(65536), k = 1 / (65535 * n); for (let i = 0; i < 65536; i++) out[i] = Math.sqrt(i * k); return out; });
  for (let i = 0, o = 0; o < target.length; i += 3, o += 4) {
    f(root[0]![linear[i]!]!, root[1]![linear[i + 1]!]!, root[2]![linear[i + 2]!]!, v, 0);
    target[o] = 255 * v[0]!; target[o + 1] = 255 * v[1]!; target[o + 2] = 255 * v[2]!; target[o + 3] = 255;
  }
}
