/** What a camera profile does, for telling it from others: to colors, and to the values of its camera. */
import { D50, D65, adapt, srgbToXyz } from '../color/spaces';
import { invert, multiply, transform } from '../color/matrix';
import { decodeSrgb } from '../color/transfer';
import type { Evaluate } from '../look/sample';
import type { Profile } from './dcp';
import { cameraToXyz, renderer, STAGES } from './render';
import { neutralOf } from './white';

/** Two lights, in kelvin, for profiles that differ under one alone. */
export const DAYLIGHT = 5500;
export const LAMPLIGHT = 2856;

/**
 * From encoded sRGB, as its camera would have seen that color in daylight, to what the profile makes of it, encoded sRGB.
 * The camera is the one that the profile's own color matrices describe.
 */
export function renderedColors(profile: Profile): Evaluate {
  const neutral = neutralOf(profile, DAYLIGHT);
  const { matrix } = cameraToXyz({ ...profile, forward: null }, neutral);
  const toCamera = multiply(invert(matrix), multiply(adapt(D65, D50), srgbToXyz));
  const run = renderer(profile, neutral, STAGES, 'srgb');
  return (r, g, b, out, at) => {
    const seen = Float64Array.from(transform(toCamera, [decodeSrgb(r), decodeSrgb(g), decodeSrgb(b)]));
    run(seen);
    out.set(seen, at);
  };
}

/** From values of its camera, balanced for a light and encoded as sRGB is, to encoded sRGB. */
export function renderedValues(profile: Profile, kelvin: number): Evaluate {
  const neutral = neutralOf(profile, kelvin);
  const run = renderer(profile, neutral, STAGES, 'srgb');
  return (r, g, b, out, at) => {
    const values = Float64Array.of(decodeSrgb(r) * neutral[0], decodeSrgb(g) * neutral[1], decodeSrgb(b) * neutral[2]);
    run(values);
    out.set(values, at);
  };
}
