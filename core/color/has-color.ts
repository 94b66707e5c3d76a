/** Whether a picture has color, or is monochrome to the eye. */
import { labOfSrgb } from './lab';

/** Up to this chroma in CIELAB nobody sees a color; of a picture, one sample in a thousand may have more. */
const LEAST_CHROMA = 4;
const MOST_COLORED = 0.001;
/** A picture is looked at in this width. */
export const LOOKED_AT_WIDTH = 200;

/** @param pixels sRGB, RGBA of 8 bits */
export function hasColor(pixels: Uint8Array | Uint8ClampedArray): boolean {
  const lab = new Float64Array(3);
  let colored = 0;
  for (let i = 0; i < pixels.length; i += 4) {
    labOfSrgb(pixels[i]! / 255, pixels[i + 1]! / 255, pixels[i + 2]! / 255, lab, 0);
    if (Math.hypot(lab[1]!, lab[2]!) > LEAST_CHROMA) colored++;
  }
  return colored > (MOST_COLORED * pixels.length) / 4;
}
