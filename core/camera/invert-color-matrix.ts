/** The inverse of a profile's color matrix; a singular one is refused, since nothing can be developed by it. */
import { invert, type Matrix } from '../color/matrix';
import { Problem } from '../problem';

export function invertColorMatrix(matrix: Matrix): Matrix {
  try {
    return invert(matrix);
  } catch {
    throw new Problem(
      'dcp-singular',
      'The color matrix cannot be inverted.',
      'ColorMatrix1',
      'Ask the supplier for the profile again.',
    );
  }
}
