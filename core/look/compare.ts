/** Two looks side by side: on a picture's pixels, and as curves to be drawn over one another. */
import { monotoneCurve, type CurvePoints } from '../preset/curve';
import type { Settings } from '../preset/kinds';
import { applyTo, prepare } from './apply';
import type { Look } from './look';
import { pictureDifference, type PictureFigures } from './picture-difference';
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
  const evaluate = sampler(look);
  const values = new Float64Array(3);
  const out: Line[] = ['red', 'green', 'blue'].map((name) => ({ name: `neutral ramp, ${name}`, points: [] }));
  for (const x of steps) {
    evaluate(x, x, x, values, 0);
    out.forEach((l, c) => l.points.push([x, values[c]!]));
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
export const presetCurves = (settings: Settings): Line[] =>
  named.flatMap(([id, name]) => {
    const points = settings[id] as CurvePoints | undefined;
    if (!points) return [];
    const curve = monotoneCurve(points);
    return [{ name, points: steps.map((x): [number, number] => [x, curve(x)]) }];
  });

/** ΔE00 by pixel between two 3D tables over 8-bit RGBA pixels: mean, 95th percentile (nearest rank) and largest. */
export function pixelDistance(data: Uint8Array | Uint8ClampedArray, one: Look, other: Look): PictureFigures {
  const under = new Uint8ClampedArray(data.length);
  const underOther = new Uint8ClampedArray(data.length);
  applyTo(prepare(one), data, under);
  applyTo(prepare(other), data, underOther);
  const { mean, p95, max } = pictureDifference(under, underOther);
  return { mean, p95, max };
}
