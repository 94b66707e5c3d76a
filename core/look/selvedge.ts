/**
 * The selvedge: twelve fixed colors and what an item makes of them. It draws the spine on the shelf.
 * The colors are nine OKLCh hues at a chroma that sRGB holds, and a light, a middle and a dark neutral.
 */
import { fromOklab } from '../color/oklab';
import { encodeSrgb } from '../color/transfer';
import type { Evaluate } from './sample';

const clip = (v: number): number => Math.min(1, Math.max(0, v));

/** The twelve threads as sRGB code values 0…1. */
export const threads: readonly (readonly [number, number, number])[] = [
  ...[24, 55, 88, 122, 155, 200, 245, 290, 345].map((h, i) =>
    oklch(
      [0.58, 0.7, 0.78, 0.72, 0.6, 0.68, 0.55, 0.56, 0.6][i]!,
      [0.14, 0.12, 0.13, 0.15, 0.11, 0.09, 0.12, 0.13, 0.14][i]!,
      h,
    ),
  ),
  oklch(0.88, 0, 0),
  oklch(0.56, 0, 0),
  oklch(0.22, 0, 0),
];

function oklch(l: number, c: number, h: number): [number, number, number] {
  const values = new Float64Array([l, c * Math.cos((h * Math.PI) / 180), c * Math.sin((h * Math.PI) / 180)]);
  fromOklab(values);
  return [clip(encodeSrgb(values[0]!)), clip(encodeSrgb(values[1]!)), clip(encodeSrgb(values[2]!))];
}

const hex = (v: readonly number[] | Float64Array): string =>
  '#' +
  [0, 1, 2]
    .map((c) =>
      Math.round(255 * clip(v[c]!))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');

/** Twelve pairs of colors, each "#rrggbb": the fixed one and the rendered one. */
export function selvedge(evaluate: Evaluate): [string, string][] {
  const out = new Float64Array(3);
  return threads.map((thread) => {
    evaluate(thread[0], thread[1], thread[2], out, 0);
    return [hex(thread), hex(out)];
  });
}
