/** How far two pictures are apart, pixel by pixel, in ΔE00; and the same as a picture. */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';

export interface PictureFigures {
  mean: number;
  /** nearest rank */ p95: number;
  max: number;
}
export interface PictureDifference extends PictureFigures {
  /** ΔE00 by pixel, in the pictures' order */ values: Float32Array;
}
type Pixels = Uint8Array | Uint8ClampedArray;

/** @param one sRGB of 8 bits, RGBA; @param other of the same size */
export function pictureDifference(one: Pixels, other: Pixels): PictureDifference {
  if (one.length !== other.length) throw new Error('the pictures are not of one size');
  const values = new Float32Array(one.length / 4);
  const lab = new Float64Array(6);
  let sum = 0;
  for (let i = 0, p = 0; p < one.length; i++, p += 4) {
    labOfSrgb(one[p]! / 255, one[p + 1]! / 255, one[p + 2]! / 255, lab, 0);
    labOfSrgb(other[p]! / 255, other[p + 1]! / 255, other[p + 2]! / 255, lab, 3);
    const far = deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!);
    values[i] = far;
    sum += far;
  }
  const ranked = Float32Array.from(values).sort();
  return {
    mean: sum / values.length,
    p95: ranked[Math.ceil(ranked.length * 0.95) - 1]!,
    max: ranked[ranked.length - 1]!,
    values,
  };
}

/** From this ΔE00 on, pictures of differences are white. */
export const WHITE_DELTA_E = 10;

/** A gray picture: black where both are the same, white from `white` ΔE00 on. RGBA of 8 bits. */
export function differencePicture(values: Float32Array, white: number): Uint8ClampedArray {
  const out = new Uint8ClampedArray(values.length * 4);
  for (let i = 0; i < values.length; i++) {
    out.fill((255 * values[i]!) / white, i * 4, i * 4 + 3);
    out[i * 4 + 3] = 255;
  }
  return out;
}
