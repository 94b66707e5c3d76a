/** OKLab, after Björn Ottosson, "A perceptual color space for image processing" (2020); linear sRGB in and out, unbounded. */
import { cubeRootQuickly } from './transfer-table';

/** Linear sRGB → L, a, b, written over v at `i`. */
export function toOklab(values: Float64Array, i = 0): void {
  const r = values[i]!;
  const g = values[i + 1]!;
  const b = values[i + 2]!;
  const l = cubeRootQuickly(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = cubeRootQuickly(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = cubeRootQuickly(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  values[i] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  values[i + 1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  values[i + 2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

/** L, a, b → linear sRGB, written over v at `i`. */
export function fromOklab(values: Float64Array, i = 0): void {
  const L = values[i]!;
  const a = values[i + 1]!;
  const b = values[i + 2]!;
  const p = L + 0.3963377774 * a + 0.2158037573 * b;
  const q = L - 0.1055613458 * a - 0.0638541728 * b;
  const r = L - 0.0894841775 * a - 1.291485548 * b;
  const l = p * p * p;
  const m = q * q * q;
  const s = r * r * r;
  values[i] = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s;
  values[i + 1] = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s;
  values[i + 2] = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s;
}
