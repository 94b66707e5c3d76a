import { expect, test } from 'vitest';
import { leastSquares } from './least-squares';

test('an exact system is solved', () => {
  const weights = leastSquares(
    [
      [1, 2],
      [3, 4],
      [5, 6],
    ],
    [5, 11, 17],
  );
  expect(weights[0]).toBeCloseTo(1, 10);
  expect(weights[1]).toBeCloseTo(2, 10);
});
test('the mean is what is nearest to several numbers', () => {
  expect(leastSquares([[1], [1], [1]], [2, 4, 9])[0]).toBeCloseTo(5, 12);
});
test('the residual is at right angles to every column', () => {
  const rows = Array.from({ length: 30 }, (_, i) => [1, i, i * i]);
  const values = rows.map(([, x]) => Math.sin(x! / 4));
  const weights = leastSquares(rows, values);
  for (let column = 0; column < 3; column++) {
    const dot = rows.reduce((sum, row, i) => {
      const at = row.reduce((all, value, k) => all + value * weights[k]!, 0);
      return sum + row[column]! * (values[i]! - at);
    }, 0);
    expect(Math.abs(dot)).toBeLessThan(1e-6);
  }
});
test('what no row determines is 0, and a ridge draws all towards 0', () => {
  expect(
    leastSquares(
      [
        [1, 0],
        [2, 0],
      ],
      [3, 6],
    ),
  ).toEqual([expect.closeTo(3, 10), 0]);
  expect(leastSquares([[1]], [3], 1)[0]).toBeCloseTo(1.5, 12);
});
