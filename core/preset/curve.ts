/**
 * Monotone cubic interpolation (F. N. Fritsch, R. E. Carlson, SIAM Journal on Numerical Analysis 17, 1980),
 * continued beyond its ends as straight lines with the end slopes.
 */
export type CurvePoints = [number, number][];

export function monotoneCurve(points: CurvePoints): (x: number) => number {
  const count = points.length;
  if (count === 1) return (x) => x + points[0]![1] - points[0]![0];
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const dimensions: number[] = [];
  const matrix: number[] = [];
  for (let i = 0; i < count - 1; i++) dimensions.push((ys[i + 1]! - ys[i]!) / (xs[i + 1]! - xs[i]!));
  matrix.push(dimensions[0]!);
  for (let i = 1; i < count - 1; i++)
    matrix.push(dimensions[i - 1]! * dimensions[i]! <= 0 ? 0 : (dimensions[i - 1]! + dimensions[i]!) / 2);
  matrix.push(dimensions[count - 2]!);
  for (let i = 0; i < count - 1; i++) {
    if (dimensions[i] === 0) {
      matrix[i] = 0;
      matrix[i + 1] = 0;
      continue;
    }
    const a = matrix[i]! / dimensions[i]!;
    const b = matrix[i + 1]! / dimensions[i]!;
    const s = a * a + b * b;
    if (s > 9) {
      const t = 3 / Math.sqrt(s);
      matrix[i] = t * a * dimensions[i]!;
      matrix[i + 1] = t * b * dimensions[i]!;
    }
  }
  // by piece: start, and the four coefficients over the distance from it
  const at = Float64Array.from(xs);
  const values = new Float64Array(count * 4);
  const last = count - 1;
  for (let i = 0; i < last; i++) {
    const h = xs[i + 1]! - xs[i]!;
    values.set(
      [
        ys[i]!,
        matrix[i]!,
        (3 * dimensions[i]! - 2 * matrix[i]! - matrix[i + 1]!) / h,
        (matrix[i]! + matrix[i + 1]! - 2 * dimensions[i]!) / (h * h),
      ],
      i * 4,
    );
  }
  const first = at[0]!;
  const end = at[last]!;
  const low = ys[0]!;
  const high = ys[last]!;
  const into = matrix[0]!;
  const out = matrix[last]!;
  return (x) => {
    if (x <= first) return low + into * (x - first);
    if (x >= end) return high + out * (x - end);
    let i = 0;
    while (at[i + 1]! < x) i++;
    const f = x - at[i]!;
    const j = i * 4;
    return values[j]! + f * (values[j + 1]! + f * (values[j + 2]! + f * values[j + 3]!));
  };
}
