/** Lines through points, as the curves of the stand-in editors are drawn. */

export type Point = [number, number];

/**
 * A cubic through points that rises and falls only where they do: F. N. Fritsch and R. E. Carlson, "Monotone Piecewise
 * Cubic Interpolation", SIAM Journal on Numerical Analysis 17 (1980). Straight beyond its ends.
 */
export function line(points: readonly Point[]): (x: number) => number {
  const last = points.length - 1;
  if (last < 1) throw new Error('a curve needs two points');
  const rise = points.slice(1).map(([x, y], i) => (y - points[i]![1]) / (x - points[i]![0]));
  if (rise.some((one) => !Number.isFinite(one)) || points.some(([x], i) => i > 0 && x <= points[i - 1]![0]))
    throw new Error('the points of a curve do not follow each other');
  const slope = points.map((_, i) => {
    if (i === 0) return rise[0]!;
    if (i === last) return rise[last - 1]!;
    const [before, after] = [rise[i - 1]!, rise[i]!];
    return before * after <= 0 ? 0 : (before + after) / 2;
  });
  rise.forEach((one, i) => {
    if (one === 0) {
      slope[i] = 0;
      slope[i + 1] = 0;
      return;
    }
    const far = Math.hypot(slope[i]! / one, slope[i + 1]! / one);
    if (far <= 3) return;
    slope[i]! *= 3 / far;
    slope[i + 1]! *= 3 / far;
  });
  return (x) => {
    if (x <= points[0]![0]) return points[0]![1] + slope[0]! * (x - points[0]![0]);
    if (x >= points[last]![0]) return points[last]![1] + slope[last]! * (x - points[last]![0]);
    const i = points.findIndex(([at]) => at > x) - 1;
    const [[fromX, fromY], [toX, toY]] = [points[i]!, points[i + 1]!];
    const wide = toX - fromX;
    const t = (x - fromX) / wide;
    return (
      (1 + 2 * t) * (1 - t) ** 2 * fromY +
      t * (1 - t) ** 2 * wide * slope[i]! +
      t ** 2 * (3 - 2 * t) * toY +
      t ** 2 * (t - 1) * wide * slope[i + 1]!
    );
  };
}
