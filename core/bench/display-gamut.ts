/** Which pixels a display cannot show: colors outside its gamut, told before they are cut to code values. */
import { colorOf, shares } from '../camera/table';
import { transform } from '../color/matrix';
import { between, spaces } from '../color/spaces';
import { decodeSrgb } from '../color/transfer';
import type { Prepared } from '../look/apply';
import type { Evaluate } from '../look/sample';

export type Gamut = 'srgb' | 'p3' | 'rec2020';
const matrices: Record<Gamut, number[] | null> = {
  srgb: null,
  p3: between(spaces.srgb, spaces.p3),
  rec2020: between(spaces.srgb, spaces.rec2020),
};
const light = (v: number): number => (v < 0 ? -decodeSrgb(-v) : decodeSrgb(v));

/** Encoded sRGB, unclamped. What is merely too light to be shown, as white is, is clipped and not outside. */
export function isOutside(r: number, g: number, b: number, gamut: Gamut): boolean {
  const matrix = matrices[gamut];
  const values: readonly number[] = matrix
    ? transform(matrix, [light(r), light(g), light(b)])
    : [light(r), light(g), light(b)];
  const low = Math.min(values[0]!, values[1]!, values[2]!);
  const high = Math.max(values[0]!, values[1]!, values[2]!);
  return low < -0.002 || (high > 1.002 && low < 0.98);
}

/** Marks such pixels in `out` (RGBA, so wide) by a checker of two grays; `at` writes the unclamped color of pixel i. Says the share in percent. */
export function markOutside(
  out: Uint8ClampedArray,
  width: number,
  gamut: Gamut,
  at: (i: number, v: Float64Array) => void,
): number {
  const values = new Float64Array(3);
  const pixels = out.length / 4;
  let count = 0;
  for (let i = 0; i < pixels; i++) {
    at(i, values);
    if (!isOutside(values[0]!, values[1]!, values[2]!, gamut)) continue;
    count++;
    const x = i % width;
    const y = (i - x) / width;
    const gray = ((x >> 1) + (y >> 1)) & 1 ? 196 : 96;
    out[i * 4] = gray;
    out[i * 4 + 1] = gray;
    out[i * 4 + 2] = gray;
  }
  return (100 * count) / pixels;
}

/**
 * Colors as they are before they are cut to code values: from camera values through the profile's table, else from the
 * picture's own codes, then through each look at its strength; looks take what is within 0…1.
 */
export function uncut(
  codes: Uint8ClampedArray,
  raw: { samples: Uint16Array; table: Prepared; neutral: readonly number[] } | null,
  looks: readonly { f: Evaluate; strength: number }[],
): (i: number, v: Float64Array) => void {
  const color = raw && colorOf(raw.table, shares(raw.neutral));
  const values = new Float64Array(3);
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  return (i, v) => {
    if (color) color(raw.samples[i * 3]!, raw.samples[i * 3 + 1]!, raw.samples[i * 3 + 2]!, v);
    else for (let c = 0; c < 3; c++) v[c] = codes[i * 4 + c]! / 255;
    for (const layer of looks) {
      for (let c = 0; c < 3; c++) v[c] = clamp(v[c]!);
      layer.f(v[0]!, v[1]!, v[2]!, values, 0);
      for (let c = 0; c < 3; c++) v[c] = v[c]! + layer.strength * (values[c]! - v[c]!);
    }
  };
}
