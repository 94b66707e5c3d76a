/**
 * A look's health: what it does to neutrals, to the ends of the range, to hue and to neighbouring colors, as figures, and
 * findings with the reason for each. Display-referred values 0…1; lightness and chroma are CIE L*a*b*, hue is Oklab's.
 */
import { labOfSrgb } from '../color/lab';
import { toOklab } from '../color/oklab';
import { decodeSrgb } from '../color/transfer';
import type { Evaluate } from './sample';

export type Severity = 'caution' | 'poor';
export interface Finding {
  code:
    | 'banding'
    | 'crushed-shadows'
    | 'clipped-highlights'
    | 'clipped-shadows'
    | 'non-monotone-neutral'
    | 'neutral-tint'
    | 'fold'
    | 'out-of-range'
    | 'hue-swing';
  severity: Severity;
  figure: number;
  unit: string;
  message: string;
}
export interface Inspection {
  verdict: 'good' | Severity;
  findings: Finding[];
  figures: {
    /** code values of 8 bits */ banding: number;
    /** distinct results of the darkest 32 */ shadowLevels: number;
    /** percent of the neutral scale */ clippedHighlights: number;
    clippedShadows: number;
    /** L* */ largestFall: number;
    /** C* */ neutralTint: number;
    meanNeutralTint: number;
    /** percent of cells */ folds: number;
    /** percent of entries */ outOfRange: number;
    /** degrees, of the sector that turns most */ hueSwing: number;
    /** degrees by sector from red on, every 30; null where color is lost */ hueBySector: (number | null)[];
    /** degrees, of skin colors */ skinTurn: number | null;
    /** mean second difference of neighbours, code values of 8 bits */ roughness: number;
    /** lightest and darkest L* of the neutral scale */ neutralRange: [number, number];
  };
  /** the neutral scale: input, result by channel */ ramp: [number, number, number, number][];
}

const STEPS = 1024;
const GRID = 17;
const low = 1 / 1020;
const high = 1 - 1 / 1020; // a quarter of a code value from either end

function verdictOf(findings: readonly Finding[]): Inspection['verdict'] {
  if (findings.some((finding) => finding.severity === 'poor')) return 'poor';
  return findings.length ? 'caution' : 'good';
}

/** Deviation of a scale from its own running parabola over ±8 codes (Savitzky and Golay, Analytical Chemistry 36, 1964), in code values, and how often it changes side by more than one code. */
function bands(values: Float64Array): { worst: number; turns: number } {
  const half = 8;
  const n = values.length;
  const weights: number[] = [];
  for (let k = -half, m = half; k <= half; k++)
    weights.push((3 * (3 * m * m + 3 * m - 1 - 5 * k * k)) / ((2 * m + 3) * (2 * m + 1) * (2 * m - 1)));
  let worst = 0;
  let turns = 0;
  let side = 0;
  for (let i = half; i < n - half; i++) {
    let s = 0;
    let clipped = false;
    for (let k = -half; k <= half; k++) {
      const x = values[i + k]!;
      s += weights[k + half]! * x;
      if (x <= low * 255 || x >= high * 255) clipped = true;
    }
    if (clipped) continue;
    const d = values[i]! - s;
    if (Math.abs(d) > 1) {
      const now = Math.sign(d);
      if (now !== side) {
        turns++;
        side = now;
      }
      worst = Math.max(worst, Math.abs(d));
    }
  }
  return { worst: turns >= 4 ? worst : 0, turns };
}

