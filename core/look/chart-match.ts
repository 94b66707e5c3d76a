/** Patches of a chart that two cameras have seen, for a camera match: closer than what any scene offers. */
import { patchMeans, type Placed } from '../chart/measure';
import { encodeSrgb } from '../color/transfer';
import type { MatchPatch } from './camera-match';

export interface SeenChart {
  /** sRGB, RGBA of 8 bits */ pixels: Uint8Array | Uint8ClampedArray;
  width: number;
  height: number;
  at: Placed;
}

type Triple = [number, number, number];
const coded = (mean: Triple): Triple => [encodeSrgb(mean[0]), encodeSrgb(mean[1]), encodeSrgb(mean[2])];

/** Patch by patch under their ids; none where a chart does not lie within its picture. */
export function chartPatches(from: SeenChart, to: SeenChart, ids: readonly string[]): MatchPatch[] {
  const one = patchMeans(from.pixels, from.width, from.height, from.at);
  const other = patchMeans(to.pixels, to.width, to.height, to.at);
  if (!one || !other) return [];
  return ids.flatMap((name, place) => {
    const [before, after] = [one[place], other[place]];
    return before && after ? [{ name, from: coded(before), to: coded(after) }] : [];
  });
}
