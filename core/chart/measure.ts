/** A chart in a rendered picture against its measured values: the mean color of each patch, and its ΔE00. */
import { deltaE2000 } from '../color/difference';
import { labOfXyz } from '../color/lab';
import { multiply, transform } from '../color/matrix';
import { adapt, D50, D65, srgbToXyz, xyzOf } from '../color/spaces';
import { decodeSrgb } from '../color/transfer';
import type { Chart } from './cgats';
import { fromSquare, project, type Homography, type Point } from './homography';

type Pixels = Uint8Array | Uint8ClampedArray;
export interface Placed {
  /** of the field of patches: top left, top right, bottom right, bottom left; 0…1 of the picture */ corners: Point[];
  columns: number;
  rows: number;
}
export interface PatchResult {
  id: string;
  measured: [number, number, number];
  /** L*a*b* relative to D50 */ rendered: [number, number, number];
  deltaE: number;
}
export interface ChartResult {
  mean: number;
  max: number;
  worst: string;
  patches: PatchResult[];
}

const light = new Float64Array(256).map((_, i) => decodeSrgb(i / 255));
const toXyz = multiply(adapt(D65, D50), srgbToXyz);
const white = xyzOf(D50);
/** The inner half of a patch is looked at, in so many places a side. */
const PLACES = 9;

/** Over the middle half of the patch, in both directions; null where a place of it lies outside the picture. */
function patchMean(
  pixels: Pixels,
  width: number,
  height: number,
  at: Placed,
  homography: Homography,
  column: number,
  row: number,
): [number, number, number] | null {
  const sum: [number, number, number] = [0, 0, 0];
  for (let j = 0; j < PLACES; j++)
    for (let i = 0; i < PLACES; i++) {
      const u = (column + 0.25 + (0.5 * i) / (PLACES - 1)) / at.columns;
      const v = (row + 0.25 + (0.5 * j) / (PLACES - 1)) / at.rows;
      const [x, y] = project(homography, u, v).map(Math.floor) as [number, number];
      if (!(x >= 0 && y >= 0 && x < width && y < height)) return null;
      for (let k = 0, o = (y * width + x) * 4; k < 3; k++) sum[k]! += light[pixels[o + k]!]!;
    }
  return [sum[0] / PLACES ** 2, sum[1] / PLACES ** 2, sum[2] / PLACES ** 2];
}

/** Mean linear sRGB of each patch of a placed chart, row by row; null where it lies outside the picture or is no field. */
export function patchMeans(
  pixels: Pixels,
  width: number,
  height: number,
  at: Placed,
): [number, number, number][] | null {
  const homography: Homography | null = fromSquare(at.corners.map(([x, y]): Point => [x * width, y * height]));
  if (!homography) return null;
  const out: [number, number, number][] = [];
  for (let r = 0; r < at.rows; r++)
    for (let c = 0; c < at.columns; c++) {
      const mean = patchMean(pixels, width, height, at, homography, c, r);
      if (!mean) return null;
      out.push(mean);
    }
  return out;
}

/** sRGB, RGBA of 8 bits, against the chart; adapted from D65 to D50 by Bradford, as profiles are. */
export function measureChart(
  pixels: Pixels,
  width: number,
  height: number,
  at: Placed,
  chart: Pick<Chart, 'patches'>,
): ChartResult | null {
  const means = patchMeans(pixels, width, height, at);
  if (!means || means.length !== chart.patches.length) return null;
  const patches = chart.patches.map(({ id, lab }, i): PatchResult => {
    const rendered = labOfXyz(transform(toXyz, means[i]!), white);
    return {
      id,
      measured: lab,
      rendered,
      deltaE: deltaE2000(lab[0], lab[1], lab[2], rendered[0], rendered[1], rendered[2]),
    };
  });
  const worst = patches.reduce((a, b) => (b.deltaE > a.deltaE ? b : a));
  return {
    mean: patches.reduce((s, q) => s + q.deltaE, 0) / patches.length,
    max: worst.deltaE,
    worst: worst.id,
    patches,
  };
}
