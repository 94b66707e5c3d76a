/**
 * What stands in for a setting that another editor's language lacks, as a list of rules. Each says which settings it takes
 * away and which it puts in their place; how near that comes is measured afterwards, not claimed here.
 */
import { leastSquares } from '../least-squares';
import { monotoneCurve, type CurvePoints } from './curve';
import type { GrayMix, Sector, Settings } from './kinds';
import type { Mapping, MappingEntry } from './mapping';
import { sectorWeight, warmthMatrix } from './point-settings';
import { compile } from './render';
import { isNeutral } from './settings';

export interface Substitute {
  /** the settings that it is for, which are taken away */ instead: string[];
  /** what is put in their place */ settings: Settings;
  reason: string;
}

/** What a rule may ask of the language that is written. */
export interface Target {
  mapping: Mapping;
  title: string;
  can(setting: string, value: unknown): boolean;
}

/** @param lacking settings of the preset that the language cannot say as they are */
type Rule = (settings: Settings, lacking: ReadonlySet<string>, target: Target) => Substitute | null;

const present = (settings: Settings, id: string): boolean => settings[id] !== undefined && !isNeutral(id, settings[id]);

/** White is shifted by a linear matrix, so that a language with matrices loses nothing. */
const shiftAsMatrix: Rule = (settings, lacking, target) => {
  const instead = ['warmth', 'tintShift'].filter((id) => lacking.has(id));
  if (!instead.length || present(settings, 'matrix')) return null;
  const matrix = warmthMatrix(
    lacking.has('warmth') ? ((settings.warmth as number | undefined) ?? 0) : 0,
    lacking.has('tintShift') ? ((settings.tintShift as number | undefined) ?? 0) : 0,
  );
  if (!target.can('matrix', matrix)) return null;
  return { instead, settings: { matrix }, reason: `${target.title} shifts white by its matrix` };
};

/** Settings that act on each channel alone, in their order. */
const channelSettings = [
  'level',
  'contrast',
  'contrastPivot',
  'slope',
  'offset',
  'power',
  'blackPoint',
  'whitePoint',
  'toe',
  'shoulder',
  'curve',
  'curveRed',
  'curveGreen',
  'curveBlue',
] as const;
const together: readonly (readonly string[])[] = [
  ['contrast', 'contrastPivot'],
  ['slope', 'offset', 'power'],
  ['blackPoint', 'whitePoint'],
];
const curveOf = ['curveRed', 'curveGreen', 'curveBlue'] as const;

/** A curve may have so many points; more are finer than any editor draws. */
const MOST_POINTS = 25;
/** Where no point of the curve is farther off than this, in code values, more points change nothing that can be seen. */
const NEAR_ENOUGH = 0.0004;
const FINE = 400;

/** Points of a monotone curve that follows a function over 0…1: one more where it is farthest off, until it is near. */
export function pointsAlong(follow: (x: number) => number): CurvePoints {
  const at = (x: number): [number, number] => [x, Math.round(Math.min(4, Math.max(-1, follow(x))) * 1e6) / 1e6];
  const points = [0, 0.25, 0.5, 0.75, 1].map(at);
  while (points.length < MOST_POINTS) {
    const curve = monotoneCurve(points);
    let worst = 0;
    let where = -1;
    for (let i = 1; i < FINE; i++) {
      const off = Math.abs(curve(i / FINE) - follow(i / FINE));
      if (off > worst && !points.some(([x]) => Math.abs(x - i / FINE) < 1e-6)) {
        worst = off;
        where = i / FINE;
      }
    }
    if (worst < NEAR_ENOUGH || where < 0) break;
    points.push(at(where));
    points.sort((a, b) => a[0] - b[0]);
  }
  return points;
}

/** What is folded: all that acts on single channels from the first setting that is lacking on, so that the order stays. */
function foldedFrom(settings: Settings, lacking: ReadonlySet<string>): string[] {
  const first = channelSettings.findIndex((id) => lacking.has(id));
  if (first < 0) return [];
  const group = together.find((ids) => ids.includes(channelSettings[first]!)) ?? [];
  return channelSettings.filter((id, index) => (index >= first || group.includes(id)) && present(settings, id));
}

const toneAsCurves: Rule = (settings, lacking, target) => {
  const instead = foldedFrom(settings, lacking);
  if (!instead.some((id) => lacking.has(id))) return null;
  const evaluate = compile(Object.fromEntries(instead.map((id) => [id, settings[id]])));
  const out = new Float64Array(3);
  const channel = (index: number) => (x: number) => {
    evaluate(x, x, x, out, 0);
    return out[index]!;
  };
  const curves = [0, 1, 2].map((index) => pointsAlong(channel(index)));
  const isOne = curves.every((points) => JSON.stringify(points) === JSON.stringify(curves[0]));
  const put: Settings = isOne ? { curve: curves[0] } : Object.fromEntries(curveOf.map((id, i) => [id, curves[i]]));
  if (!Object.entries(put).every(([id, value]) => target.can(id, value))) return null;
  return { instead, settings: put, reason: `${target.title} has it as ${isOne ? 'a curve' : 'curves by channel'}` };
};

