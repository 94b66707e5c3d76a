/**
 * Spectra of the demo, 380…900 nm in steps of 10: the standard observer by the fit of Wyman, Sloan and Shirley (Journal of
 * Computer Graphics Techniques 2, 2013), lights as black bodies and daylight, reflectances as sigmoids of a parabola
 * (Jakob and Hanika, Computer Graphics Forum 38, 2019) fitted to the scene's colors.
 */
import { srgbToXyz } from '@/core/color/spaces';
import { transform } from '@/core/color/matrix';

export const waves = Array.from({ length: 53 }, (_, i) => 380 + i * 10);
export type Spectrum = Float64Array;
const spectrum = (f: (nm: number) => number): Spectrum => Float64Array.from(waves, f);
const lobe = (nm: number, at: number, low: number, high: number): number =>
  Math.exp(-0.5 * ((nm - at) / (nm < at ? low : high)) ** 2);

/** x̄, ȳ, z̄ of the 2° observer. */
export const observer: [Spectrum, Spectrum, Spectrum] = [
  spectrum(
    (l) => 1.056 * lobe(l, 599.8, 37.9, 31) + 0.362 * lobe(l, 442, 16, 26.7) - 0.065 * lobe(l, 501.1, 20.4, 26.2),
  ),
  spectrum((l) => 0.821 * lobe(l, 568.8, 46.9, 40.5) + 0.286 * lobe(l, 530.9, 16.3, 31.1)),
  spectrum((l) => 1.217 * lobe(l, 437, 11.8, 36) + 0.681 * lobe(l, 459, 26, 13.8)),
];

/** CIE standard illuminant D65 (ISO/CIE 11664-2), 380…730 nm; flat beyond. */
const d65 = [
  49.98, 54.65, 82.75, 91.49, 93.43, 86.68, 104.86, 117.01, 117.81, 114.86, 115.92, 108.81, 109.35, 107.8, 104.79,
  107.69, 104.41, 104.05, 100, 96.33, 95.79, 88.69, 90.01, 89.6, 87.7, 83.29, 83.7, 80.03, 80.21, 82.28, 78.28, 69.72,
  71.61, 74.35, 61.6, 69.89,
];
const planck = (nm: number, k: number): number => 1e13 / (nm ** 5 * (Math.exp(1.4388e7 / (nm * k)) - 1));
const unit = (spectrum: Spectrum): Spectrum => {
  const y = spectrum.reduce((a, v, i) => a + v * observer[1][i]!, 0);
  return spectrum.map((v) => v / y);
};
/** A black body, as incandescent lamps are; Y = 1. */
export const lamp = (kelvin: number): Spectrum => unit(spectrum((l) => planck(l, kelvin)));
/** Daylight: D65, warmer or cooler by the ratio of black bodies; Y = 1. */
export const daylight = (kelvin: number): Spectrum =>
  unit(Float64Array.from(waves, (l, i) => ((d65[i] ?? 66) * planck(l, kelvin)) / planck(l, 6504)));

export const xyzUnder = (light: Spectrum, reflectance?: Spectrum): [number, number, number] =>
  [0, 1, 2].map((c) =>
    light.reduce((a, v, i) => a + v * observer[c]![i]! * (reflectance ? reflectance[i]! : 1), 0),
  ) as [number, number, number];

const sigmoid = (x: number): number => 0.5 + x / (2 * Math.sqrt(1 + x * x));
const of = (color: readonly number[]): Spectrum =>
  spectrum((l) => {
    const t = (Math.min(l, 730) - 380) / 350;
    const r = sigmoid(color[0]! * t * t + color[1]! * t + color[2]!);
    return l <= 730 ? r : r + (0.25 + 0.6 * r - r) * Math.min(1, (l - 730) / 80);
  });
const standard = daylight(6504);
const white = xyzUnder(standard);
const target = transform(srgbToXyz, [1, 1, 1]);

/** A smooth reflectance whose color under D65 is this linear sRGB color; beyond 730 nm cloth, wood and paint grow bright, as they do. */
export function reflectanceOf(rgb: readonly number[]): Spectrum {
  const want = transform(
    srgbToXyz,
    rgb.map((v) => Math.min(0.97, Math.max(0.012, v))),
  ).map((v, i) => v / target[i]!);
  const miss = (c: readonly number[]): number[] => xyzUnder(standard, of(c)).map((v, i) => v / white[i]! - want[i]!);
  let color = [0, 0, Math.tan((want[1]! - 0.5) * 2.6)];
  let e = miss(color);
  let damping = 1e-3;
  for (let pass = 0; pass < 60; pass++) {
    const j = [0, 1, 2].map((k) => {
      const dimensions = color.slice();
      dimensions[k]! += 1e-4;
      return miss(dimensions).map((v, i) => (v - e[i]!) / 1e-4);
    });
    // Levenberg and Marquardt: (JᵀJ + μI) step = −Jᵀe
    const a = [0, 1, 2].map((r) =>
      [0, 1, 2].map((s) => j[r]!.reduce((t, v, i) => t + v * j[s]![i]!, 0) + (r === s ? damping : 0)),
    );
    const b = j.map((g) => -g.reduce((t, v, i) => t + v * e[i]!, 0));
    const step = solve(a, b);
    const next = color.map((v, i) => v + step[i]!);
    const f = miss(next);
    if (Math.hypot(...f) < Math.hypot(...e)) {
      color = next;
      e = f;
      damping = Math.max(1e-9, damping / 4);
    } else damping *= 6;
    if (Math.hypot(...e) < 1e-5) break;
  }
  return of(color);
}

/** A small system of equations by elimination. */
export function solve(a: number[][], b: number[]): number[] {
  const count = b.length;
  const matrixes = a.map((r, i) => [...r, b[i]!]);
  for (let c = 0; c < count; c++) {
    let p = c;
    for (let r = c + 1; r < count; r++) if (Math.abs(matrixes[r]![c]!) > Math.abs(matrixes[p]![c]!)) p = r;
    [matrixes[c], matrixes[p]] = [matrixes[p]!, matrixes[c]!];
    for (let r = 0; r < count; r++)
      if (r !== c) {
        const k = matrixes[r]![c]! / matrixes[c]![c]!;
        for (let q = c; q <= count; q++) matrixes[r]![q]! -= k * matrixes[c]![q]!;
      }
  }
  return matrixes.map((r, i) => r[count]! / r[i]!);
}
