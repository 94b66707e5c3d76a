/**
 * The point settings, in the order in which they act. Each is a definition; the renderer knows nothing else of them. Each has
 * a loop of its own: one that all share calls their formulas as functions, which costs more than most formulas do.
 * Linear values are linear sRGB (white 1.0), encoded ones are sRGB code values, both unbounded and odd-symmetric.
 */
import { invert, multiply, nineOf, type Matrix } from '../color/matrix';
import { adapt, spaces, toXyz } from '../color/spaces';
import { locusNormal, planckian, xyOfUv } from '../color/temperature';
import { powerQuickly } from '../color/transfer-table';
import { monotoneCurve, type CurvePoints } from './curve';
import {
  curvePoints,
  numberIn,
  triple,
  type GrayMix,
  type Operation,
  type Sector,
  type SettingDefinition,
  type Tint,
} from './kinds';

const REFERENCE = 6504;

/** White point of a shift: `mired` along the black-body locus from 6504 K, `tint` across it (3000 units = 1 in u, v). */
function shiftedWhite(mired: number, tint: number): [number, number] {
  const kelvin = 1e6 / (1e6 / REFERENCE + mired);
  const [u, v] = planckian(kelvin);
  const normal = locusNormal(kelvin);
  return xyOfUv([u + (tint / 3000) * normal[0], v + (tint / 3000) * normal[1]]);
}

const through = (matrix: Matrix): Operation => {
  const [a, b, c, d, e, f, g, h, k] = nineOf(matrix);
  return (values, n) => {
    for (let i = 0; i < n; i += 3) {
      const x = values[i]!;
      const y = values[i + 1]!;
      const z = values[i + 2]!;
      values[i] = a * x + b * y + c * z;
      values[i + 1] = d * x + e * y + f * z;
      values[i + 2] = g * x + h * y + k * z;
    }
  };
};

const quartic = (x: number): number => x * x * (x * x);

/** Weight of a hue in a sector: a raised cosine, 1 at the center, 0 at half the width away. Degrees. */
export function sectorWeight(hue: number, center: number, width: number): number {
  let d = Math.abs(hue - center) % 360;
  if (d > 180) d = 360 - d;
  return d >= width / 2 ? 0 : 0.5 + 0.5 * Math.cos((2 * Math.PI * d) / width);
}

const degrees = (a: number, b: number): number => {
  const h = (Math.atan2(b, a) * 180) / Math.PI;
  return h < 0 ? h + 360 : h;
};

/** Warmth and tint shift as what they are: one matrix on linear sRGB. */
export function warmthMatrix(mired: number, tint: number): Matrix {
  const matrix = toXyz(spaces.srgb);
  const adapted = adapt(shiftedWhite(0, 0), shiftedWhite(mired, tint));
  return multiply(invert(matrix), multiply(adapted, matrix));
}

const warmth: SettingDefinition<number> = {
  id: 'warmth',
  title: 'Warmth',
  family: 'white',
  class: 'point',
  unit: 'mired',
  range: '-150…150',
  neutral: 0,
  check: numberIn(-150, 150),
  stage: 'linear',
  formula:
    'Linear. With `T = 10⁶ / (10⁶/6504 + warmth)`, the white `W` is the black-body chromaticity (Krystek 1985, CIE 1960 u, v) at `T`, moved by `tintShift / 3000` along the locus normal that points towards falling v (magenta); `W₀` is the same for `warmth = tintShift = 0`. XYZ is adapted from `W₀` to `W` by linear Bradford: `v ← M⁻¹ · A(W₀→W) · M · v`, M the sRGB to XYZ matrix. Positive warms. One operation does warmth and tint shift together. The slope of the locus is the difference of its points at 0.999 T and 1.001 T.',
  compile(value, all) {
    const tint = (all.tintShift as number | undefined) ?? 0;
    return value === 0 && tint === 0 ? null : through(warmthMatrix(value, tint));
  },
};

const tintShift: SettingDefinition<number> = {
  id: 'tintShift',
  title: 'Tint shift',
  family: 'white',
  class: 'point',
  unit: '1/3000 in CIE 1960 u, v',
  range: '-150…150',
  neutral: 0,
  check: numberIn(-150, 150),
  stage: 'linear',
  formula: 'Part of the warmth operation, see there. Positive goes towards magenta.',
  compile(value, all) {
    return all.warmth === undefined || all.warmth === 0 ? warmth.compile!(0, { ...all, tintShift: value }) : null;
  },
};

