/** One model of a lens in the words of another, by least squares over the picture's radius range. */
import { leastSquares } from '../least-squares';
import { must } from '../must';
import { evaluated, modelOf } from './models';
import type { Radial } from './radial';

/** The models that a distortion or a lateral chromatic aberration can be fitted by. */
export const fitted = ['odd3', 'odd5', 'division', 'dng-warp'] as const;
export type Fitted = (typeof fitted)[number];

export interface Fit {
  k: Record<string, number>;
  /** what is left, in half diagonals */ most: number;
  mean: number;
}

const PLACES = 512;
/** From the center to the corner, both included. */
const radii = Array.from({ length: PLACES + 1 }, (_, n) => n / PLACES);

/** The powers of the radius that a polynomial's coefficients stand before. */
const powers: Record<Exclude<Fitted, 'division'>, readonly number[]> = {
  odd3: [1, 3],
  odd5: [1, 3, 5],
  'dng-warp': [1, 3, 5, 7],
};

const named = (values: readonly number[], first: number): Record<string, number> =>
  Object.fromEntries(values.map((value, n) => [`k${n + first}`, value]));

function polynomial(name: Exclude<Fitted, 'division'>, radial: Radial): Record<string, number> {
  const rows = radii.map((r) => powers[name].map((power) => r ** power));
  return named(leastSquares(rows, radii.map(radial)), 0);
}

const ROUNDS = 12;

/** r / (1 + k1 r² + k2 r⁴) is no sum of its coefficients: by the method of Gauss and Newton, from what the turned fraction says. */
function division(radial: Radial): Record<string, number> {
  const values = radii.map(radial);
  let k = leastSquares(
    radii.map((r, n) => [values[n]! * r ** 2, values[n]! * r ** 4]),
    radii.map((r, n) => r - values[n]!),
  );
  for (let round = 0; round < ROUNDS; round++) {
    const [k1 = 0, k2 = 0] = k;
    const below = radii.map((r) => 1 + k1 * r ** 2 + k2 * r ** 4);
    const step = leastSquares(
      radii.map((r, n) => [-(r ** 3) / below[n]! ** 2, -(r ** 5) / below[n]! ** 2]),
      radii.map((r, n) => values[n]! - r / below[n]!),
    );
    k = k.map((value, n) => value + step[n]!);
  }
  return named(k, 1);
}

/** A function of the radius, from 0 to 1, by a model of that name. */
export function fit(name: Fitted, radial: Radial): Fit {
  const k = name === 'division' ? division(radial) : polynomial(name, radial);
  const model = evaluated(must(modelOf('distortion', name)), k);
  const left = radii.map((r) => Math.abs(model(r) - radial(r)));
  return { k, most: Math.max(...left), mean: left.reduce((sum, one) => sum + one, 0) / left.length };
}