export function inspect(evaluate: Evaluate, entries: ArrayLike<number> | null = null): Inspection {
  const out = new Float64Array(3);
  const lab = new Float64Array(3);
  const ramp: [number, number, number, number][] = [];
  let fall = 0;
  let top = -Infinity;
  let tint = 0;
  let tints = 0;
  let clippedHigh = 0;
  let clippedLow = 0;
  let darkest = Infinity;
  let lightest = -Infinity;
  for (let i = 0; i <= STEPS; i++) {
    const x = i / STEPS;
    evaluate(x, x, x, out, 0);
    labOfSrgb(out[0]!, out[1]!, out[2]!, lab);
    top = Math.max(top, lab[0]!);
    fall = Math.max(fall, top - lab[0]!);
    const c = Math.hypot(lab[1]!, lab[2]!);
    tint = Math.max(tint, c);
    tints += c;
    darkest = Math.min(darkest, lab[0]!);
    lightest = Math.max(lightest, lab[0]!);
    if (i < STEPS * high && Math.max(out[0]!, out[1]!, out[2]!) >= high) clippedHigh++;
    if (i > STEPS * low && Math.min(out[0]!, out[1]!, out[2]!) <= low) clippedLow++;
    if (i % 16 === 0) ramp.push([x, out[0]!, out[1]!, out[2]!]);
  }
  const scale = [new Float64Array(256), new Float64Array(256), new Float64Array(256)];
  const shades = new Set<number>();
  for (let i = 0; i < 256; i++) {
    evaluate(i / 255, i / 255, i / 255, out, 0);
    for (let c = 0; c < 3; c++) scale[c]![i] = 255 * out[c]!;
    if (i < 32)
      shades.add(Math.round(255 * Math.min(1, Math.max(0, 0.2126 * out[0]! + 0.7152 * out[1]! + 0.0722 * out[2]!))));
  }
  const banding = Math.max(...scale.map((s) => bands(s).worst));
  const cells = foldsOf(evaluate);
  const hues = hueTurns(evaluate);
  let outside = 0;
  const list = entries ?? cells.values;
  for (let i = 0; i < list.length; i++) if (list[i]! < -0.0005 || list[i]! > 1.0005) outside++;
  const percent = (n: number, of: number): number => (100 * n) / of;
  const seen = hues.sectors.filter((h): h is number => h !== null);
  const swing = seen.length ? Math.max(...seen.map(Math.abs)) : 0;
  const figures: Inspection['figures'] = {
    banding,
    shadowLevels: shades.size,
    clippedHighlights: percent(clippedHigh, STEPS),
    clippedShadows: percent(clippedLow, STEPS),
    largestFall: fall,
    neutralTint: tint,
    meanNeutralTint: tints / (STEPS + 1),
    folds: cells.folds,
    outOfRange: percent(outside, list.length),
    hueSwing: swing,
    hueBySector: hues.sectors,
    skinTurn: hues.skin,
    roughness: cells.roughness,
    neutralRange: [darkest, lightest],
  };
  const findings: Finding[] = [];
  const say = (
    code: Finding['code'],
    figure: number,
    unit: string,
    from: number,
    poor: number,
    message: string,
    falling = false,
  ): void => {
    if (falling ? figure < from : figure > from)
      findings.push({
        code,
        severity: (falling ? figure < poor : figure > poor) ? 'poor' : 'caution',
        figure,
        unit,
        message,
      });
  };
  say('non-monotone-neutral', fall, 'L*', 0.25, 2, 'A lighter gray comes out darker than a darker one.');
  say(
    'banding',
    banding,
    'code values of 8 bits',
    1,
    2,
    'The neutral scale runs in steps, which show as bands in skies and walls.',
  );
  say('crushed-shadows', shades.size, 'levels of 32', 16, 8, 'Too few of the darkest 32 levels stay apart.', true);
  say(
    'clipped-highlights',
    figures.clippedHighlights,
    '% of the neutral scale',
    2,
    25,
    'Light grays come out at full scale in at least one channel.',
  );
  say(
    'clipped-shadows',
    figures.clippedShadows,
    '% of the neutral scale',
    2,
    25,
    'Dark grays come out at zero in at least one channel.',
  );
  say('neutral-tint', tint, 'C*', 2.5, Infinity, 'Neutrals take on a color; fine where it is meant.');
  say('fold', cells.folds, '% of cells', 0.05, 2, 'Colors trade places: the table turns inside out there.');
  say(
    'out-of-range',
    figures.outOfRange,
    '% of entries',
    0,
    Infinity,
    'Results lie below 0 or above 1; an editor may clip them.',
  );
  say('hue-swing', swing, '°', 15, 90, 'A hue is turned far from itself.');
  return {
    verdict: verdictOf(findings),
    findings,
    figures,
    ramp,
  };
}

