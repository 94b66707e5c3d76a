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
  const count = values.length;
  const weights: number[] = [];
  for (let k = -half, m = half; k <= half; k++)
    weights.push((3 * (3 * m * m + 3 * m - 1 - 5 * k * k)) / ((2 * m + 3) * (2 * m + 1) * (2 * m - 1)));
  let worst = 0;
  let turns = 0;
  let side = 0;
  for (let i = half; i < count - half; i++) {
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

interface Neutrals {
  /** how far a gray comes out below a darker one, L* */ fall: number;
  tint: number;
  meanTint: number;
  /** steps of the scale that come out at an end */ high: number;
  low: number;
  range: [number, number];
  ramp: Inspection['ramp'];
}

/** What becomes of the neutral scale, in STEPS steps. */
function neutralsOf(evaluate: Evaluate): Neutrals {
  const out = new Float64Array(3);
  const lab = new Float64Array(3);
  const found: Neutrals = { fall: 0, tint: 0, meanTint: 0, high: 0, low: 0, range: [Infinity, -Infinity], ramp: [] };
  let top = -Infinity;
  let tints = 0;
  for (let i = 0; i <= STEPS; i++) {
    const x = i / STEPS;
    evaluate(x, x, x, out, 0);
    labOfSrgb(out[0]!, out[1]!, out[2]!, lab);
    top = Math.max(top, lab[0]!);
    found.fall = Math.max(found.fall, top - lab[0]!);
    const chroma = Math.hypot(lab[1]!, lab[2]!);
    found.tint = Math.max(found.tint, chroma);
    tints += chroma;
    found.range = [Math.min(found.range[0], lab[0]!), Math.max(found.range[1], lab[0]!)];
    if (i < STEPS * high && Math.max(out[0]!, out[1]!, out[2]!) >= high) found.high++;
    if (i > STEPS * low && Math.min(out[0]!, out[1]!, out[2]!) <= low) found.low++;
    if (i % 16 === 0) found.ramp.push([x, out[0]!, out[1]!, out[2]!]);
  }
  found.meanTint = tints / (STEPS + 1);
  return found;
}

/** The neutral scale of 256 code values: its bands, and how many of the darkest 32 stay apart. */
function codesOf(evaluate: Evaluate): { banding: number; shadowLevels: number } {
  const out = new Float64Array(3);
  const scale = [new Float64Array(256), new Float64Array(256), new Float64Array(256)];
  const shades = new Set<number>();
  for (let i = 0; i < 256; i++) {
    evaluate(i / 255, i / 255, i / 255, out, 0);
    for (let c = 0; c < 3; c++) scale[c]![i] = 255 * out[c]!;
    const light = 0.2126 * out[0]! + 0.7152 * out[1]! + 0.0722 * out[2]!;
    if (i < 32) shades.add(Math.round(255 * Math.min(1, Math.max(0, light))));
  }
  return { banding: Math.max(...scale.map((s) => bands(s).worst)), shadowLevels: shades.size };
}

interface Rule {
  code: Finding['code'];
  figure:
    | 'largestFall'
    | 'banding'
    | 'shadowLevels'
    | 'clippedHighlights'
    | 'clippedShadows'
    | 'neutralTint'
    | 'folds'
    | 'outOfRange'
    | 'hueSwing';
  unit: string;
  /** a figure beyond this is a caution */ caution: number;
  /** and beyond this, poor */ poor: number;
  /** the fewer the worse */ falling?: true;
  message: string;
}

/** What is found amiss, in the order in which it is told. */
const RULES: Rule[] = [
  {
    code: 'non-monotone-neutral',
    figure: 'largestFall',
    unit: 'L*',
    caution: 0.25,
    poor: 2,
    message: 'A lighter gray comes out darker than a darker one.',
  },
  {
    code: 'banding',
    figure: 'banding',
    unit: 'code values of 8 bits',
    caution: 1,
    poor: 2,
    message: 'The neutral scale runs in steps, which show as bands in skies and walls.',
  },
  {
    code: 'crushed-shadows',
    figure: 'shadowLevels',
    unit: 'levels of 32',
    caution: 16,
    poor: 8,
    falling: true,
    message: 'Too few of the darkest 32 levels stay apart.',
  },
  {
    code: 'clipped-highlights',
    figure: 'clippedHighlights',
    unit: '% of the neutral scale',
    caution: 2,
    poor: 25,
    message: 'Light grays come out at full scale in at least one channel.',
  },
  {
    code: 'clipped-shadows',
    figure: 'clippedShadows',
    unit: '% of the neutral scale',
    caution: 2,
    poor: 25,
    message: 'Dark grays come out at zero in at least one channel.',
  },
  {
    code: 'neutral-tint',
    figure: 'neutralTint',
    unit: 'C*',
    caution: 2.5,
    poor: Infinity,
    message: 'Neutrals take on a color; fine where that is intended.',
  },
  {
    code: 'fold',
    figure: 'folds',
    unit: '% of cells',
    caution: 0.05,
    poor: 2,
    message: 'Colors trade places: the table turns inside out there.',
  },
  {
    code: 'out-of-range',
    figure: 'outOfRange',
    unit: '% of entries',
    caution: 0,
    poor: Infinity,
    message: 'Results lie below 0 or above 1; an editor may clip them.',
  },
  {
    code: 'hue-swing',
    figure: 'hueSwing',
    unit: '°',
    caution: 15,
    poor: 90,
    message: 'A hue is turned far from itself.',
  },
];

function findingsOf(figures: Inspection['figures']): Finding[] {
  return RULES.flatMap(({ code, figure: name, unit, caution, poor, falling, message }) => {
    const figure = figures[name];
    const beyond = (limit: number): boolean => (falling ? figure < limit : figure > limit);
    return beyond(caution) ? [{ code, severity: beyond(poor) ? 'poor' : 'caution', figure, unit, message }] : [];
  });
}

/** The health of a look, given as what it does to colors; `entries` are its table's own values, where it has one. */
export function inspect(evaluate: Evaluate, entries: ArrayLike<number> | null = null): Inspection {
  const neutrals = neutralsOf(evaluate);
  const cells = foldsOf(evaluate);
  const hues = hueTurns(evaluate);
  const list = entries ?? cells.values;
  let outside = 0;
  for (let i = 0; i < list.length; i++) if (list[i]! < -0.0005 || list[i]! > 1.0005) outside++;
  const seen = hues.sectors.filter((h): h is number => h !== null);
  const figures: Inspection['figures'] = {
    ...codesOf(evaluate),
    clippedHighlights: (100 * neutrals.high) / STEPS,
    clippedShadows: (100 * neutrals.low) / STEPS,
    largestFall: neutrals.fall,
    neutralTint: neutrals.tint,
    meanNeutralTint: neutrals.meanTint,
    folds: cells.folds,
    outOfRange: (100 * outside) / list.length,
    hueSwing: seen.length ? Math.max(...seen.map(Math.abs)) : 0,
    hueBySector: hues.sectors,
    skinTurn: hues.skin,
    roughness: cells.roughness,
    neutralRange: neutrals.range,
  };
  const findings = findingsOf(figures);
  return { verdict: verdictOf(findings), findings, figures, ramp: neutrals.ramp };
}

/** Of a value against its neighbours along the first axis of the table. */
const secondDifference = (values: Float64Array, at: number): number =>
  Math.abs(values[at + 3]! - 2 * values[at]! + values[at - 3]!);

/** Share of cells in which the Jacobian is negative, and how rough neighbours are. */
function foldsOf(evaluate: Evaluate): { folds: number; roughness: number; values: Float64Array } {
  const size = GRID;
  const values = new Float64Array(size ** 3 * 3);
  const out = new Float64Array(3);
  const step = [3, 3 * size, 3 * size * size];
  for (let b = 0, at = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, at += 3) {
        evaluate(r / (size - 1), g / (size - 1), b / (size - 1), out, 0);
        values.set(out, at);
      }
  let folds = 0;
  let cells = 0;
  let rough = 0;
  let count = 0;
  for (let b = 0; b < size - 1; b++)
    for (let g = 0; g < size - 1; g++)
      for (let r = 0; r < size - 1; r++) {
        const at = r * 3 + g * step[1]! + b * step[2]!;
        const d = step.map((s) => [0, 1, 2].map((c) => (values[at + s + c]! - values[at + c]!) * (size - 1))) as [
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
        if (r > 0) {
          rough += secondDifference(values, at) + secondDifference(values, at + 1) + secondDifference(values, at + 2);
          count += 3;
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
        const sum = sums[Math.floor(h / 30) % 12]!;
        sum.turn += turn;
        sum.n++;
        if (hue > 30 && hue < 70 && first[0]! > 0.4 && first[0]! < 0.85 && c < 0.2) {
          sums[12]!.turn += turn;
          sums[12]!.n++;
        }
      }
  const mean = (s: { turn: number; n: number }): number | null => (s.n >= 3 ? s.turn / s.n : null);
  return { sectors: sums.slice(0, 12).map(mean), skin: mean(sums[12]!) };
}
