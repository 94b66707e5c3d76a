/**
 * Monotone cubic interpolation (F. N. Fritsch, R. E. Carlson, SIAM Journal on Numerical Analysis 17, 1980),
 * continued beyond its ends as straight lines with the end slopes.
 */
export type CurvePoints = [number, number][];

export function monotoneCurve(points: CurvePoints): (x: number) => number {
  const n = points.length;
  if (n === 1) return (x) => x + points[0]![1] - points[0]![0];
  const xs = points.map((p) => p[0]), ys = points.map((p) => p[1]);
  const d: number[] = [], m: number[] = [];
  for (let i = 0; i < n - 1; i++) d.push((ys[i + 1]! - ys[i]!) / (xs[i + 1]! - xs[i]!));
  m.push(d[0]!);
  for (let i = 1; i < n - 1; i++) m.push(d[i - 1]! * d[i]! <= 0 ? 0 : (d[i - 1]! + d[i]!) / 2);
  m.push(d[n - 2]!);
  for (let i = 0; i < n - 1; i++) {
    if (d[i] === 0) { m[i] = 0; m[i + 1] = 0; continue; }
    const a = m[i]! / d[i]!, b = m[i + 1]! / d[i]!, s = a * a + b * b;
    if (s > 9) { const t = 3 / Math.sqrt(s); m[i] = t * a * d[i]!; m[i + 1] = t * b * d[i]!; }
  }
  return (x) => {
    if (x <= xs[0]!) return ys[0]! + m[0]! * (x - xs[0]!);
    if (x >= xs[n - 1]!) return ys[n - 1]! + m[n - 1]! * (x - xs[n - 1]!);
    let i = 0;
    while (xs[i + 1]! < x) i++;
    const h = xs[i + 1]! - xs[i]!, t = (x - xs[i]!) / h, t2 = t * t, t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * ys[i]! + (t3 - 2 * t2 + t) * h * m[i]! + (3 * t2 - 2 * t3) * ys[i + 1]! + (t3 - t2) * h * m[i + 1]!;
  };
}
