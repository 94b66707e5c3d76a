/** Camera profiles computed from sensitivities: matrices for two lights by least squares over the scene's reflectances, a map fitted to what they leave, and the variants that a maker gives. */
import { hexconeHue } from '@/core/color/hexcone';
import { adapt, D50, D65, srgbToXyz } from '@/core/color/spaces';
import { invert, multiply, transform } from '@/core/color/matrix';
import { profileOf, setNumbers, setText, type Dcp } from '@/core/camera/dcp';
import { proPhotoToXyz, renderer } from '@/core/camera/render';
import { materials } from '../scene/materials';
import { neutralUnder, recorded, type Camera } from './cameras';
import { daylight, lamp, reflectanceOf, solve, xyzUnder, type Spectrum } from './spectra';

let cached: Spectrum[] | null = null;
/** Reflectances to fit on: both colors of every material, and their middle. */
export function training(): Spectrum[] {
  return (cached ??= Object.values(materials)
    .flatMap((m) => [m.a, m.b, m.a.map((v, i) => (v + m.b[i]!) / 2)])
    .map(reflectanceOf));
}

const hsv = (r: number, g: number, b: number): [number, number, number] => {
  const t = Math.max(r, g, b);
  const l = Math.min(r, g, b);
  const d = t - l;
  if (!(d > 0)) return [0, 0, t];
  return [hexconeHue(r, g, b, t, d) * 60, d / t, t];
};

const HELD = 60;
const plain = multiply(adapt(D65, D50), srgbToXyz);
/** Linear map from balanced camera values to XYZ relative to D50, white kept exactly. */
function forwardMatrix(camera: Camera, light: Spectrum): number[] {
  const white = xyzUnder(light);
  const neutral = recorded(camera, light);
  const to = adapt([white[0] / (white[0] + white[1] + white[2]), white[1] / (white[0] + white[1] + white[2])], D50);
  const rows = training().map((spectrum) => ({
    cam: recorded(camera, light, spectrum).map((v, i) => v / neutral[i]!),
    xyz: transform(to, xyzUnder(light, spectrum)),
  }));
  rows.push({ cam: [1, 1, 1], xyz: [D50[0] / D50[1], 1, (1 - D50[0] - D50[1]) / D50[1]] });
  return [0, 1, 2].flatMap((k) => {
    const a = [0, 1, 2].map(() => [0, 0, 0]);
    const b = [0, 0, 0];
    rows.forEach((row, i) => {
      const weight = i === rows.length - 1 ? 1e6 : 1 / (0.02 + row.xyz[1]);
      for (let p = 0; p < 3; p++) {
        b[p]! += weight * row.cam[p]! * row.xyz[k]!;
        for (let q = 0; q < 3; q++) a[p]![q]! += weight * row.cam[p]! * row.cam[q]!;
      }
    });
    // behind an infrared filter the channels are nearly one: held to plain primaries, or noise would be all that is left
    if (camera.converted)
      for (let p = 0; p < 3; p++) {
        a[p]![p]! += HELD;
        b[p]! += HELD * plain[k * 3 + p]!;
      }
    return solve(a, b);
  });
}

/** XYZ to camera values: the forward matrix undone, with the light's own white in the place of D50. */
function colorMatrix(camera: Camera, light: Spectrum, forward: number[]): number[] {
  const white = xyzUnder(light);
  const neutral = neutralUnder(camera, light);
  const sum = white[0] + white[1] + white[2];
  const to = adapt([white[0] / sum, white[1] / sum], D50);
  return multiply([neutral[0], 0, 0, 0, neutral[1], 0, 0, 0, neutral[2]], multiply(invert(forward), to)).map((v) => v);
}

const HUES = 24;
const SATS = 8;
/** Hue shifts, saturation and value factors that bring what the matrix gives nearer to the truth, smoothed over neighbours. */
function fittedMap(camera: Camera, light: Spectrum, base: Dcp): number[] {
  const neutral = neutralUnder(camera, light);
  const top = recorded(camera, light);
  const run = renderer(profileOf(base), neutral, []);
  const back = invert(proPhotoToXyz);
  const white = xyzUnder(light);
  const sum = white[0] + white[1] + white[2];
  const to = adapt([white[0] / sum, white[1] / sum], D50);
  const high = Math.max(...top);
  const seen = training().map((spectrum) => {
    const values = Float64Array.from(recorded(camera, light, spectrum), (x) => x / high);
    const target = transform(back, transform(to, xyzUnder(light, spectrum))).map((x) => Math.max(1e-4, x));
    run(values);
    const start = hsv(values[0]!, values[1]!, values[2]!);
    const goal = hsv(target[0]!, target[1]!, target[2]!);
    const turn = ((goal[0] - start[0] + 540) % 360) - 180;
    return {
      h: start[0],
      s: start[1],
      turn: start[1] < 0.05 ? 0 : Math.max(-12, Math.min(12, turn)),
      sat: Math.max(0.8, Math.min(1.25, goal[1] / Math.max(0.02, start[1]))),
      val: Math.max(0.85, Math.min(1.15, goal[2] / start[2])),
    };
  });
  const out: number[] = [];
  for (let h = 0; h < HUES; h++)
    for (let k = 0; k < SATS; k++) {
      if (k === 0) {
        out.push(0, 1, 1);
        continue;
      }
      let w = 0.15;
      let turn = 0;
      let sat = 0.15;
      let val = 0.15;
      for (const twist of seen) {
        const d = ((twist.h - (h * 360) / HUES + 540) % 360) - 180;
        const e = twist.s - k / (SATS - 1);
        const q = Math.exp(-0.5 * ((d / 16) ** 2 + (e / 0.16) ** 2));
        w += q;
        turn += q * twist.turn;
        sat += q * twist.sat;
        val += q * twist.val;
      }
      out.push(turn / w, sat / w, val / w);
    }
  return out;
}

