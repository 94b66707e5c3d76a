/**
 * What the presets of the stand-in editors do to a color: each editor has names and scales of its own for these, and works
 * through them in this order. It is written from the papers, by itself, so that a picture of a stand-in is a second opinion.
 */
import { by, code, each, inTurn, inverse, light, product, type Color, type Develop } from './color';
import { line, type Point } from './line';

/** A part of the circle of hues, in degrees of OKLab. */
export interface Sector {
  center: number;
  width: number;
  /** degrees */ turn?: number;
  /** a factor */ chroma?: number;
  /** added to OKLab's lightness */ lightness?: number;
}
/** Color laid over some tones: degrees of OKLab hue, and OKLab chroma. */
export interface Wash {
  hue: number;
  amount: number;
}

/** What is absent changes nothing. */
export interface Adjustments {
  /** reciprocal megakelvins; positive is warmer */ mired?: number;
  /** 1/3000 of CIE 1960 u, v; positive is towards magenta */ magenta?: number;
  stops?: number;
  contrast?: number;
  /** the linear value that contrast leaves where it is */ about?: number;
  slope?: Color;
  offset?: Color;
  power?: Color;
  /** codes that become 0 and 1 */ low?: number;
  high?: number;
  /** hundredths */ foot?: number;
  head?: number;
  curve?: Point[];
  curves?: [red?: Point[], green?: Point[], blue?: Point[]];
  sectors?: Sector[];
  /** hundredths, of pale colors most */ pale?: number;
  chroma?: number;
  /** without color, weighed by hue before */ plate?: Sector[];
  deep?: Wash;
  middle?: Wash;
  bright?: Wash;
  /** stops in the corners of the picture */ corners?: number;
}

const BRADFORD = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];
/** XYZ of sRGB, by the chromaticities of its primaries and its white (IEC 61966-2-1). */
const TO_XYZ = ((): number[] => {
  const columns = [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
  ].map(([x = 0, y = 0]) => [x, y, 1 - x - y]);
  const rows = [0, 1, 2].flatMap((row) => columns.map((column) => column[row]!));
  const share: Color = [0.3127 / 0.329, 1, (1 - 0.3127 - 0.329) / 0.329];
  by(inverse(rows))(share);
  return rows.map((value, i) => value * share[i % 3]!);
})();

/** Of a black body, in CIE 1960: M. Krystek, Color Research and Application 10 (1985). */
const blackBody = (kelvin: number): [number, number] => [
  (0.860117757 + 1.54118254e-4 * kelvin + 1.28641212e-7 * kelvin ** 2) /
    (1 + 8.42420235e-4 * kelvin + 7.08145163e-7 * kelvin ** 2),
  (0.317398726 + 4.22806245e-5 * kelvin + 4.20481691e-8 * kelvin ** 2) /
    (1 - 2.89741816e-5 * kelvin + 1.61456053e-7 * kelvin ** 2),
];

/** XYZ of a white that lies beside the locus of black bodies, towards magenta. */
function whiteOf(mired: number, magenta: number): Color {
  const kelvin = 1e6 / (1e6 / 6504 + mired);
  const [[u, v], [coolerU, coolerV], [hotterU, hotterV]] = [1, 0.999, 1.001].map((times) =>
    blackBody(kelvin * times),
  ) as [Point, Point, Point];
  const [alongU, alongV] = [hotterU - coolerU, hotterV - coolerV];
  const step = magenta / 3000 / Math.hypot(alongU, alongV);
  // at a right angle to the locus, where v falls; u and v both fall as it gets hotter
  const [atU, atV] = [u - alongV * step, v + alongU * step];
  const [x, y] = [3 * atU, 2 * atV].map((value) => value / (2 * atU - 8 * atV + 4)) as Point;
  return [x / y, 1, (1 - x - y) / y];
}

function warm({ mired = 0, magenta = 0 }: Adjustments): Develop | null {
  if (!mired && !magenta) return null;
  const [from, to] = [whiteOf(0, 0), whiteOf(mired, magenta)];
  for (const white of [from, to]) by(BRADFORD)(white);
  const scale = [to[0] / from[0], 0, 0, 0, to[1] / from[1], 0, 0, 0, to[2] / from[2]];
  const adapt = product(inverse(BRADFORD), product(scale, BRADFORD));
  return by(product(inverse(TO_XYZ), product(adapt, TO_XYZ)));
}

/** A power that mirrors what lies below zero. */
const power = (value: number, exponent: number): number => Math.sign(value) * Math.abs(value) ** exponent;

const expose = ({ stops = 0 }: Adjustments): Develop | null => (stops ? each((value) => value * 2 ** stops) : null);

const spread = ({ contrast = 1, about = 0.18 }: Adjustments): Develop | null =>
  contrast === 1 ? null : each((value) => about * power(value / about, contrast));

function grade({ slope = [1, 1, 1], offset = [0, 0, 0], power: bend = [1, 1, 1] }: Adjustments): Develop | null {
  if ([...slope, ...bend].every((value) => value === 1) && offset.every((value) => value === 0)) return null;
  return (color) => {
    for (let c = 0; c < 3; c++) color[c] = power(color[c]! * slope[c]! + offset[c]!, bend[c]!);
  };
}

const ends = ({ low = 0, high = 1 }: Adjustments): Develop | null =>
  low === 0 && high === 1 ? null : each((value) => (value - low) / (high - low));

const within = (change: (value: number) => number): Develop =>
  each((value) => (value > 0 && value < 1 ? change(value) : value));
