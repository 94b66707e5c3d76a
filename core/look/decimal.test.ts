import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { expect, test } from 'vitest';
import { Scanner } from './decimal';

const out = new Float64Array(3);
const one = (s: string): number | null => (new Scanner(strToU8(`${s} 1 2\n`)).row(0, out) > 0 ? out[0]! : null);

test('a number that is read in place is what Number says, to the bit', () => {
  const digits = fc.stringMatching(/^\d{1,9}$/);
  const text = fc
    .tuple(
      fc.constantFrom('', '-', '+'),
      digits,
      fc.option(digits),
      fc.option(fc.tuple(fc.constantFrom('e', 'E'), fc.constantFrom('', '-', '+'), fc.stringMatching(/^\d{1,2}$/))),
    )
    .map(([sign, a, b, e]) => `${sign}${a}${b === null ? '' : `.${b}`}${e ? e.join('') : ''}`);
  fc.assert(
    fc.property(text, (text) => {
      const value = one(text);
      if (value !== null) expect(Object.is(value, Number(text))).toBe(true);
    }),
    { numRuns: 3000 },
  );
  fc.assert(
    fc.property(fc.double({ min: -2, max: 2, noNaN: true }), (d) => {
      for (const text of [d.toFixed(6), d.toPrecision(9), String(Math.fround(d))]) {
        const value = one(text);
        if (value !== null) expect(Object.is(value, Number(text))).toBe(true);
      }
    }),
    { numRuns: 3000 },
  );
});
test('what is not plain is left to the caller', () => {
  for (const text of ['', 'x', '1..2', '1e', '0x10', '1234567890123456', '1e40', '.', '-', 'NaN', '1,5'])
    expect(one(text), text).toBeNull();
});
test('rows end at a line’s end, with or without a return', () => {
  const scan = new Scanner(strToU8('1 2 3\r\n\t4  5 6 \n7 8 9'));
  let at = 0;
  const rows = [];
  while (at < 20) {
    at = scan.row(at, out);
    if (!at) break;
    rows.push([...out]);
  }
  expect(rows).toEqual([
    [1, 2, 3],
    [4, 5, 6],
    [7, 8, 9],
  ]);
  expect(new Scanner(strToU8('1 2 3 4\n')).row(0, out)).toBe(0);
});
