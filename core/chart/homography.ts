/** The projective map of the plane that takes four points to four others (Hartley and Zisserman, Multiple View Geometry, 2004, 4.1). */
export type Point = [number, number];
/** Nine numbers, row-major, the last 1. */
export type Homography = readonly number[];

/** The map of the unit square's corners (0,0), (1,0), (1,1), (0,1) to these; null where no three of them may lie on a line and some do. */
export function fromSquare(corners: readonly Point[]): Homography | null {
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = corners as [Point, Point, Point, Point];
  const dx1 = x1 - x2;
  const dx2 = x3 - x2;
  const sx = x0 - x1 + x2 - x3;
  const dy1 = y1 - y2;
  const dy2 = y3 - y2;
  const sy = y0 - y1 + y2 - y3;
  const det = dx1 * dy2 - dx2 * dy1;
  if (!isConvex(corners)) return null;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  return [x1 - x0 + g * x1, x3 - x0 + h * x3, x0, y1 - y0 + g * y1, y3 - y0 + h * y3, y0, g, h, 1];
}
export function project(homography: Homography, u: number, v: number): Point {
  const w = homography[6]! * u + homography[7]! * v + homography[8]!;
  return [
    (homography[0]! * u + homography[1]! * v + homography[2]!) / w,
    (homography[3]! * u + homography[4]! * v + homography[5]!) / w,
  ];
}

const turn = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
/** Whether four corners, in order, turn one way all round, and nowhere lie on a line. */
export function isConvex(points: readonly Point[]): boolean {
  const turns = [0, 1, 2, 3].map((i) => turn(points[i]!, points[(i + 1) % 4]!, points[(i + 2) % 4]!));
  const size = Math.max(...turns.map(Math.abs));
  return size > 0 && (turns.every((v) => v > 1e-6 * size) || turns.every((v) => v < -1e-6 * size));
}