/** The fixed places around the hue circle that a language has sectors at. */
function fixedSectors(mapping: Mapping, to: string): { center: number; width: number }[] {
  const of = (entry: MappingEntry) => ({
    center: Number(entry.constants?.center),
    width: Number(entry.constants?.width),
  });
  return mapping.entries
    .filter((entry) => entry.to === to && entry.list)
    .map(of)
    .filter(({ center, width }) => Number.isFinite(center) && Number.isFinite(width));
}

const HUES = Array.from({ length: 180 }, (_, index) => index * 2);
const clamp = (value: number, low: number, high: number): number =>
  Math.round(Math.min(high, Math.max(low, value)) * 1e4) / 1e4;

/** What the fixed sectors have to do so that their sum comes nearest to a function of the hue. */
function fitted(places: readonly { center: number; width: number }[], follow: (hue: number) => number): number[] {
  const rows = HUES.map((hue) => places.map(({ center, width }) => sectorWeight(hue, center, width)));
  return leastSquares(rows, HUES.map(follow), 1e-6);
}

const sumOver =
  <T extends { center: number; width: number }>(sectors: readonly T[], value: (sector: T) => number) =>
  (hue: number): number =>
    sectors.reduce((sum, sector) => sum + sectorWeight(hue, sector.center, sector.width) * value(sector), 0);

const sectorsAtTheirPlaces: Rule = (settings, lacking, target) => {
  const places = fixedSectors(target.mapping, 'hueSectors');
  if (!lacking.has('hueSectors') || !places.length) return null;
  const sectors = settings.hueSectors as Sector[];
  const gain = (hue: number) =>
    sectors.reduce((all, one) => all * (1 + sectorWeight(hue, one.center, one.width) * (one.chroma - 1)), 1) - 1;
  const turns = fitted(
    places,
    sumOver(sectors, (one) => one.turn),
  );
  const gains = fitted(places, gain);
  const lights = fitted(
    places,
    sumOver(sectors, (one) => one.lightness),
  );
  const hueSectors = places.map((place, index) => ({
    ...place,
    turn: clamp(turns[index]!, -180, 180),
    chroma: clamp(1 + gains[index]!, 0, 4),
    lightness: clamp(lights[index]!, -0.5, 0.5),
  }));
  if (!target.can('hueSectors', hueSectors)) return null;
  const at = places.map(({ center }) => `${center}°`).join(', ');
  return { instead: ['hueSectors'], settings: { hueSectors }, reason: `${target.title} has sectors at ${at} alone` };
};

const grayMix: Rule = (settings, lacking, target) => {
  const mix = settings.monochrome as GrayMix | null | undefined;
  if (!lacking.has('monochrome') || !mix) return null;
  const places = fixedSectors(target.mapping, 'monochrome.sectors');
  const lights = places.length
    ? fitted(
        places,
        sumOver(mix.sectors, (one) => one.lightness),
      )
    : [];
  const sectors = places.map((place, index) => ({ ...place, lightness: clamp(lights[index]!, -0.5, 0.5) }));
  const nearest: GrayMix[] = [...(sectors.length ? [{ sectors }] : []), { sectors: [] }];
  const monochrome = nearest.find((one) => target.can('monochrome', one));
  if (!monochrome) return null;
  const reason = monochrome.sectors.length
    ? `${target.title} mixes gray at ${places.map(({ center }) => `${center}°`).join(', ')} alone`
    : `${target.title} makes pictures gray without a mix of hues`;
  return { instead: ['monochrome'], settings: { monochrome }, reason };
};

/** Gray without a word for it: no chroma at all. */
const grayByChroma: Rule = (settings, lacking, target) => {
  if (!lacking.has('monochrome') || !settings.monochrome || !target.can('chroma', 0)) return null;
  return {
    instead: ['monochrome', 'chroma'].filter((id) => present(settings, id)),
    settings: { chroma: 0 },
    reason: `${target.title} makes pictures gray by taking all chroma away, without a mix of hues`,
  };
};

/** In the order in which they are tried; one that another made needless finds nothing lacking. */
export const rules: readonly Rule[] = [shiftAsMatrix, toneAsCurves, sectorsAtTheirPlaces, grayMix, grayByChroma];