const level: SettingDefinition<number> = {
  id: 'level',
  title: 'Level',
  family: 'light',
  class: 'point',
  unit: 'EV',
  range: '-10…10',
  neutral: 0,
  check: numberIn(-10, 10),
  stage: 'linear',
  formula: 'Linear. `v ← v · 2^level`.',
  compile(value) {
    const k = 2 ** value;
    return value === 0
      ? null
      : (values, n) => {
          for (let i = 0; i < n; i++) values[i]! *= k;
        };
  },
};

const matrix: SettingDefinition<number[]> = {
  id: 'matrix',
  title: 'Matrix',
  family: 'matrix',
  class: 'point',
  unit: '–',
  range: 'nine numbers, each -8…8',
  neutral: [1, 0, 0, 0, 1, 0, 0, 0, 1],
  stage: 'linear',
  check: (value) =>
    Array.isArray(value) && value.length === 9 && value.every((n) => typeof n === 'number' && Math.abs(n) <= 8)
      ? null
      : 'must be nine numbers from -8 to 8',
  formula: 'Linear. `v ← matrix · v`, row-major on a column vector.',
  compile: (value) => through(value),
};

const contrast: SettingDefinition<number> = {
  id: 'contrast',
  title: 'Contrast',
  family: 'light',
  class: 'point',
  unit: 'exponent',
  range: '0.1…5',
  neutral: 1,
  check: numberIn(0.1, 5),
  stage: 'linear',
  formula: 'Linear, by channel, odd-symmetric: `v ← pivot · (v / pivot)^contrast`, pivot the contrast pivot.',
  compile(value, all) {
    const pivot = (all.contrastPivot as number | undefined) ?? 0.18;
    if (value === 1) return null;
    const power = powerQuickly(value);
    const scale = pivot ** (1 - value);
    return (values, n) => {
      for (let i = 0; i < n; i++) {
        const x = values[i]!;
        if (x > 0) values[i] = scale * power(x);
        else if (x < 0) values[i] = -scale * power(-x);
      }
    };
  },
};

const contrastPivot: SettingDefinition<number> = {
  id: 'contrastPivot',
  title: 'Contrast pivot',
  family: 'light',
  class: 'point',
  unit: 'linear value',
  range: '0.01…1',
  neutral: 0.18,
  check: numberIn(0.01, 1),
  stage: 'linear',
  formula: 'The linear value that contrast leaves where it is; without effect of its own.',
  compile: () => null,
};

/** Slope, offset and power in one operation, so that the three settings act in the order of the ASC CDL. */
const cdl =
  (slope: number[], offset: number[], power: number[]): Operation =>
  (values, n) => {
    for (let i = 0; i < n; i++) {
      const c = i % 3;
      const x = values[i]! * slope[c]! + offset[c]!;
      const p = power[c]!;
      values[i] = p === 1 ? x : Math.sign(x) * Math.pow(Math.abs(x), p);
    }
  };
const ones = [1, 1, 1];
const zeros = [0, 0, 0];
const same = (a: number[], b: number[]): boolean => a.every((v, i) => v === b[i]);

const slope: SettingDefinition<number[]> = {
  id: 'slope',
  title: 'Slope',
  family: 'matrix',
  class: 'point',
  unit: 'factor by channel',
  range: '0…8',
  neutral: ones,
  check: triple(0, 8),
  stage: 'encoded',
  formula:
    'Encoded, by channel: `v ← (v · slope + offset)^power`, the power odd-symmetric. One operation does slope, offset and power.',
  compile(value, all) {
    const offset = (all.offset as number[] | undefined) ?? zeros;
    const point = (all.power as number[] | undefined) ?? ones;
    return same(value, ones) && same(offset, zeros) && same(point, ones) ? null : cdl(value, offset, point);
  },
};
const offset: SettingDefinition<number[]> = {
  id: 'offset',
  title: 'Offset',
  family: 'matrix',
  class: 'point',
  unit: 'code value by channel',
  range: '-1…1',
  neutral: zeros,
  check: triple(-1, 1),
  stage: 'encoded',
  formula: 'Part of the slope operation, see there.',
  compile: (value, all) => (all.slope ? null : slope.compile!(ones, { ...all, offset: value })),
};
const power: SettingDefinition<number[]> = {
  id: 'power',
  title: 'Power',
  family: 'matrix',
  class: 'point',
  unit: 'exponent by channel',
  range: '0.1…8',
  neutral: ones,
  check: triple(0.1, 8),
  stage: 'encoded',
  formula: 'Part of the slope operation, see there.',
  compile: (value, all) => (all.slope || all.offset ? null : slope.compile!(ones, { ...all, power: value })),
};