/** Share of cells in which the Jacobian is negative, and how rough neighbours are. */
function foldsOf(evaluate: Evaluate): { folds: number; roughness: number; values: Float64Array } {
  const n = GRID;
  const values = new Float64Array(n ** 3 * 3);
  const out = new Float64Array(3);
  const step = [3, 3 * n, 3 * n * n];
  for (let b = 0, at = 0; b < n; b++)
    for (let g = 0; g < n; g++)
      for (let r = 0; r < n; r++, at += 3) {
        evaluate(r / (n - 1), g / (n - 1), b / (n - 1), out, 0);
        values.set(out, at);
      }
  let folds = 0;
  let cells = 0;
  let rough = 0;
  let count = 0;
  for (let b = 0; b < n - 1; b++)
    for (let g = 0; g < n - 1; g++)
      for (let r = 0; r < n - 1; r++) {
        const at = r * 3 + g * step[1]! + b * step[2]!;
        const d = step.map((s) => [0, 1, 2].map((c) => (values[at + s + c]! - values[at + c]!) * (n - 1))) as [
          number[],
          number[],
          number[],
        ];
        const det =
          d[0][0]! * (d[1][1]! * d[2][2]! - d[1][2]! * d[2][1]!) -
          d[1][0]! * (d[0][1]! * d[2][2]! - d[0][2]! * d[2][1]!) +
          d[2][0]! * (d[0][1]! * d[1][2]! - d[0][2]! * d[1][1]!);
        cells++;
        if (det < -0.02) folds++;
        if (r > 0)
          for (let c = 0; c < 3; c++) {
            rough += Math.abs(values[at + 3 + c]! - 2 * values[at + c]! + values[at - 3 + c]!);
            count++;
          }
      }
  return { folds: (100 * folds) / cells, roughness: (255 * rough) / count, values };
}

/** How far hues turn, in degrees, by sector of 30° from red on, and for skin (hue 30…60° at middle lightness). */
function hueTurns(evaluate: Evaluate): { sectors: (number | null)[]; skin: number | null } {
  const sums = Array.from({ length: 13 }, () => ({ turn: 0, n: 0 }));
  const o = new Float64Array(3);
  const first = new Float64Array(3);
  const second = new Float64Array(3);
  const lch = (r: number, g: number, bl: number, out: Float64Array): void => {
    const hold = (x: number): number => decodeSrgb(Math.min(1, Math.max(0, x)));
    out[0] = hold(r);
    out[1] = hold(g);
    out[2] = hold(bl);
    toOklab(out);
  };
  for (let r = 1; r < 12; r++)
    for (let g = 1; g < 12; g++)
      for (let bl = 1; bl < 12; bl++) {
        lch(r / 12, g / 12, bl / 12, first);
        const c = Math.hypot(first[1]!, first[2]!);
        if (c < 0.12) continue; // paler colors are turned by any tint
        evaluate(r / 12, g / 12, bl / 12, o, 0);
        lch(o[0]!, o[1]!, o[2]!, second);
        if (Math.hypot(second[1]!, second[2]!) < 0.02) continue;
        const hue = (Math.atan2(first[2]!, first[1]!) * 180) / Math.PI;
        const turn = (((((Math.atan2(second[2]!, second[1]!) * 180) / Math.PI - hue + 540) % 360) + 360) % 360) - 180;
        const h = (hue + 360 - 15) % 360;
        const s = sums[Math.floor(h / 30) % 12]!;
        s.turn += turn;
        s.n++;
        if (hue > 30 && hue < 70 && first[0]! > 0.4 && first[0]! < 0.85 && c < 0.2) {
          sums[12]!.turn += turn;
          sums[12]!.n++;
        }
      }
  const mean = (s: { turn: number; n: number }): number | null => (s.n >= 3 ? s.turn / s.n : null);
  return { sectors: sums.slice(0, 12).map(mean), skin: mean(sums[12]!) };
}
