/** What is said under a cell of the bench, and the map of differences. Pictures are RGBA, sRGB, 8 bits. */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { kernel } from '../look/kernel/kernel';

export interface CellFigures {
  /** percent of pixels with a channel at either end */ clippedHigh: number;
  clippedLow: number;
  /** distinct luminances among the darkest 32 that the picture has */ shadows: number;
  /** mean color of what is neutral before any look: chroma C* and hue in degrees, null where nothing is */ tint: {
    chroma: number;
    hue: number;
  } | null;
}

type Pixels = Uint8Array | Uint8ClampedArray;
const decoded = new Float64Array(256).map((_, i) => i / 255);

/** How many pixels are at either end, and the luminances that there are: the kernel's reference and stand-in. */
export function endsPlain(pixels: Pixels): { high: number; low: number; seen: Uint8Array } {
  const seen = new Uint8Array(256);
  let high = 0;
  let low = 0;
  for (let i = 0; i < pixels.length; i += 4) {
    const r = pixels[i]!;
    const g = pixels[i + 1]!;
    const b = pixels[i + 2]!;
    if (r === 255 || g === 255 || b === 255) high++;
    if (r === 0 || g === 0 || b === 0) low++;
    seen[Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b)] = 1;
  }
  return { high, low, seen };
}

/** `base` is the same picture without a look; neutrals are told by it. */
export function figuresOf(pixels: Pixels, base: Pixels): CellFigures {
  const count = pixels.length / 4;
  const { high, low, seen } = kernel()?.ends(pixels) ?? endsPlain(pixels);
  const lab = new Float64Array(3);
  let a = 0;
  let b = 0;
  let neutrals = 0;
  const step = Math.max(1, Math.floor(count / 2500)) * 4;
  for (let i = 0; i < pixels.length; i += step) {
    labOfSrgb(decoded[base[i]!]!, decoded[base[i + 1]!]!, decoded[base[i + 2]!]!, lab);
    if (lab[0]! < 15 || lab[0]! > 95 || Math.hypot(lab[1]!, lab[2]!) > 4) continue;
    labOfSrgb(decoded[pixels[i]!]!, decoded[pixels[i + 1]!]!, decoded[pixels[i + 2]!]!, lab);
    a += lab[1]!;
    b += lab[2]!;
    neutrals++;
  }
  let shadows = 0;
  for (let i = 0; i < 32; i++) shadows += seen[i]!;
  return {
    clippedHigh: (100 * high) / count,
    clippedLow: (100 * low) / count,
    shadows,
    tint:
      neutrals >= 20
        ? { chroma: Math.hypot(a / neutrals, b / neutrals), hue: ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360 }
        : null,
  };
}

export interface Difference {
  mean: number;
  p95: number;
  max: number;
}
/** Full color of the map: this many ΔE00 and more. */
export const MAP_TOP = 12;
/** The map's scale, from none to most: dark gray over blue-green to pale yellow, lighter all the way. */
const scale: [number, number, number][] = [
  [38, 38, 38],
  [32, 72, 84],
  [24, 116, 112],
  [74, 162, 104],
  [170, 200, 92],
  [250, 236, 140],
];
export function mapColor(deltaE: number): [number, number, number] {
  const x = Math.min(1, Math.max(0, deltaE / MAP_TOP)) * (scale.length - 1);
  const i = Math.min(scale.length - 2, Math.floor(x));
  const f = x - i;
  return [0, 1, 2].map((c) => Math.round(scale[i]![c]! + f * (scale[i + 1]![c]! - scale[i]![c]!))) as [
    number,
    number,
    number,
  ];
}

/** ΔE00 by pixel as a picture, with its figures. Both pictures of one size. */
export function differenceMap(one: Pixels, other: Pixels, target: Uint8ClampedArray): Difference {
  const count = one.length / 4;
  const lab = new Float64Array(6);
  const all = new Float32Array(count);
  const colors = Array.from({ length: 256 }, (_, i) => mapColor((i / 255) * MAP_TOP));
  let sum = 0;
  let lastKey = -1;
  let lastKey2 = -1;
  let last = 0;
  for (let i = 0, k = 0; k < count; i += 4, k++) {
    const key = (one[i]! << 16) | (one[i + 1]! << 8) | one[i + 2]!;
    const key2 = (other[i]! << 16) | (other[i + 1]! << 8) | other[i + 2]!;
    if (key !== lastKey || key2 !== lastKey2) {
      if (key === key2) last = 0;
      else {
        labOfSrgb(decoded[one[i]!]!, decoded[one[i + 1]!]!, decoded[one[i + 2]!]!, lab, 0);
        labOfSrgb(decoded[other[i]!]!, decoded[other[i + 1]!]!, decoded[other[i + 2]!]!, lab, 3);
        last = deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!);
      }
      lastKey = key;
      lastKey2 = key2;
    }
    all[k] = last;
    sum += last;
    const color = colors[Math.min(255, Math.round((last / MAP_TOP) * 255))]!;
    target[i] = color[0];
    target[i + 1] = color[1];
    target[i + 2] = color[2];
    target[i + 3] = 255;
  }
  const sorted = all.sort();
  return { mean: sum / count, p95: sorted[Math.max(0, Math.ceil(count * 0.95) - 1)]!, max: sorted[count - 1]! };
}

/** Slope, offset and power by channel, on encoded values, as 256 answers a channel (ASC CDL without saturation). */
export interface Trim {
  slope: [number, number, number];
  offset: [number, number, number];
  power: [number, number, number];
}
export const noTrim: Trim = { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] };
/** One code value 0…1 of a channel (0 red, 1 green, 2 blue), trimmed: (value · slope + offset) ^ power, held to 0…1. */
export const trimmed = (value: number, { slope, offset, power }: Trim, channel: 0 | 1 | 2): number =>
  Math.min(1, Math.max(0, value * slope[channel] + offset[channel])) ** power[channel];

export function applyTrim(pixels: Uint8ClampedArray, trim: Trim): void {
  const table = ([0, 1, 2] as const).map((c) =>
    Uint8ClampedArray.from({ length: 256 }, (_, i) => 255 * trimmed(i / 255, trim, c)),
  );
  for (let i = 0; i < pixels.length; i += 4) {
    pixels[i] = table[0]![pixels[i]!]!;
    pixels[i + 1] = table[1]![pixels[i + 1]!]!;
    pixels[i + 2] = table[2]![pixels[i + 2]!]!;
  }
}
