/**
 * Monotone cubic interpolation (F. N. Fritsch, R. E. Carlson, SIAM Journal on Numerical Analysis 17, 1980),
 * continued beyond its ends as straight lines with the end slopes.
 */
export type CurvePoints = [number, number][];

/** How steep the straight lines between neighbouring points are. */
const risesOf = (points: CurvePoints): number[] =>
  points.slice(1).map(([x, y], i) => (y - points[i]![1]) / (x - points[i]![0]));

/** The slopes at the points, held so far back that the curve between two points turns nowhere. */
function slopesOf(rises: readonly number[]): number[] {
  const slopes = [
    rises[0]!,
    ...rises.slice(1).map((after, i) => (rises[i]! * after <= 0 ? 0 : (rises[i]! + after) / 2)),
    rises.at(-1)!,
  ];
  rises.forEach((rise, i) => {
    if (rise === 0) {
      slopes[i] = 0;
      slopes[i + 1] = 0;
      return;
    }
    const a = slopes[i]! / rise;
    const b = slopes[i + 1]! / rise;
    const square = a * a + b * b;
    if (square <= 9) return;
    const share = 3 / Math.sqrt(square);
    slopes[i] = share * a * rise;
    slopes[i + 1] = share * b * rise;
  });
  return slopes;
}

/** By piece: where it starts, and the three further coefficients over the distance from there. */
function piecesOf(points: CurvePoints, rises: readonly number[], slopes: readonly number[]): Float64Array {
  const pieces = new Float64Array(rises.length * 4);
  rises.forEach((rise, i) => {
    const wide = points[i + 1]![0] - points[i]![0];
    const [into, out] = [slopes[i]!, slopes[i + 1]!];
    pieces.set(
      [points[i]![1], into, (3 * rise - 2 * into - out) / wide, (into + out - 2 * rise) / (wide * wide)],
      i * 4,
    );
  });
  return pieces;
}

/** @param points from left to right, at least one; a single one shifts */
export function monotoneCurve(points: CurvePoints): (x: number) => number {
  const [first, end] = [points[0]!, points.at(-1)!];
  if (points.length === 1) return (x) => x + first[1] - first[0];
  const rises = risesOf(points);
  const slopes = slopesOf(rises);
  const pieces = piecesOf(points, rises, slopes);
  const at = Float64Array.from(points, ([x]) => x);
  const [left, low] = first;
  const [right, high] = end;
  const into = slopes[0]!;
  const out = slopes.at(-1)!;
  return (x) => {
    if (x <= left) return low + into * (x - left);
    if (x >= right) return high + out * (x - right);
    let i = 0;
    while (at[i + 1]! < x) i++;
    const f = x - at[i]!;
    const j = i * 4;
    return pieces[j]! + f * (pieces[j + 1]! + f * (pieces[j + 2]! + f * pieces[j + 3]!));
  };
}
