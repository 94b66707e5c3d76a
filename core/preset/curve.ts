/**
 * Monotone cubic interpolation (F. N. Fritsch, R. E. Carlson, SIAM Journal on Numerical Analysis 17, 1980),
 * continued beyond its ends as straight lines with the end slopes.
 */
export type CurvePoints = [number, number][];

export function monotoneCurve(points: CurvePoints): (x: number) => number {
  const n = points.length;
  if (n === 1) return (x) => x + points[0]![1] - points[0]![0];
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const d: number[] = [];
  const m: number[] = [];
  for (let i = 0; i < n - 1; i++) d.push((ys[i + 1]! - ys[i]!) / (xs[i + 1]! - xs[i]!));
  m.push(d[0]!);
  for (let i = 1; i < n - 1; i++) m.push(d[i - 1]! * d[i]! <= 0 ? 0 : (d[i - 1]! + d[i]!) / 2);
  m.push(d[n - 2]!);
  for (let i = 0; i < n - 1; i++) {
    if (d[i] === 0) {
      m[i] = 0;
      m[i + 1] = 0;
      continue;
    }
    const a = m[i]! / d[i]!;
    const b = m[i + 1]! / d[i]!;
    const s = a * a + b * b;
    if (s > 9) {
      const t = 3 / Math.sqrt(s);
      m[i] = t * a * d[i]!;
      m[i + 1] = t * b * d[i]!;
    }
  }
  // by piece: start, and the four coefficients over the distance from it
  const at = Float64Array.from(xs);
  const k = new Float64Array(n * 4);
  const last = n - 1;
  for (let i = 0; i < last; i++) {
    const h = xs[i + 1]! - xs[i]!;
    k.set([ys[i]!, m[i]!, (3 * d[i]! - 2 * m[i]! - m[i + 1]!) / h, (m[i]! + m[i + 1]! - 2 * d[i]!) / (h * h)], i * 4);
  }
  const first = at[0]!;
  const end = at[last]!;
  const low = ys[0]!;
  const high = ys[last]!;
  const into = m[0]!;
  const out = m[last]!;
  return (x) => {
    if (x <= first) return low + into * (x - first);
    if (x >= end) return high + out * (x - end);
    let i = 0;
    while (at[i + 1]! < x) i++;
    const f = x - at[i]!;
    const j = i * 4;
    return k[j]! + f * (k[j + 1]! + f * (k[j + 2]! + f * k[j + 3]!));
  };
}
