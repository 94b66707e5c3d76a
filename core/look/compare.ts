/** Two looks side by side: on a picture's pixels, and as curves to be drawn over one another. */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { monotoneCurve, type CurvePoints } from '../preset/curve';
import type { Settings } from '../preset/kinds';
import { applyTo, prepare } from './apply';
import type { Look } from './look';
import { sampler } from './sample';

/** A curve as code values 0…1: in, out. */
export interface Line {
  name: string;
  points: [number, number][];
}
const steps = Array.from({ length: 65 }, (_, i) => i / 64);
export const straight: [number, number][] = steps.map((x) => [x, x]);

/** What a table makes of the neutrals, by channel. */
export function neutralRamps(look: Look): Line[] {
  const f = sampler(look);
  const v = new Float64Array(3);
  const out: Line[] = ['red', 'green', 'blue'].map((name) => ({ name: `neutral ramp, ${name}`, points: [] }));
  for (const x of steps) {
    f(x, x, x, v, 0);
    out.forEach((l, c) => l.points.push([x, v[c]!]));
  }
  return out;
}

const named = [
  ['curve', 'curve'],
  ['curveRed', 'red curve'],
  ['curveGreen', 'green curve'],
  ['curveBlue', 'blue curve'],
] as const;
/** The curves that a preset sets. */
export const presetCurves = (s: Settings): Line[] =>
  named.flatMap(([id, name]) => {
    const c = s[id] as CurvePoints | undefined;
    if (!c) return [];
    const f = monotoneCurve(c);
    return [{ name, points: steps.map((x): [number, number] => [x, f(x)]) }];
  });

/** ΔE00 by pixel between two 3D tables over 8-bit RGBA pixels: mean, 95th percentile (nearest rank) and largest. */
export function pixelDistance(
  data: Uint8Array | Uint8ClampedArray,
  a: Look,
  b: Look,
): { mean: number; p95: number; max: number } {
  const x = new Uint8ClampedArray(data.length);
  const y = new Uint8ClampedArray(data.length);
  const d = new Float64Array(data.length / 4);
  const l = new Float64Array(6);
  applyTo(prepare(a), data, x);
  applyTo(prepare(b), data, y);
  let sum = 0;
  for (let i = 0, p = 0; p < data.length; i++, p += 4) {
    labOfSrgb(x[p]! / 255, x[p + 1]! / 255, x[p + 2]! / 255, l, 0);
    labOfSrgb(y[p]! / 255, y[p + 1]! / 255, y[p + 2]! / 255, l, 3);
    d[i] = deltaE2000(l[0]!, l[1]!, l[2]!, l[3]!, l[4]!, l[5]!);
    sum += d[i]!;
  }
  d.sort();
  return { mean: sum / d.length, p95: d[Math.ceil(d.length * 0.95) - 1]!, max: d[d.length - 1]! };
}
