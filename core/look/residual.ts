/**
 * How far two renderings are apart, in ΔE00: over Halton points of the input domain, or over given points.
 * Both results are clamped to 0…1 and decoded as sRGB; L*a*b* is relative to D65, 2°.
 */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import type { Evaluate } from './sample';

export interface Residual {
  maxDeltaE: number;
  p95DeltaE: number;
  meanDeltaE: number;
  worst: [number, number, number];
}

/** Radical inverse of i in a base: the Halton sequence (Halton, Numerische Mathematik 2, 1960). */
export function halton(i: number, base: number): number {
  let f = 1;
  let out = 0;
  for (let n = i; n > 0; n = Math.floor(n / base)) {
    f /= base;
    out += f * (n % base);
  }
  return out;
}

const cache = new Map<number, Float64Array>();
/** Halton points 1…count in bases 2, 3 and 5, interleaved, 0…1. */
export function haltonPoints(count = 20000): Float64Array {
  let points = cache.get(count);
  if (!points) {
    points = new Float64Array(count * 3);
    for (let i = 1; i <= count; i++) {
      points[i * 3 - 3] = halton(i, 2);
      points[i * 3 - 2] = halton(i, 3);
      points[i * 3 - 1] = halton(i, 5);
    }
    cache.set(count, points);
  }
  return points;
}

/** The points mapped onto a domain. */
export function pointsIn(domain: { min: number[]; max: number[] }, count = 20000): Float64Array {
  return haltonPoints(count).map((v, i) => domain.min[i % 3]! + v * (domain.max[i % 3]! - domain.min[i % 3]!));
}

/** Distances by point; `points` interleaved triples. */
export function distances(one: Evaluate, other: Evaluate, points: Float64Array): Float64Array {
  const count = points.length / 3;
  const out = new Float64Array(count);
  const p = new Float64Array(3);
  const values = new Float64Array(3);
  const lab = new Float64Array(6);
  for (let i = 0; i < count; i++) {
    one(points[i * 3]!, points[i * 3 + 1]!, points[i * 3 + 2]!, p, 0);
    other(points[i * 3]!, points[i * 3 + 1]!, points[i * 3 + 2]!, values, 0);
    labOfSrgb(p[0]!, p[1]!, p[2]!, lab, 0);
    labOfSrgb(values[0]!, values[1]!, values[2]!, lab, 3);
    out[i] = deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!);
  }
  return out;
}

/** Largest, 95th percentile (nearest rank) and mean distance, and the input where it is largest. */
export function residual(one: Evaluate, other: Evaluate, points: Float64Array = haltonPoints()): Residual {
  const values = distances(one, other, points);
  if (!values.length) return { maxDeltaE: 0, p95DeltaE: 0, meanDeltaE: 0, worst: [0, 0, 0] };
  let at = 0;
  let sum = 0;
  for (let i = 0; i < values.length; i++) {
    sum += values[i]!;
    if (values[i]! > values[at]!) at = i;
  }
  const sorted = values.slice().sort();
  return {
    maxDeltaE: values[at]!,
    p95DeltaE: sorted[Math.max(0, Math.ceil(sorted.length * 0.95) - 1)]!,
    meanDeltaE: sum / values.length,
    worst: [points[at * 3]!, points[at * 3 + 1]!, points[at * 3 + 2]!],
  };
}

/** Near-duplicates by effect: 95th percentile ≤ 0.5 and maximum ≤ 2 ΔE00, unless the studio sets otherwise. */
export const isSame = (r: Residual, p95 = 0.5, max = 2): boolean => r.p95DeltaE <= p95 && r.maxDeltaE <= max;
