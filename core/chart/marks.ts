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

/** Blots of a picture in RGBA, the likeliest first. */
export function blots(pixels: Pixels, w: number, h: number): Blot[] {
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
  const out: Blot[] = [];
  const stack: number[] = [];
  for (let start = 0; start < dark.length; start++) {
    if (dark[start] !== 1) continue;
    let area = 0;
    let sx = 0;
    let sy = 0;
    let l = w;
    let t = h;
    let rt = 0;
    let b = 0;
    stack.push(start);
    dark[start] = 2;
    while (stack.length) {
      const i = stack.pop()!;
      const x = i % w;
      const y = (i - x) / w;
      area++;
      sx += x;
      sy += y;
      l = Math.min(l, x);
      rt = Math.max(rt, x);
      t = Math.min(t, y);
      b = Math.max(b, y);
      for (const [nx, ny] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ] as const)
        if (nx >= 0 && ny >= 0 && nx < w && ny < h && dark[ny * w + nx] === 1) {
          dark[ny * w + nx] = 2;
          stack.push(ny * w + nx);
        }
    }
    const bw = rt - l + 1;
    const bh = b - t + 1;
    const fill = area / (bw * bh);
    const aspect = Math.min(bw, bh) / Math.max(bw, bh);
    if (
      area < Math.max(9, w * h * 1e-5) ||
      area > w * h * 4e-3 ||
      fill < 0.55 ||
      aspect < 0.5 ||
      l === 0 ||
      t === 0 ||
      rt === w - 1 ||
      b === h - 1
    )
      continue;
    out.push({ x: sx / area + 0.5, y: sy / area + 0.5, area, good: Math.min(1, fill / 0.8) * aspect });
  }
  return out.sort((a, b) => b.good - a.good).slice(0, 28);
}

/**
 * Where the chart lies, or null where no four marks fit it. The marks' middles stand `outside` patches beyond the field's
 * corners, in both directions.
 */
export function findChart(pixels: Pixels, width: number, height: number, chart: Chart, outside = 0.5): Placed | null {
  const list = blots(pixels, width, height);
  const n = list.length;
  let best: { at: Placed; off: number } | null = null;
  const tried: { q: Point[]; even: number; area: number }[] = [];
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++)
      for (let c = b + 1; c < n; c++)
        for (let d = c + 1; d < n; d++) {
          const four = [list[a]!, list[b]!, list[c]!, list[d]!];
          const even = Math.min(...four.map((f) => f.area)) / Math.max(...four.map((f) => f.area));
          if (even < 0.5) continue;
          const mx = four.reduce((s, f) => s + f.x, 0) / 4;
          const my = four.reduce((s, f) => s + f.y, 0) / 4;
          const points = four
            .sort((u, v) => Math.atan2(u.y - my, u.x - mx) - Math.atan2(v.y - my, v.x - mx))
            .map((f): Point => [f.x, f.y]);
          if (!isConvex(points)) continue;
          const area =
            Math.abs(
              points.reduce((s, [x, y], i) => {
                const [x2, y2] = points[(i + 1) % 4]!;
                return s + x * y2 - x2 * y;
              }, 0),
            ) / 2;
          if (area > width * height * 0.02) tried.push({ q: points, even, area });
        }
  for (const { q: points } of tried.sort((a, b) => b.area * b.even - a.area * a.even).slice(0, 60))
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