const blackPoint: SettingDefinition<number> = {
  id: 'blackPoint',
  title: 'Black point',
  family: 'light',
  class: 'point',
  unit: 'code value',
  range: '-0.5…0.45',
  neutral: 0,
  check: numberIn(-0.5, 0.45),
  stage: 'encoded',
  formula:
    'Encoded, by channel: `v ← (v - blackPoint) / (whitePoint - blackPoint)`. One operation does black and white point.',
  compile(value, all) {
    const w = (all.whitePoint as number | undefined) ?? 1;
    if (value === 0 && w === 1) return null;
    return (values, n) => {
      for (let i = 0; i < n; i++) values[i] = (values[i]! - value) / (w - value);
    };
  },
};
const whitePoint: SettingDefinition<number> = {
  id: 'whitePoint',
  title: 'White point',
  family: 'light',
  class: 'point',
  unit: 'code value',
  range: '0.55…2',
  neutral: 1,
  check: numberIn(0.55, 2),
  stage: 'encoded',
  formula: 'Part of the black point operation, see there.',
  compile: (value, all) => (all.blackPoint ? null : blackPoint.compile!(0, { ...all, whitePoint: value })),
};

const toe: SettingDefinition<number> = {
  id: 'toe',
  title: 'Toe',
  family: 'light',
  class: 'point',
  unit: '%',
  range: '-100…100',
  neutral: 0,
  check: numberIn(-100, 100),
  stage: 'encoded',
  formula:
    'Encoded, by channel, only where 0 < v < 1: `v ← v + 0.008 · toe · v · (1 - v)⁴`. Positive opens the shadows.',
  compile(value) {
    const k = 0.008 * value;
    if (value === 0) return null;
    return (values, n) => {
      for (let i = 0; i < n; i++) {
        const x = values[i]!;
        if (x > 0 && x < 1) values[i] = x + k * x * quartic(1 - x);
      }
    };
  },
};
const shoulder: SettingDefinition<number> = {
  id: 'shoulder',
  title: 'Shoulder',
  family: 'light',
  class: 'point',
  unit: '%',
  range: '-100…100',
  neutral: 0,
  check: numberIn(-100, 100),
  stage: 'encoded',
  formula:
    'Encoded, by channel, only where 0 < v < 1: `v ← v + 0.008 · shoulder · (1 - v) · v⁴`. Positive lifts the highlights.',
  compile(value) {
    const k = 0.008 * value;
    if (value === 0) return null;
    return (values, n) => {
      for (let i = 0; i < n; i++) {
        const x = values[i]!;
        if (x > 0 && x < 1) values[i] = x + k * (1 - x) * quartic(x);
      }
    };
  },
};

const straight: CurvePoints = [
  [0, 0],
  [1, 1],
];
const curve = (id: string, title: string, channel: number | null): SettingDefinition<CurvePoints> => ({
  id,
  title,
  family: 'curve',
  class: 'point',
  unit: 'code values',
  range: '2 to 64 points from -1 to 4',
  neutral: straight,
  check: curvePoints,
  stage: 'encoded',
  formula: `Encoded, ${channel === null ? 'all channels' : `channel ${['red', 'green', 'blue'][channel]}`}: a monotone cubic through the points (Fritsch–Carlson, starting from the mean of the neighbouring slopes), continued straight beyond its ends.`,
  compile(value) {
    if (value.every(([x, y]) => x === y)) return null;
    const curve = monotoneCurve(value);
    const first = channel ?? 0;
    const step = channel === null ? 1 : 3;
    return (values, n) => {
      for (let i = first; i < n; i += step) values[i] = curve(values[i]!);
    };
  },
});

