/**
 * RGB spaces by their primaries and white, their matrices to and from CIE XYZ, and Bradford adaptation.
 * Chromaticities: sRGB IEC 61966-2-1, Rec. 2020 ITU-R BT.2020, P3 SMPTE EG 432-1, ProPhoto ISO 22028-2 (ROMM).
 * Matrices: SMPTE RP 177. Adaptation: linear Bradford, as in ICC.1 Annex E.
 */
import { diagonal, invert, multiply, transform, type Matrix, type Triple } from './matrix';

export interface Space {
  name: string;
  title: string;
  red: [number, number];
  green: [number, number];
  blue: [number, number];
  white: [number, number];
}

export const D65: [number, number] = [0.3127, 0.329];
export const D50: [number, number] = [0.34567, 0.3585];

export const spaces = {
  srgb: { name: 'srgb', title: 'sRGB', red: [0.64, 0.33], green: [0.3, 0.6], blue: [0.15, 0.06], white: D65 },
  rec2020: {
    name: 'rec2020',
    title: 'Rec. 2020',
    red: [0.708, 0.292],
    green: [0.17, 0.797],
    blue: [0.131, 0.046],
    white: D65,
  },
  p3: { name: 'p3', title: 'Display P3', red: [0.68, 0.32], green: [0.265, 0.69], blue: [0.15, 0.06], white: D65 },
  prophoto: {
    name: 'prophoto',
    title: 'ProPhoto',
    red: [0.7347, 0.2653],
    green: [0.1596, 0.8404],
    blue: [0.0366, 0.0001],
    white: D50,
  },
} as const satisfies Record<string, Space>;

export type SpaceName = keyof typeof spaces;

/** XYZ with Y = 1 of a chromaticity. */
export const xyzOf = ([x, y]: readonly [number, number]): Triple => [x / y, 1, (1 - x - y) / y];

/** Linear RGB → XYZ relative to the space's own white, Y = 1 for white (SMPTE RP 177). */
export function toXyz(space: Space): number[] {
  const red = xyzOf(space.red);
  const green = xyzOf(space.green);
  const blue = xyzOf(space.blue);
  const columns = [red[0], green[0], blue[0], red[1], green[1], blue[1], red[2], green[2], blue[2]];
  return multiply(columns, diagonal(transform(invert(columns), xyzOf(space.white))));
}

export const bradford: Matrix = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];

/** Linear Bradford adaptation of XYZ from one white to another (chromaticities). */
export function adapt(from: readonly [number, number], to: readonly [number, number]): number[] {
  const source = transform(bradford, xyzOf(from));
  const target = transform(bradford, xyzOf(to));
  return multiply(
    invert(bradford),
    multiply(diagonal([target[0] / source[0], target[1] / source[1], target[2] / source[2]]), bradford),
  );
}

/** Linear RGB of one space → linear RGB of another, Bradford-adapted between their whites. */
export function between(from: Space, to: Space): number[] {
  if (from === to) return [1, 0, 0, 0, 1, 0, 0, 0, 1];
  return multiply(invert(toXyz(to)), multiply(adapt(from.white, to.white), toXyz(from)));
}

export const srgbToXyz = toXyz(spaces.srgb);
