/**
 * Linear least squares with a ridge: the weights w that make Σ (rows · w − values)² + ridge · |w|² least, by the normal
 * equations and a Cholesky factorization (Golub and Van Loan, Matrix Computations, 4th edition, 4.2). For few unknowns.
 */
export function leastSquares(rows: readonly ArrayLike<number>[], values: ArrayLike<number>, ridge = 0): number[] {
  const count = rows[0]?.length ?? 0;
  const normal = Array.from({ length: count }, () => new Float64Array(count));
  const right = new Float64Array(count);
  for (const [index, row] of rows.entries())
    for (let i = 0; i < count; i++) {
      right[i]! += row[i]! * values[index]!;
      for (let j = 0; j <= i; j++) normal[i]![j]! += row[i]! * row[j]!;
    }
  for (let i = 0; i < count; i++) normal[i]![i]! += ridge;
  return solved(factored(normal), right);
}

/** The lower triangle L of L · Lᵀ, in place. What is not determined by the rows has a diagonal of 0. */
function factored(matrix: Float64Array[]): Float64Array[] {
  for (let i = 0; i < matrix.length; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i]![k]! * matrix[j]![k]!;
      if (i === j) matrix[i]![i] = sum > 1e-14 ? Math.sqrt(sum) : 0;
      else matrix[i]![j] = matrix[j]![j] ? sum / matrix[j]![j]! : 0;
    }
  return matrix;
}

function solved(lower: Float64Array[], right: Float64Array): number[] {
  const count = right.length;
  const out = Array.from(right);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < i; k++) out[i]! -= lower[i]![k]! * out[k]!;
    out[i] = lower[i]![i] ? out[i]! / lower[i]![i]! : 0;
  }
  for (let i = count - 1; i >= 0; i--) {
    for (let k = i + 1; k < count; k++) out[i]! -= lower[k]![i]! * out[k]!;
    out[i] = lower[i]![i] ? out[i]! / lower[i]![i]! : 0;
  }
  return out;
}
