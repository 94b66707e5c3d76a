/**
 * Fingerprints by effect: Lab (D65, 2°) of 64 fixed colors as an item renders them, in hundredths, 16 bits. Two items whose
 * fingerprints are within the studio's tolerance are proposed as duplicates; the full residual confirms it.
 */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { haltonPoints } from './residual';
import type { Evaluate } from './sample';

export const POINTS = 64;
export const tolerance = { p95: 0.5, max: 2 };
export type Tolerance = typeof tolerance;

/** 56 Halton points and eight neutrals: neutrals tell casts, which random colors tell badly. */
const inputs: Float64Array = (() => {
  const points = haltonPoints(56);
  const out = new Float64Array(POINTS * 3);
  out.set(points);
  for (let i = 0; i < 8; i++) out.fill((i + 0.5) / 8, (56 + i) * 3, (57 + i) * 3);
  return out;
})();

/** 192 whole numbers: L, a, b × 100 by color. Where something acts in two ways, every other color is asked of the second. */
export function fingerprint(evaluate: Evaluate, second: Evaluate = evaluate): Int16Array {
  const out = new Int16Array(POINTS * 3);
  const values = new Float64Array(3);
  const lab = new Float64Array(3);
  for (let i = 0; i < POINTS; i++) {
    const act = i % 2 ? second : evaluate;
    act(inputs[i * 3]!, inputs[i * 3 + 1]!, inputs[i * 3 + 2]!, values, 0);
    labOfSrgb(values[0]!, values[1]!, values[2]!, lab, 0);
    for (let c = 0; c < 3; c++) out[i * 3 + c] = Math.round(lab[c]! * 100);
  }
  return out;
}

/** Mean, 95th percentile (nearest rank) and largest ΔE00 between two fingerprints. `stopAbove`: gives up, with max Infinity. */
export function fingerprintDistance(
  one: Int16Array,
  other: Int16Array,
  stopAbove = Infinity,
  from = 0,
  fromB = 0,
): { mean: number; p95: number; max: number } {
  const values = new Float64Array(POINTS);
  let sum = 0;
  let max = 0;
  for (let i = 0; i < POINTS; i++) {
    const p = from + i * 3;
    const q = fromB + i * 3;
    const e = deltaE2000(
      one[p]! / 100,
      one[p + 1]! / 100,
      one[p + 2]! / 100,
      other[q]! / 100,
      other[q + 1]! / 100,
      other[q + 2]! / 100,
    );
    if (e > stopAbove) return { mean: Infinity, p95: Infinity, max: Infinity };
    values[i] = e;
    sum += e;
    if (e > max) max = e;
  }
  values.sort();
  return { mean: sum / POINTS, p95: values[Math.ceil(POINTS * 0.95) - 1]!, max };
}

/**
 * All pairs whose fingerprints are within the tolerance, among `count` of them laid one after the other. Sorted by mean
 * lightness; a pair is looked at only where its means differ by less than the tolerance allows (lightness differences are
 * weighted by at most 1.75 in ΔE00, so ΔL ≤ 1.75 · ΔE), and left at the first color that is too far off.
 */
