/** The tone curve of a camera profile: a natural cubic spline through its points, applied so that hue is kept. */

/** y(x), held at the first and last point. Natural: no curvature at the ends. Points ascend in x. */
export function naturalSpline(points: readonly (readonly [number, number])[]): (x: number) => number {
  const n = points.length;
  const x = points.map((p) => p[0]);
  const y = points.map((p) => p[1]);
  const bend = new Float64Array(n);
  const rest = new Float64Array(n);
  for (let i = 1; i < n - 1; i++) {
    const sig = (x[i]! - x[i - 1]!) / (x[i + 1]! - x[i - 1]!);
    const p = sig * bend[i - 1]! + 2;
    bend[i] = (sig - 1) / p;
    rest[i] =
      ((6 * ((y[i + 1]! - y[i]!) / (x[i + 1]! - x[i]!) - (y[i]! - y[i - 1]!) / (x[i]! - x[i - 1]!))) /
        (x[i + 1]! - x[i - 1]!) -
        sig * rest[i - 1]!) /
      p;
  }
  bend[n - 1] = 0;
  for (let i = n - 2; i >= 0; i--) bend[i] = i === 0 ? 0 : bend[i]! * bend[i + 1]! + rest[i]!;
  return (v) => {
    if (v <= x[0]!) return y[0]!;
    if (v >= x[n - 1]!) return y[n - 1]!;
    let lo = 0;
    let hi = n - 1;
    while (hi - lo > 1) {
      const m = (lo + hi) >> 1;
      if (x[m]! <= v) lo = m;
      else hi = m;
    }
    const h = x[hi]! - x[lo]!;
    const a = (x[hi]! - v) / h;
    const b = (v - x[lo]!) / h;
    return a * y[lo]! + b * y[hi]! + (((a * a * a - a) * bend[lo]! + (b * b * b - b) * bend[hi]!) * h * h) / 6;
  };
}

/** The largest and smallest channel go through the curve; the middle one keeps its place between them. In place on v[at…at+2]. */
export function hueKeeping(curve: (x: number) => number): (v: Float64Array, at: number) => void {
  return (values, at) => {
    const r = values[at]!;
    const g = values[at + 1]!;
    const b = values[at + 2]!;
    const hi = Math.max(r, g, b);
    const lo = Math.min(r, g, b);
    const top = curve(hi);
    if (hi === lo) {
      values[at] = values[at + 1] = values[at + 2] = top;
      return;
    }
    const low = curve(lo);
    const k = (top - low) / (hi - lo);
    // the ends come out exactly as the curve has them
    const between = (v: number): number => {
      if (v === hi) return top;
      return v === lo ? low : low + k * (v - lo);
    };
    values[at] = between(r);
    values[at + 1] = between(g);
    values[at + 2] = between(b);
  };
}
