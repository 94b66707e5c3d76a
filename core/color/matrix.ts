/** 3×3 matrices: nine numbers, row-major, acting on column vectors. */
export type Matrix = readonly number[];
export type Triple = [number, number, number];

export const multiply = (left: Matrix, right: Matrix): number[] => {
  const out = new Array<number>(9);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++)
      out[r * 3 + c] = left[r * 3]! * right[c]! + left[r * 3 + 1]! * right[3 + c]! + left[r * 3 + 2]! * right[6 + c]!;
  return out;
};

export const transform = (matrix: Matrix, values: readonly number[]): Triple => [
  matrix[0]! * values[0]! + matrix[1]! * values[1]! + matrix[2]! * values[2]!,
  matrix[3]! * values[0]! + matrix[4]! * values[1]! + matrix[5]! * values[2]!,
  matrix[6]! * values[0]! + matrix[7]! * values[1]! + matrix[8]! * values[2]!,
];

/** The same for three of many values, written to out[at…at+2]; in place where `out` is what they came from. */
export function transformTo(
  matrix: Matrix,
  r: number,
  g: number,
  b: number,
  out: Float64Array | number[],
  at: number,
): void {
  out[at] = matrix[0]! * r + matrix[1]! * g + matrix[2]! * b;
  out[at + 1] = matrix[3]! * r + matrix[4]! * g + matrix[5]! * b;
  out[at + 2] = matrix[6]! * r + matrix[7]! * g + matrix[8]! * b;
}

type Nine = readonly [number, number, number, number, number, number, number, number, number];

/** The nine numbers of a matrix, by rows, to be taken apart by name. */
export const nineOf = (matrix: Matrix): Nine => matrix as readonly number[] as Nine;

/** Inverse by cofactors; throws a RangeError when the matrix is singular. */
export function invert(matrix: Matrix): number[] {
  const [a, b, c, d, e, f, g, h, i] = nineOf(matrix);
  const A = e * i - f * h;
  const B = f * g - d * i;
  const C = d * h - e * g;
  const det = a * A + b * B + c * C;
  if (!(Math.abs(det) > 1e-14)) throw new RangeError('the matrix is singular');
  return [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map(
    (v) => v / det,
  );
}

export const diagonal = (v: readonly number[]): number[] => [v[0]!, 0, 0, 0, v[1]!, 0, 0, 0, v[2]!];