const hueSectors: SettingDefinition<Sector[]> = {
  id: 'hueSectors',
  title: 'Hue sectors',
  family: 'color',
  class: 'point',
  unit: 'degrees of OKLab hue; factor; OKLab lightness',
  range: 'up to 24 sectors: center 0…360, width 1…360, turn -180…180, chroma 0…4, lightness -0.5…0.5',
  neutral: [],
  stage: 'oklab',
  check(value) {
    if (!Array.isArray(value) || value.length > 24) return 'must be a list of up to 24 sectors';
    for (const [i, sector] of (value as Partial<Sector>[]).entries()) {
      const bad =
        numberIn(0, 360)(sector.center) ??
        numberIn(1, 360)(sector.width) ??
        numberIn(-180, 180)(sector.turn) ??
        numberIn(0, 4)(sector.chroma) ??
        numberIn(-0.5, 0.5)(sector.lightness);
      if (bad) return `sector ${i + 1}: a value ${bad}`;
    }
    return null;
  },
  formula:
    'OKLab; h and C from a and b. Each sector weighs `w = ½ + ½·cos(2π·d / width)`, d the distance of h from its center, 0 where d ≥ width/2. All sectors look at the same h and C and act at once: `h ← h + Σ w·turn`, `C ← C · Π (1 + w·(chroma - 1))`, `L ← L + Σ w·lightness · min(1, C / 0.1)`, C the value before.',
  compile(value) {
    const live = value.filter((s) => s.turn !== 0 || s.chroma !== 1 || s.lightness !== 0);
    if (!live.length) return null;
    // a hue's angle is dear: it is taken only where the direction shows that some sector is near
    const near = live.map((sector) => ({
      x: Math.cos((sector.center * Math.PI) / 180),
      y: Math.sin((sector.center * Math.PI) / 180),
      least: sector.width >= 360 ? -2 : Math.cos((sector.width * Math.PI) / 360) - 1e-9,
    }));
    return (values, count) => {
      for (let i = 0; i < count; i += 3) {
        const a = values[i + 1]!;
        const b = values[i + 2]!;
        const c = Math.sqrt(a * a + b * b);
        if (c < 1e-9) continue;
        let some = false;
        for (let k = 0; k < near.length; k++) {
          const neighbor = near[k]!;
          if (neighbor.x * a + neighbor.y * b > neighbor.least * c) {
            some = true;
            break;
          }
        }
        if (!some) continue;
        const h = degrees(a, b);
        const share = Math.min(1, c / 0.1);
        let turn = 0;
        let gain = 1;
        let light = 0;
        for (let k = 0; k < live.length; k++) {
          const sector = live[k]!;
          const w = sectorWeight(h, sector.center, sector.width);
          if (w === 0) continue;
          turn += w * sector.turn;
          gain *= 1 + w * (sector.chroma - 1);
          light += w * sector.lightness;
        }
        const cos = gain * Math.cos((turn * Math.PI) / 180);
        const sin = gain * Math.sin((turn * Math.PI) / 180);
        values[i]! += light * share;
        values[i + 1] = a * cos - b * sin;
        values[i + 2] = a * sin + b * cos;
      }
    };
  },
};

const lowChroma: SettingDefinition<number> = {
  id: 'lowChroma',
  title: 'Low-chroma gain',
  family: 'color',
  class: 'point',
  unit: '%',
  range: '-100…100',
  neutral: 0,
  check: numberIn(-100, 100),
  stage: 'oklab',
  formula: 'OKLab: `C ← C · (1 + lowChroma/100 · exp(-C / 0.08))`; pale colors gain most.',
  compile(value) {
    return value === 0
      ? null
      : (values, n) => {
          for (let i = 0; i < n; i += 3) {
            const a = values[i + 1]!;
            const b = values[i + 2]!;
            const k = 1 + (value / 100) * Math.exp(-Math.sqrt(a * a + b * b) / 0.08);
            values[i + 1] = a * k;
            values[i + 2] = b * k;
          }
        };
  },
};
const chroma: SettingDefinition<number> = {
  id: 'chroma',
  title: 'Chroma gain',
  family: 'color',
  class: 'point',
  unit: 'factor',
  range: '0…4',
  neutral: 1,
  check: numberIn(0, 4),
  stage: 'oklab',
  formula: 'OKLab: `C ← C · chroma`.',
  compile(value) {
    return value === 1
      ? null
      : (values, n) => {
          for (let i = 0; i < n; i += 3) {
            values[i + 1]! *= value;
            values[i + 2]! *= value;
          }
        };
  },
};

