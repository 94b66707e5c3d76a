/** 3×3 matrices: nine numbers, row-major, acting on column vectors. */
export type Matrix = readonly number[];
export type Triple = [number, number, number];

export const multiply = (a: Matrix, b: Matrix): number[] => {
  const out = new Array<number>(9);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++)
      out[r * 3 + c] = a[r * 3]! * b[c]! + a[r * 3 + 1]! * b[3 + c]! + a[r * 3 + 2]! * b[6 + c]!;
  return out;
};

export const transform = (m: Matrix, v: readonly number[]): Triple => [
  m[0]! * v[0]! + m[1]! * v[1]! + m[2]! * v[2]!,
  m[3]! * v[0]! + m[4]! * v[1]! + m[5]! * v[2]!,
  m[6]! * v[0]! + m[7]! * v[1]! + m[8]! * v[2]!,
];

/** Inverse by cofactors; throws a RangeError when the matrix is singular. */
export function invert(m: Matrix): number[] {
  const [a, b, c, d, e, f, g, h, i] = m as number[] as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
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
