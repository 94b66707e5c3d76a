/**
 * Finds a chart by its corner marks: small dark blots on light ground, of one size, as the corners of a quadrilateral. Dark is
 * what is darker than its surroundings (Bradley and Roth, "Adaptive thresholding using the integral image", 2007); blots are
 * connected places. Which corner is the first is told by the patches: the turn that comes nearest to the measured values.
 */
import type { Chart } from './cgats';
import { fromSquare, isConvex, project, type Point } from './homography';
import { measureChart, type Placed } from './measure';

type Pixels = Uint8Array | Uint8ClampedArray;
interface Blot {
  x: number;
  y: number;
  area: number;
  /** 0…1, how like a square or a disc of one size it is */ good: number;
}

/** Places darker than 0.6 of the mean of a square around them: 1 each. */
function darkPlaces(pixels: Pixels, w: number, h: number): Uint8Array {
  const sums = new Float64Array((w + 1) * (h + 1));
  const gray = new Float32Array(w * h);
  const dark = new Uint8Array(w * h);
  const r = Math.max(8, Math.round(w / 24));
  for (let y = 0; y < h; y++)
    for (let x = 0, s = 0; x < w; x++) {
      const i = y * w + x;
      const v = 0.2126 * pixels[i * 4]! + 0.7152 * pixels[i * 4 + 1]! + 0.0722 * pixels[i * 4 + 2]!;
      gray[i] = v;
      s += v;
      sums[(y + 1) * (w + 1) + x + 1] = sums[y * (w + 1) + x + 1]! + s;
    }
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const x0 = Math.max(0, x - r);
      const x1 = Math.min(w, x + r + 1);
      const y0 = Math.max(0, y - r);
      const y1 = Math.min(h, y + r + 1);
      const mean =
        (sums[y1 * (w + 1) + x1]! - sums[y0 * (w + 1) + x1]! - sums[y1 * (w + 1) + x0]! + sums[y0 * (w + 1) + x0]!) /
        ((x1 - x0) * (y1 - y0));
      dark[y * w + x] = gray[y * w + x]! < 0.6 * mean ? 1 : 0;
    }
  return dark;
}

/** A connected dark place: its area, the sums of its coordinates, and the box around it, in pixels. */
interface Region {
  area: number;
  sumX: number;
  sumY: number;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The place that is connected with `start`, which is marked in `dark` as taken. */
function regionFrom(start: number, dark: Uint8Array, w: number, h: number): Region {
  const region: Region = { area: 0, sumX: 0, sumY: 0, left: w, top: h, right: 0, bottom: 0 };
  const stack = [start];
  dark[start] = 2;
  const take = (x: number, y: number): void => {
    if (x < 0 || y < 0 || x >= w || y >= h || dark[y * w + x] !== 1) return;
    dark[y * w + x] = 2;
    stack.push(y * w + x);
  };
  while (stack.length) {
    const i = stack.pop()!;
    const x = i % w;
    const y = (i - x) / w;
    region.area++;
    region.sumX += x;
    region.sumY += y;
    region.left = Math.min(region.left, x);
    region.right = Math.max(region.right, x);
    region.top = Math.min(region.top, y);
    region.bottom = Math.max(region.bottom, y);
    take(x - 1, y);
    take(x + 1, y);
    take(x, y - 1);
    take(x, y + 1);
  }
  return region;
}

/** Null where it is too small or too large for a mark, of another form, or cut off by the picture's edge. */
function blotOf({ area, sumX, sumY, left, top, right, bottom }: Region, w: number, h: number): Blot | null {
  const width = right - left + 1;
  const height = bottom - top + 1;
  const fill = area / (width * height);
  const aspect = Math.min(width, height) / Math.max(width, height);
  if (area < Math.max(9, w * h * 1e-5) || area > w * h * 4e-3) return null;
  if (fill < 0.55 || aspect < 0.5) return null;
  if (left === 0 || top === 0 || right === w - 1 || bottom === h - 1) return null;
  return { x: sumX / area + 0.5, y: sumY / area + 0.5, area, good: Math.min(1, fill / 0.8) * aspect };
}

/** Blots of a picture in RGBA, the likeliest first. */
export function blots(pixels: Pixels, w: number, h: number): Blot[] {
  const dark = darkPlaces(pixels, w, h);
  const out: Blot[] = [];
  for (let start = 0; start < dark.length; start++) {
    if (dark[start] !== 1) continue;
    const blot = blotOf(regionFrom(start, dark, w, h), w, h);
    if (blot) out.push(blot);
  }
  return out.sort((a, b) => b.good - a.good).slice(0, 28);
}

/** Four blots in the order around their middle, where they make a quadrilateral of some size and are of one size themselves. */
interface Four {
  corners: Point[];
  even: number;
  area: number;
}

function fourOf(four: Blot[]): Four | null {
  const areas = four.map((blot) => blot.area);
  const even = Math.min(...areas) / Math.max(...areas);
  if (even < 0.5) return null;
  const x = four.reduce((s, blot) => s + blot.x, 0) / 4;
  const y = four.reduce((s, blot) => s + blot.y, 0) / 4;
  const corners = four
    .map((blot): Point => [blot.x, blot.y])
    .sort((u, v) => Math.atan2(u[1] - y, u[0] - x) - Math.atan2(v[1] - y, v[0] - x));
  if (!isConvex(corners)) return null;
  const doubled = corners.reduce((s, [px, py], i) => {
    const [qx, qy] = corners[(i + 1) % 4]!;
    return s + px * qy - qx * py;
  }, 0);
  return { corners, even, area: Math.abs(doubled) / 2 };
}

/**
 * Where the chart lies, or null where no four marks fit it. The marks' middles stand `outside` patches beyond the field's
 * corners, in both directions.
 */
export function findChart(pixels: Pixels, width: number, height: number, chart: Chart, outside = 0.5): Placed | null {
  const list = blots(pixels, width, height);
  const count = list.length;
  let best: { at: Placed; off: number } | null = null;
  const tried: Four[] = [];
  const consider = (four: Blot[]): void => {
    const quadrilateral = fourOf(four);
    if (quadrilateral && quadrilateral.area > width * height * 0.02) tried.push(quadrilateral);
  };
  for (let a = 0; a < count; a++)
    for (let b = a + 1; b < count; b++)
      for (let c = b + 1; c < count; c++)
        for (let d = c + 1; d < count; d++) consider([list[a]!, list[b]!, list[c]!, list[d]!]);
  for (const { corners: points } of tried.sort((a, b) => b.area * b.even - a.area * a.even).slice(0, 60))
    for (let first = 0; first < 4; first++) {
      const homography = fromSquare([0, 1, 2, 3].map((i) => points[(i + first) % 4]!));
      if (!homography) continue;
      const u = outside / (chart.columns + 2 * outside);
      const v = outside / (chart.rows + 2 * outside);
      const corners = (
        [
          [u, v],
          [1 - u, v],
          [1 - u, 1 - v],
          [u, 1 - v],
        ] as Point[]
      ).map(([x, y]): Point => {
        const [px, py] = project(homography, x, y);
        return [px / width, py / height];
      });
      const at = { corners, columns: chart.columns, rows: chart.rows };
      const chartResult = measureChart(pixels, width, height, at, chart);
      if (chartResult && (!best || chartResult.mean < best.off)) best = { at, off: chartResult.mean };
    }
  // patches that are nothing like what was measured are no chart
  return best && best.off < 30 ? best.at : null;
}