const monochrome: SettingDefinition<GrayMix | null> = {
  id: 'monochrome',
  title: 'Monochrome mix',
  family: 'monochrome',
  class: 'point',
  unit: 'OKLab lightness by hue',
  range: 'null, or up to 24 sectors: center 0…360, width 1…360, lightness -0.5…0.5',
  neutral: null,
  stage: 'oklab',
  check(value) {
    if (value === null) return null;
    const mix = value as GrayMix;
    if (typeof mix !== 'object' || !Array.isArray(mix.sectors) || mix.sectors.length > 24)
      return 'must be null or a list of up to 24 sectors';
    for (const sector of mix.sectors) {
      const bad =
        numberIn(0, 360)(sector.center) ?? numberIn(1, 360)(sector.width) ?? numberIn(-0.5, 0.5)(sector.lightness);
      if (bad) return `a value ${bad}`;
    }
    return null;
  },
  formula:
    'OKLab, when present: `L ← L + Σ w·lightness · min(1, C / 0.1)` with the weights of the hue sectors, then `a = b = 0`.',
  compile(value) {
    if (!value) return null;
    return (values, n) => {
      for (let i = 0; i < n; i += 3) {
        const a = values[i + 1]!;
        const b = values[i + 2]!;
        const c = Math.sqrt(a * a + b * b);
        if (c > 1e-9) {
          const h = degrees(a, b);
          let add = 0;
          for (const s of value.sectors) add += sectorWeight(h, s.center, s.width) * s.lightness;
          values[i]! += add * Math.min(1, c / 0.1);
        }
        values[i + 1] = 0;
        values[i + 2] = 0;
      }
    };
  },
};

const hold = (x: number): number => {
  if (x < 0) return 0;
  if (x > 1) return 1;
  return x;
};
const tint = (id: string, title: string, weight: (L: number) => number, words: string): SettingDefinition<Tint> => ({
  id,
  title,
  family: 'color',
  class: 'point',
  unit: 'degrees of OKLab hue; OKLab chroma',
  range: 'hue 0…360, amount 0…0.3',
  neutral: { hue: 0, amount: 0 },
  stage: 'oklab',
  check(value) {
    const tint = value as Partial<Tint> | null;
    return !tint || typeof tint !== 'object'
      ? 'must have a hue and an amount'
      : (numberIn(0, 360)(tint.hue) ?? numberIn(0, 0.3)(tint.amount));
  },
  formula: `OKLab: \`a ← a + w·amount·cos(hue)\`, \`b ← b + w·amount·sin(hue)\` with ${words}, L held to 0…1.`,
  compile(value) {
    const a = value.amount * Math.cos((value.hue * Math.PI) / 180);
    const b = value.amount * Math.sin((value.hue * Math.PI) / 180);
    return value.amount === 0
      ? null
      : (values, n) => {
          for (let i = 0; i < n; i += 3) {
            const w = weight(hold(values[i]!));
            values[i + 1]! += w * a;
            values[i + 2]! += w * b;
          }
        };
  },
});

export const pointSettings: SettingDefinition<never>[] = [
  warmth,
  tintShift,
  level,
  matrix,
  contrast,
  contrastPivot,
  slope,
  offset,
  power,
  blackPoint,
  whitePoint,
  toe,
  shoulder,
  curve('curve', 'Curve', null),
  curve('curveRed', 'Red curve', 0),
  curve('curveGreen', 'Green curve', 1),
  curve('curveBlue', 'Blue curve', 2),
  hueSectors,
  lowChroma,
  chroma,
  monochrome,
  tint(
    'tintDark',
    'Tint of the shadows',
    (L) => (1 - L) * (1 - L) * Math.min(1, L * 8),
    '`w = (1 - L)² · min(1, 8·L)`',
  ),
  tint('tintMiddle', 'Tint of the middle tones', (L) => 4 * L * (1 - L), '`w = 4·L·(1 - L)`'),
  tint('tintLight', 'Tint of the highlights', (L) => L * L * Math.min(1, (1 - L) * 8), '`w = L² · min(1, 8·(1 - L))`'),
] as unknown as SettingDefinition<never>[];
