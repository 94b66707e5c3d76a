/**
 * A camera profile's rendering, after the reference procedure of the Digital Negative specification 1.7, chapter 6:
 * camera values → matrices → hue/saturation map → exposure → look table → tone curve, in linear ProPhoto, D50.
 */
import { invertColorMatrix } from './invert-color-matrix';
import { adapt, between, D50, spaces, toXyz } from '../color/spaces';
import { diagonal, invert, multiply, transform, type Matrix, transformTo } from '../color/matrix';
import { encodeSrgb } from '../color/transfer';
import { temperatureOf } from '../color/robertson';
import { hueKeeping, naturalSpline } from './curve';
import type { Profile } from './dcp';
import { hsvStage, mixTables } from './hsv';
import { STAGES, type Stage } from './stages';
import { checkNeutral, mix, warmShare, whiteOf } from './white';

export { STAGES, type Stage };
export type RenderSpace = 'prophoto-linear' | 'srgb' | 'xyz';

export const proPhotoToXyz = toXyz(spaces.prophoto);
const xyzToProPhoto = invert(proPhotoToXyz);
const proPhotoToSrgb = between(spaces.prophoto, spaces.srgb);

/** Camera values → XYZ relative to D50 for a neutral, which becomes Y = 1. */
export function cameraToXyz(
  profile: Profile,
  neutral: readonly number[],
): { matrix: Matrix; share: number; white: [number, number] } {
  const light = checkNeutral(neutral);
  const white = whiteOf(profile, light);
  const share = warmShare(profile, temperatureOf(white).kelvin);
  if (profile.forward)
    return { matrix: multiply(mix(profile.forward, share), diagonal(light.map((v) => 1 / v))), share, white };
  const back = invertColorMatrix(mix(profile.color, share));
  const y = transform(back, light)[1];
  return { matrix: multiply(adapt(white, D50), back).map((v) => v / y), share, white };
}
const hold = (v: number): number => {
  if (v < 0) return 0;
  if (v > 1) return 1;
  return v;
};

/** From ProPhoto to the space that is asked for; null where that is it. */
const ends: Record<RenderSpace, Matrix | null> = {
  'prophoto-linear': null,
  srgb: proPhotoToSrgb,
  xyz: proPhotoToXyz,
};

/**
 * A function over interleaved camera values (linear, white = 1), in place, `n` numbers from `at` on. Values are clipped
 * at the neutral, ProPhoto to 0…1. `stages` are those that act; the matrices always do.
 */
export function renderer(
  profile: Profile,
  neutral: readonly number[],
  stages: readonly Stage[] = STAGES,
  space: RenderSpace = 'prophoto-linear',
): (v: Float64Array, n?: number) => void {
  const top = checkNeutral(neutral);
  const { matrix, share } = cameraToXyz(profile, top);
  const toProPhoto = multiply(xyzToProPhoto, matrix) as number[];
  const on = new Set(stages);
  const map =
    on.has('hue-sat') && profile.maps.length ? hsvStage(mixTables(profile.maps[0]!, profile.maps[1], share)) : null;
  const look = on.has('look') && profile.look ? hsvStage(profile.look) : null;
  const tone = on.has('curve') && profile.curve ? hueKeeping(naturalSpline(profile.curve)) : null;
  const gain = on.has('exposure') ? 2 ** profile.exposure : 1;
  const end = ends[space];
  return (values, length = values.length) => {
    for (let i = 0; i + 2 < length; i += 3) {
      const r = Math.min(top[0], values[i]!);
      const g = Math.min(top[1], values[i + 1]!);
      const b = Math.min(top[2], values[i + 2]!);
      transformTo(toProPhoto, r, g, b, values, i);
      for (let c = i; c < i + 3; c++) values[c] = hold(values[c]!);
      map?.(values, i);
      if (gain !== 1) {
        values[i] = Math.min(1, gain * values[i]!);
        values[i + 1] = Math.min(1, gain * values[i + 1]!);
        values[i + 2] = Math.min(1, gain * values[i + 2]!);
      }
      look?.(values, i);
      tone?.(values, i);
      if (end) {
        const x = values[i]!;
        const y = values[i + 1]!;
        const z = values[i + 2]!;
        for (let c = 0; c < 3; c++) {
          const w = end[c * 3]! * x + end[c * 3 + 1]! * y + end[c * 3 + 2]! * z;
          values[i + c] = space === 'srgb' ? encodeSrgb(w) : w;
        }
      }
    }
  };
}