const foot = ({ foot: by = 0 }: Adjustments): Develop | null =>
  by ? within((value) => value + 0.008 * by * value * (1 - value) ** 4) : null;
const head = ({ head: by = 0 }: Adjustments): Develop | null =>
  by ? within((value) => value + 0.008 * by * (1 - value) * value ** 4) : null;

const wholeCurve = ({ curve }: Adjustments): Develop | null => (curve ? each(line(curve)) : null);
function ownCurves({ curves }: Adjustments): Develop | null {
  if (!curves?.some((one) => one)) return null;
  const lines = [0, 1, 2].map((c) => (curves[c] ? line(curves[c]) : (value: number) => value));
  return (color) => {
    for (let c = 0; c < 3; c++) color[c] = lines[c]!(color[c]!);
  };
}

/** B. Ottosson, "A perceptual color space for image processing" (2020). */
const CONES = [
  0.4122214708, 0.5363325363, 0.0514459929, 0.2119034982, 0.6806995451, 0.1073969566, 0.0883024619, 0.2817188376,
  0.6299787005,
];
const LAB = [
  0.2104542553, 0.793617785, -0.0040720468, 1.9779984951, -2.428592205, 0.4505937099, 0.0259040371, 0.7827717662,
  -0.808675766,
];
const intoLab: Develop[] = [by(CONES), each(Math.cbrt), by(LAB)];
const outOfLab: Develop[] = [by(inverse(LAB)), each((value) => value ** 3), by(inverse(CONES))];

const DEGREE = Math.PI / 180;

/** How much a hue lies in a sector: all of it in the middle, nothing at its ends. */
function share({ center, width }: Sector, hue: number): number {
  const apart = Math.abs(((((hue - center) % 360) + 540) % 360) - 180);
  return apart < width / 2 ? (1 + Math.cos((360 * DEGREE * apart) / width)) / 2 : 0;
}

/** Gray has no hue that a sector could lift. */
const strongEnough = (chroma: number): number => Math.min(1, chroma / 0.1);
const hueOf = ([, a, b]: Color): number => Math.atan2(b, a) / DEGREE;

function turned({ sectors }: Adjustments): Develop | null {
  if (!sectors?.length) return null;
  return (color) => {
    const chroma = Math.hypot(color[1], color[2]);
    const hue = hueOf(color);
    let [newHue, newChroma] = [hue, chroma];
    for (const sector of sectors) {
      const weight = share(sector, hue);
      newHue += weight * (sector.turn ?? 0);
      newChroma *= 1 + weight * ((sector.chroma ?? 1) - 1);
      color[0] += weight * (sector.lightness ?? 0) * strongEnough(chroma);
    }
    color[1] = newChroma * Math.cos(newHue * DEGREE);
    color[2] = newChroma * Math.sin(newHue * DEGREE);
  };
}

const richer =
  (factor: (chroma: number) => number): Develop =>
  (color) => {
    const times = factor(Math.hypot(color[1], color[2]));
    color[1] *= times;
    color[2] *= times;
  };
const pale = ({ pale: by = 0 }: Adjustments): Develop | null =>
  by ? richer((chroma) => 1 + (by / 100) * Math.exp(-chroma / 0.08)) : null;
const rich = ({ chroma = 1 }: Adjustments): Develop | null => (chroma === 1 ? null : richer(() => chroma));

function plate({ plate: sectors }: Adjustments): Develop | null {
  if (!sectors) return null;
  return (color) => {
    const chroma = Math.hypot(color[1], color[2]);
    const hue = hueOf(color);
    for (const sector of sectors) color[0] += share(sector, hue) * (sector.lightness ?? 0) * strongEnough(chroma);
    color[1] = 0;
    color[2] = 0;
  };
}

const washed =
  (where: 'deep' | 'middle' | 'bright', weightAt: (lightness: number) => number) =>
  (adjustments: Adjustments): Develop | null => {
    const wash = adjustments[where];
    if (!wash?.amount) return null;
    const [a, b] = [Math.cos(wash.hue * DEGREE) * wash.amount, Math.sin(wash.hue * DEGREE) * wash.amount];
    return (color) => {
      const weight = weightAt(Math.min(1, Math.max(0, color[0])));
      color[1] += weight * a;
      color[2] += weight * b;
    };
  };

type Part = (adjustments: Adjustments) => Develop | null;
const inLight: Part[] = [warm, expose, spread];
const inCodes: Part[] = [grade, ends, foot, head, wholeCurve, ownCurves];
const inLab: Part[] = [
  turned,
  pale,
  rich,
  plate,
  washed('deep', (l) => (1 - l) ** 2 * Math.min(1, 8 * l)),
  washed('middle', (l) => 4 * l * (1 - l)),
  washed('bright', (l) => l ** 2 * Math.min(1, 8 * (1 - l))),
];

/** All that a preset adjusts, on sRGB codes; nothing is held to 0 and 1 on the way. */
export function adjust(adjustments: Adjustments): Develop {
  const of = (parts: readonly Part[]): Develop[] =>
    parts.flatMap((part) => {
      const develop = part(adjustments);
      return develop ? [develop] : [];
    });
  const [lit, coded, lab] = [of(inLight), of(inCodes), of(inLab)];
  return inTurn(
    ...(lit.length ? [each(light), ...lit, each(code)] : []),
    ...coded,
    ...(lab.length ? [each(light), ...intoLab, ...lab, ...outOfLab, each(code)] : []),
  );
}
