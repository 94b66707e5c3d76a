/** Colors as the stand-in editors compute with them: codes and light, primaries, matrices of three by three, a row after the other. */

export type Color = [number, number, number];
/** Changes a color in place; of sRGB codes, 0 to 1 a channel, where nothing else is said. */
export type Develop = (color: Color) => void;

/** Each channel by itself. */
export const each =
  (change: (value: number) => number): Develop =>
  (color) => {
    for (let c = 0; c < 3; c++) color[c] = change(color[c]!);
  };

/** One change after the other. */
export const inTurn =
  (...changes: readonly Develop[]): Develop =>
  (color) => {
    for (const change of changes) change(color);
  };

/** A color as a column, times a matrix. */
export const by =
  (m: readonly number[]): Develop =>
  (color) => {
    const [r, g, b] = color;
    for (let c = 0; c < 3; c++) color[c] = m[3 * c]! * r + m[3 * c + 1]! * g + m[3 * c + 2]! * b;
  };

/** One matrix times another, which acts first. */
export const product = (m: readonly number[], first: readonly number[]): number[] =>
  [0, 1, 2].flatMap((i) =>
    [0, 1, 2].map((j) => [0, 1, 2].reduce((sum, k) => sum + m[3 * i + k]! * first[3 * k + j]!, 0)),
  );

/** IEC 61966-2-1, and the same mirrored below zero. */
export const light = (value: number): number => {
  const v = Math.abs(value);
  return Math.sign(value) * (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
};
export const code = (value: number): number => {
  const v = Math.abs(value);
  return Math.sign(value) * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
};

/** Linear light from the primaries of sRGB to others with the same white, and back. */
export function primaries(forth: readonly number[]): { forth: Develop; back: Develop } {
  return { forth: by(forth), back: by(inverse(forth)) };
}

export function inverse(m: readonly number[]): number[] {
  const minor = (i: number, j: number): number => {
    const [a, b] = [0, 1, 2].filter((row) => row !== i) as [number, number];
    const [c, d] = [0, 1, 2].filter((column) => column !== j) as [number, number];
    return (m[3 * a + c]! * m[3 * b + d]! - m[3 * a + d]! * m[3 * b + c]!) * ((i + j) % 2 ? -1 : 1);
  };
  const determinant = [0, 1, 2].reduce((sum, j) => sum + m[j]! * minor(0, j), 0);
  return [0, 1, 2].flatMap((i) => [0, 1, 2].map((j) => minor(j, i) / determinant));
}

/** ITU-R BT.2087, and what follows for P3 from the chromaticities of SMPTE EG 432-1. */
export const REC2020 = primaries([
  0.627404, 0.329283, 0.043313, 0.069097, 0.91954, 0.011362, 0.016391, 0.088013, 0.895595,
]);
export const P3 = primaries([0.822462, 0.177538, 0, 0.033194, 0.966806, 0, 0.017083, 0.072397, 0.91052]);