/** What a maker does to hues: warm reds a little towards orange, blues deeper, skin left alone. Made up. */
function styleTable(style: 'standard' | 'portrait' | 'monochrome'): { dims: number[]; data: number[] } {
  const hues = 24;
  const saturations = 6;
  const values = 5;
  const data: number[] = [];
  const bump = (hue: number, at: number, width: number): number =>
    Math.exp(-0.5 * ((((hue - at + 540) % 360) - 180) / width) ** 2);
  for (let z = 0; z < values; z++)
    for (let x = 0; x < hues; x++)
      for (let y = 0; y < saturations; y++) {
        const hue = (x * 360) / hues;
        const sat = y / (saturations - 1);
        const light = z / (values - 1);
        if (style === 'monochrome') {
          data.push(0, 0, 1 + 0.18 * sat * (bump(hue, 40, 40) - bump(hue, 220, 45)));
          continue;
        }
        const strength = style === 'standard' ? 1 : 0.5;
        data.push(
          y === 0 ? 0 : strength * (5 * bump(hue, 0, 22) - 6 * bump(hue, 110, 30) + 4 * bump(hue, 215, 25)),
          y === 0 ? 1 : 1 + strength * (0.14 + 0.1 * bump(hue, 225, 30) - 0.16 * bump(hue, 35, 18)) * (1 - 0.3 * light),
          1 - strength * 0.12 * sat * bump(hue, 225, 35),
        );
      }
  return { dims: [hues, saturations, values], data };
}
const curve = (contrast: number): number[] => {
  const out: number[] = [];
  for (let i = 0; i <= 24; i++) {
    const x = (i / 24) ** 2;
    const y = (x * (1.35 * contrast * x + 0.18)) / (x * (1.22 * contrast * x + 0.62) + 0.06);
    const end = (1.35 * contrast + 0.18) / (1.22 * contrast + 0.68);
    out.push(x, y / end);
  }
  return out;
};

export const variants = ['Standard', 'Portrait', 'Neutral', 'Monochrome'] as const;
export type Variant = (typeof variants)[number];

type Styled = Exclude<Variant, 'Neutral'>;
const styles = { Standard: 'standard', Portrait: 'portrait', Monochrome: 'monochrome' } as const satisfies Record<
  Styled,
  string
>;
const contrasts: Partial<Record<Variant, number>> = { Neutral: 0.75, Portrait: 0.9 };

/** The profile of a camera: Alder's maker calls its styles as the trade does, by what they are for. */
export function profileFor(camera: Camera, variant: Variant | null, title: string): Dcp {
  const profile: Dcp = { little: true, tags: new Map() };
  const lights: [Spectrum, number][] = [
    [lamp(2856), 17],
    [daylight(6504), 21],
  ];
  const forward = lights.map(([l]) => forwardMatrix(camera, l));
  setText(profile, 50708, camera.unique);
  setText(profile, 50936, title);
  setText(profile, 50942, 'Wren & Tallow, computed');
  setNumbers(profile, 50941, 4, [0]);
  lights.forEach(([spectrum, code], i) => {
    setNumbers(profile, [50721, 50722][i]!, 10, colorMatrix(camera, spectrum, forward[i]!));
    setNumbers(profile, [50964, 50965][i]!, 10, forward[i]!);
    setNumbers(profile, [50778, 50779][i]!, 3, [code]);
  });
  if (!variant) return profile;
  const maps = lights.map(([l]) => fittedMap(camera, l, profile));
  setNumbers(profile, 50937, 4, [HUES, SATS, 1]);
  maps.forEach((m, i) => setNumbers(profile, [50938, 50939][i]!, 11, m));
  if (variant !== 'Neutral') {
    const table = styleTable(styles[variant]);
    setNumbers(profile, 50981, 4, table.dims);
    setNumbers(profile, 50982, 11, table.data);
    setNumbers(profile, 51108, 4, [1]);
  }
  setNumbers(profile, 50940, 11, curve(contrasts[variant] ?? 1));
  if (variant === 'Standard') setNumbers(profile, 51109, 10, [0.1]);
  return profile;
}
