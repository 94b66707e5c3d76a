/** Presets of Tessel, as they stand in its bundle: parts with numbers, and lists of shards and stains. */
import type { Adjustments, Sector } from '../adjust';
import type { Color } from '../color';
import type { Point } from '../line';

export type Entry = Record<string, unknown>;
export const isObject = (value: unknown): value is Entry =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const part = (of: Entry, name: string): Entry => (isObject(of[name]) ? of[name] : {});
const list = (of: Entry, name: string): Entry[] => {
  const found = of[name];
  return Array.isArray(found) ? found.filter(isObject) : [];
};

function number(of: Entry, key: string, without: number): number {
  const value = of[key];
  if (value === undefined) return without;
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new Error(`${key} is no number`);
  return value;
}

/** Codes of ten bits. */
function points(of: Entry, key: string): Point[] | undefined {
  const found = of[key];
  if (found === undefined) return undefined;
  const isPoint = (one: unknown): one is Point =>
    Array.isArray(one) && one.length === 2 && one.every((value) => Number.isFinite(value));
  if (!Array.isArray(found) || !found.every(isPoint)) throw new Error(`the ramp ${key} is no list of points`);
  return found.map(([x, y]) => [x / 1023, y / 1023]);
}

/** How much the stretch of the lights is, from -100 by 0 to 100. */
function stretched(by: number): number {
  const held = Math.min(100, Math.max(-100, by));
  return held < 0 ? 1 + held / 200 : 1 + (1.5 * held) / 100;
}

const shard = (of: Entry): Sector => ({
  center: 360 * number(of, 'at', 0),
  width: 360 * number(of, 'reach', 0.2),
  turn: 360 * number(of, 'swing', 0),
  chroma: 1 + number(of, 'depth', 0) / 200,
  lightness: -number(of, 'light', 0) / 100,
});

const tones: ReadonlyMap<unknown, 'deep' | 'middle' | 'bright'> = new Map([
  ['shade', 'deep'],
  ['middle', 'middle'],
  ['light', 'bright'],
]);

function stains(entry: Entry): Adjustments {
  const out: Adjustments = {};
  for (const stain of list(entry, 'stain')) {
    const tone = tones.get(stain.over);
    if (tone) out[tone] = { hue: 360 * number(stain, 'hue', 0), amount: number(stain, 'load', 0) / 500 };
  }
  return out;
}

const threefold = (of: Entry, name: string, without: number): Color => [
  number(of, `${name}Red`, without),
  number(of, `${name}Green`, without),
  number(of, `${name}Blue`, without),
];

/** Throws where a part holds what it cannot. */
export function adjustmentsIn(entry: Entry): Adjustments {
  const [daylight, ends, ramp, glass, pour] = ['daylight', 'ends', 'ramp', 'glass', 'pour'].map((name) =>
    part(entry, name),
  ) as [Entry, Entry, Entry, Entry, Entry];
  const bed = threefold(pour, 'bed', 0);
  return {
    stops: number(daylight, 'bright', 0) / 100,
    contrast: stretched(number(daylight, 'stretch', 0)),
    about: number(daylight, 'anchor', 18) / 100,
    low: number(ends, 'dark', 0) / 1000,
    high: number(ends, 'pale', 1000) / 1000,
    curve: points(ramp, 'all'),
    curves: [points(ramp, 'red'), points(ramp, 'green'), points(ramp, 'blue')],
    chroma: 1 + number(glass, 'depth', 0) / 200,
    pale: -number(glass, 'mute', 0),
    mired: 2 * number(glass, 'amber', 0),
    magenta: -number(glass, 'green', 0),
    slope: threefold(pour, 'gain', 1),
    offset: [bed[0] / 100, bed[1] / 100, bed[2] / 100],
    power: threefold(pour, 'bend', 1),
    sectors: list(entry, 'shards').map(shard),
    plate: entry.ink === 'plain' ? [] : undefined,
    corners: -number(part(entry, 'surface'), 'rim', 0) / 25,
    ...stains(entry),
  };
}