export function nearPairs(all: Int16Array, count: number, within: Tolerance = tolerance): [number, number][] {
  const length = POINTS * 3;
  const mean = new Float64Array(count);
  const neutralA = new Float64Array(count);
  const neutralB = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    let s = 0;
    let a = 0;
    let b = 0;
    for (let k = 0; k < POINTS; k++) s += all[i * length + k * 3]!;
    for (let k = 56; k < POINTS; k++) {
      a += all[i * length + k * 3 + 1]!;
      b += all[i * length + k * 3 + 2]!;
    }
    mean[i] = s / POINTS;
    neutralA[i] = a / 8;
    neutralB[i] = b / 8;
  }
  const order = new Uint32Array(count).map((_, i) => i).sort((x, y) => mean[x]! - mean[y]!);
  const light = new Int16Array(count * POINTS);
  for (let x = 0; x < count; x++)
    for (let k = 0; k < POINTS; k++) light[x * POINTS + k] = all[order[x]! * length + k * 3]!;
  // all but few of the colors are within p95, those few within max; in hundredths, with one for rounding
  const few = POINTS - Math.ceil(POINTS * 0.95);
  const sum = 175 * ((POINTS - few) * (within.p95 + 0.05) + few * (within.max + 0.05)) + POINTS;
  const window = sum / POINTS;
  const out: [number, number][] = [];
  // the eight neutrals: `few` of them within max, the others within p95; chroma differences weigh less as chroma grows
  const spread = (100 * ((8 - few) * (within.p95 + 0.05) + few * (within.max + 0.05))) / 8 + 1;
  for (let x = 0; x < count; x++) {
    const i = order[x]!;
    const mi = mean[i]!;
    const ai = neutralA[i]!;
    const bi = neutralB[i]!;
    const reach = 1.5 * spread * (1 + (0.045 * Math.hypot(ai, bi)) / 100);
    const p = x * POINTS;
    for (let y = x + 1; y < count; y++) {
      const j = order[y]!;
      if (mean[j]! - mi > window) break;
      const da = neutralA[j]! - ai;
      const db = neutralB[j]! - bi;
      if (da > reach || da < -reach || db > reach || db < -reach) continue;
      const q = y * POINTS;
      let off = 0;
      for (let k = 0; k < POINTS && off <= sum; k += 4)
        off +=
          Math.abs(light[p + k]! - light[q + k]!) +
          Math.abs(light[p + k + 1]! - light[q + k + 1]!) +
          Math.abs(light[p + k + 2]! - light[q + k + 2]!) +
          Math.abs(light[p + k + 3]! - light[q + k + 3]!);
      if (off > sum) continue;
      const apart = fingerprintDistance(all, all, within.max + 0.05, i * length, j * length);
      if (apart.max <= within.max + 0.05 && apart.p95 <= within.p95 + 0.05) out.push([i, j]);
    }
  }
  return out;
}

/** Those of `held` (laid one after the other) that are within the tolerance of one fingerprint, nearest first. */
export function near(
  one: Int16Array,
  held: Int16Array,
  count: number,
  within: Tolerance = tolerance,
): { index: number; mean: number; p95: number; max: number }[] {
  const length = POINTS * 3;
  const few = POINTS - Math.ceil(POINTS * 0.95);
  const most = 175 * ((POINTS - few) * within.p95 + few * within.max) + POINTS;
  const out: { index: number; mean: number; p95: number; max: number }[] = [];
  for (let j = 0; j < count; j++) {
    let off = 0;
    for (let k = 0; k < length && off <= most; k += 12)
      off +=
        Math.abs(one[k]! - held[j * length + k]!) +
        Math.abs(one[k + 3]! - held[j * length + k + 3]!) +
        Math.abs(one[k + 6]! - held[j * length + k + 6]!) +
        Math.abs(one[k + 9]! - held[j * length + k + 9]!);
    if (off > most) continue;
    const apart = fingerprintDistance(one, held, within.max, 0, j * length);
    if (apart.max <= within.max && apart.p95 <= within.p95) out.push({ index: j, ...apart });
  }
  return out.sort((a, b) => a.mean - b.mean);
}

export const bytesOfFingerprint = (print: Int16Array): Uint8Array => {
  const out = new Uint8Array(print.length * 2);
  const view = new DataView(out.buffer);
  print.forEach((n, i) => view.setInt16(i * 2, n, true));
  return out;
};
export function fingerprintOfBytes(bytes: Uint8Array): Int16Array {
  const out = new Int16Array(bytes.length >> 1);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let i = 0; i < out.length; i++) out[i] = view.getInt16(i * 2, true);
  return out;
}
