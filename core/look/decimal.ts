/** Numbers as text for tables of many thousand: eight decimals written straight into bytes, some ten times as fast as strings. */

/** Eight decimals, the stated quantization of what we write (5e-9); "1" and "0" are written short. */
const UNIT = 1e8;
/** The four digits of each number below 10,000. */
const FOUR = new Uint8Array(40000);
for (let i = 0, at = 0; i < 10000; i++) for (const c of String(i).padStart(4, '0')) FOUR[at++] = c.charCodeAt(0);

/** Writes a number's decimal digits at a place in the bytes; gives the place behind them. */
export function putDecimal(out: Uint8Array, at: number, v: number): number {
  const a0 = v < 0 ? -v : v;
  let whole: number, rest: number;
  if (a0 < 20) { const n = (a0 * UNIT + 0.5) | 0; whole = (n / UNIT) | 0; rest = (n - whole * UNIT) | 0; } // whole numbers of 32 bits are quicker
  else { const n = Math.round(a0 * UNIT); whole = Math.floor(n / UNIT); rest = n - whole * UNIT; }
  if (v < 0 && (whole > 0 || rest > 0)) out[at++] = 45;
  if (whole < 10) out[at++] = 48 + whole;
  else for (const c of String(whole)) out[at++] = c.charCodeAt(0);
  if (rest === 0) return at;
  const high = (rest / 10000) | 0, a = high << 2, b = (rest - high * 10000) << 2;
  out[at] = 46;
  out[at + 1] = FOUR[a]!; out[at + 2] = FOUR[a + 1]!; out[at + 3] = FOUR[a + 2]!; out[at + 4] = FOUR[a + 3]!;
  out[at + 5] = FOUR[b]!; out[at + 6] = FOUR[b + 1]!; out[at + 7] = FOUR[b + 2]!; out[at + 8] = FOUR[b + 3]!;
  return at + 9;
}

/** Rows of three numbers, one a line, for values in the order that `at` gives their place in. */
export function rowsOf(table: Float32Array, rows: number, at: (row: number) => number): Uint8Array {
  let widest = 1;
  for (let i = 0; i < table.length; i++) { const a = Math.abs(table[i]!); if (a > widest) widest = a; }
  const out = new Uint8Array(rows * 3 * (11 + String(Math.ceil(widest)).length));
  let end = 0;
  for (let r = 0; r < rows; r++) {
    const i = at(r);
    end = putDecimal(out, end, table[i]!); out[end++] = 32;
    end = putDecimal(out, end, table[i + 1]!); out[end++] = 32;
    end = putDecimal(out, end, table[i + 2]!); out[end++] = 10;
  }
  return out.subarray(0, end);
}
