/** CIE 1976 L*a*b* (ISO/CIE 11664-4) of sRGB values relative to D65, and of XYZ relative to any white; 2° observer. */
import { transformTo } from './matrix';
import { decodeSrgbQuickly as decodeSrgb } from './transfer-table';
import { srgbToXyz, xyzOf, D65 } from './spaces';

const white = xyzOf(D65);
const matrix = srgbToXyz.map((v, i) => v / white[Math.floor(i / 3)]!);
const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);

/** XYZ → L*a*b* relative to a white of the same scale. */
export function labOfXyz(xyz: readonly number[], whiteXyz: readonly number[]): [number, number, number] {
  const [x, y, z] = xyz.map((v, i) => f(v / whiteXyz[i]!)) as [number, number, number];
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** Linear sRGB → L*a*b*, written to out[at…at+2]. */
export function labOfLinear(r: number, g: number, b: number, out: Float64Array | number[], at = 0): void {
  transformTo(matrix, r, g, b, out, at);
  const x = f(out[at]!);
  const y = f(out[at + 1]!);
  const z = f(out[at + 2]!);
  out[at] = 116 * y - 16;
  out[at + 1] = 500 * (x - y);
  out[at + 2] = 200 * (y - z);
}

const clip = (v: number): number => {
  if (v < 0) return 0;
  if (v > 1) return 1;
  return v;
};

/** sRGB code values, clamped to 0…1, → L*a*b*, written to out[at…at+2]. */
export function labOfSrgb(r: number, g: number, b: number, out: Float64Array | number[], at = 0): void {
  labOfLinear(decodeSrgb(clip(r)), decodeSrgb(clip(g)), decodeSrgb(clip(b)), out, at);
}
