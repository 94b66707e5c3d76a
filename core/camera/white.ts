/** The white point that a camera's neutral means, by the specification's iteration, and the profile re-anchored for a neutral that no temperature reaches. */
import { invertColorMatrix } from './invert-color-matrix';
import { transform, type Matrix, type Triple } from '../color/matrix';
import { temperatureOf, xyOfTemperature } from '../color/robertson';
import { D50, xyzOf } from '../color/spaces';
import { Problem } from '../problem';
import { copyOf, numbersOf, profileOf, setNumbers, setText, textOf, type Dcp, type Profile } from './dcp';
import { read } from './tags';

export interface White {
  x: number;
  y: number;
  kelvin: number;
  tint: number;
  /** 2,000 to 50,000 K and a tint of at most 150 */ reachable: boolean;
}

/** Share of the warm illuminant at a temperature: linear in reciprocal temperature, held outside. */
export function warmShare(profile: Profile, kelvin: number): number {
  if (profile.kelvin.length < 2) return 1;
  const [a, b] = profile.kelvin as [number, number];
  if (kelvin <= a) return 1;
  if (kelvin >= b) return 0;
  return (1 / kelvin - 1 / b) / (1 / a - 1 / b);
}
export const mix = (list: readonly Matrix[], share: number): Matrix => {
  if (list.length < 2 || share >= 1) return list[0]!;
  if (share <= 0) return list[1]!;
  return list[0]!.map((v, i) => share * v + (1 - share) * list[1]![i]!);
};

export function checkNeutral(neutral: readonly number[]): Triple {
  if (neutral.length !== 3 || neutral.some((v) => !Number.isFinite(v) || v <= 0))
    throw new Problem(
      'neutral',
      'A neutral is three numbers above zero.',
      neutral.join(','),
      'Take it from the frame’s AsShotNeutral, or pick a patch that is neither black nor clipped.',
    );
  const top = Math.max(...neutral);
  return [neutral[0]! / top, neutral[1]! / top, neutral[2]! / top];
}

/** Chromaticity of the white of a neutral, camera values. Iterates from D50; where it circles, the middle of the last two is taken. */
export function whiteOf(profile: Profile, neutral: readonly number[]): [number, number] {
  const light = checkNeutral(neutral);
  let last: [number, number] = [...D50];
  for (let pass = 0; pass < 30; pass++) {
    const matrix = mix(profile.color, warmShare(profile, temperatureOf(last).kelvin));
    const xyz = transform(invertColorMatrix(matrix), light);
    const sum = xyz[0] + xyz[1] + xyz[2];
    if (!(sum > 1e-9) || !Number.isFinite(sum))
      throw new Problem(
        'neutral',
        'With this profile, the neutral is no color at all.',
        neutral.join(','),
        'Choose a profile of the same camera.',
      );
    let next: [number, number] = [xyz[0] / sum, xyz[1] / sum];
    if (Math.abs(next[0] - last[0]) + Math.abs(next[1] - last[1]) < 1e-7) return next;
    if (pass === 29) next = [(last[0] + next[0]) / 2, (last[1] + next[1]) / 2];
    last = next;
  }
  return last;
}

export function whitePoint(profile: Profile, neutral: readonly number[]): White {
  const xy = whiteOf(profile, neutral);
  const { kelvin, tint } = temperatureOf(xy);
  return { x: xy[0], y: xy[1], kelvin, tint, reachable: kelvin >= 2000 && kelvin <= 50000 && Math.abs(tint) <= 150 };
}

/** Camera values of a white by temperature and tint, the largest 1. */
export function neutralOf(profile: Profile, kelvin: number, tint = 0): Triple {
  const triple = transform(mix(profile.color, warmShare(profile, kelvin)), xyzOf(xyOfTemperature(kelvin, tint)));
  return checkNeutral(triple.map((x) => Math.max(x, 1e-6)));
}

/**
 * A profile in which this neutral sits at a temperature, tint 0. Each camera channel is rescaled in the color matrices,
 * so that both illuminants stay as far apart as they were; forward matrices act on balanced values and stay as they are.
 */
export function anchor(dcp: Dcp, neutral: readonly number[], kelvin: number): Dcp {
  const profile = profileOf(dcp);
  const light = checkNeutral(neutral);
  const seen = neutralOf(profile, kelvin);
  const scale = light.map((v, i) => v / seen[i]!);
  const out = copyOf(dcp);
  for (const tag of read.color) {
    const matrix = numbersOf(dcp, tag);
    if (matrix.length === 9)
      setNumbers(
        out,
        tag,
        10,
        matrix.map((v, i) => v * scale[Math.floor(i / 3)]!),
      );
  }
  setText(out, read.name, `${textOf(dcp, read.name) || 'Profile'} anchored at ${Math.round(kelvin)} K`);
  return out;
}
