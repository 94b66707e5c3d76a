/** Shapes shared by the common settings: their classes, values and definitions. */
import type { CurvePoints } from './curve';

export type SettingClass = 'point' | 'raw' | 'local' | 'position' | 'geometry' | 'reference';

export interface Sector {
  center: number;
  width: number;
  turn: number;
  chroma: number;
  lightness: number;
}
export interface Tint {
  hue: number;
  amount: number;
}
export interface GrayMix {
  sectors: { center: number; width: number; lightness: number }[];
}
export interface LookReference {
  name: string;
  strength: number;
}

/** Values by setting id; what is absent is at its default. */
export type Settings = Record<string, unknown>;

/** In which values an operation works: linear sRGB, sRGB-encoded, or OKLab (L, a, b). */
export type Stage = 'linear' | 'encoded' | 'oklab';
/** Acts in place on the first `n` numbers of `v`: interleaved triples, so that its loop stays its own and quick. */
export type Operation = (v: Float64Array, n: number) => void;

/** All that the rest of the program needs to know of a setting. */
export interface SettingDefinition<T = unknown> {
  id: string;
  title: string;
  /** Family under which screens list it. */
  family: 'light' | 'white' | 'curve' | 'color' | 'monochrome' | 'matrix' | 'detail' | 'optics' | 'frame' | 'reference';
  class: SettingClass;
  unit: string;
  range: string;
  /** What leaves the picture as it is. */
  neutral: T;
  /** The definition in words and formula, for docs/common-settings.md. */
  formula: string;
  /** A sentence for each fault, or null. */
  check(value: unknown): string | null;
  stage?: Stage;
  /** The operation at a value, or null where the value changes nothing. `all` are the preset's other settings. */
  compile?(value: T, all: Settings): Operation | null;
}

export const numberIn =
  (low: number, high: number) =>
  (value: unknown): string | null =>
    typeof value === 'number' && value >= low && value <= high ? null : `must be a number from ${low} to ${high}`;

export const triple =
  (low: number, high: number) =>
  (value: unknown): string | null =>
    Array.isArray(value) && value.length === 3 && value.every((n) => typeof n === 'number' && n >= low && n <= high)
      ? null
      : `must be three numbers from ${low} to ${high}`;

export function curvePoints(value: unknown): string | null {
  const points = value as CurvePoints;
  if (!Array.isArray(points) || points.length < 2 || points.length > 64) return 'must be 2 to 64 points';
  for (let i = 0; i < points.length; i++) {
    if (
      !Array.isArray(points[i]) ||
      points[i]!.length !== 2 ||
      points[i]!.some((n) => typeof n !== 'number' || !Number.isFinite(n) || n < -1 || n > 4)
    )
      return `point ${i + 1} must be two numbers from -1 to 4`;
    if (i && points[i]![0] - points[i - 1]![0] < 1e-6) return `point ${i + 1} does not lie right of the one before it`;
  }
  return null;
}
