/** A camera profile's rendering for one neutral as a table, so that many pixels are quick: balanced camera values behind a square root → sRGB. */
import { fromRows, type Look } from '../look/look';
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
  const n = checkNeutral(neutral), { size, table: t } = table, last = size - 2, dg = size * 3, db = size * size * 3, all = 3 + dg + db;
  const place = n.map((v) => { const out = new Float32Array(65536), k = 1 / (65535 * v); for (let i = 0; i < 65536; i++) out[i] = Math.min(1, Math.sqrt(i * k)) * (size - 1); return out; }) as [Float32Array, Float32Array, Float32Array];
  for (let i = 0, o = 0; o < target.length; i += 3, o += 4) {
    const x = place[0][linear[i]!]!, y = place[1][linear[i + 1]!]!, z = place[2][linear[i + 2]!]!, a = Math.min(last, x | 0), b = Math.min(last, y | 0), c = Math.min(last, z | 0), fx = x - a, fy = y - b, fz = z - c, at = a * 3 + b * dg + c * db;
    let p: number, q: number, u: number, v: number, w: number;
    if (fx >= fy) { if (fy >= fz) { p = 3; q = 3 + dg; u = fx; v = fy; w = fz; } else if (fx >= fz) { p = 3; q = 3 + db; u = fx; v = fz; w = fy; } else { p = db; q = db + 3; u = fz; v = fx; w = fy; } } else if (fz >= fy) { p = db; q = db + dg; u = fz; v = fy; w = fx; } else if (fz >= fx) { p = dg; q = dg + db; u = fy; v = fz; w = fx; } else { p = dg; q = dg + 3; u = fy; v = fx; w = fz; }
    for (let k = 0; k < 3; k++) { const m = at + k; target[o + k] = 255 * ((1 - u) * t[m]! + (u - v) * t[m + p]! + (v - w) * t[m + q]! + w * t[m + all]!); }
    target[o + 3] = 255;
  }
}
