/**
 * Numbers as text for tables of many thousand: eight decimals written straight into bytes. It is our own because a table of 65
 * points has 823,875 numbers, and a string for each of them is slow.
 */

/** Eight decimals, the stated quantization of what we write (5e-9); "1" and "0" are written short. */
const UNIT = 1e8;
/** The four digits of each number below 10,000. */
const FOUR = new Uint8Array(40000);
for (let i = 0, at = 0; i < 10000; i++) for (const c of String(i).padStart(4, '0')) FOUR[at++] = c.charCodeAt(0);

/** Writes a number's decimal digits at a place in the bytes; gives the place behind them. */
export function putDecimal(out: Uint8Array, at: number, v: number): number {
  const a0 = v < 0 ? -v : v;
  let whole: number;
  let rest: number;
  if (a0 < 20) {
    const n = (a0 * UNIT + 0.5) | 0;
    whole = (n / UNIT) | 0;
    rest = (n - whole * UNIT) | 0;
  } // whole numbers of 32 bits are quicker
  else {
    const n = Math.round(a0 * UNIT);
    whole = Math.floor(n / UNIT);
    rest = n - whole * UNIT;
  }
  if (v < 0 && (whole > 0 || rest > 0)) out[at++] = 45;
  if (whole < 10) out[at++] = 48 + whole;
  else for (const c of String(whole)) out[at++] = c.charCodeAt(0);
  if (rest === 0) return at;
  const high = (rest / 10000) | 0;
  const a = high << 2;
  const b = (rest - high * 10000) << 2;
  out[at] = 46;
  out[at + 1] = FOUR[a]!;
  out[at + 2] = FOUR[a + 1]!;
  out[at + 3] = FOUR[a + 2]!;
  out[at + 4] = FOUR[a + 3]!;
  out[at + 5] = FOUR[b]!;
  out[at + 6] = FOUR[b + 1]!;
  out[at + 7] = FOUR[b + 2]!;
  out[at + 8] = FOUR[b + 3]!;
  return at + 9;
}

/** Rows of three numbers, one a line, for values in the order that `at` gives their place in. */
export function rowsOf(table: Float32Array, rows: number, at: (row: number) => number): Uint8Array {
  let widest = 1;
  for (let i = 0; i < table.length; i++) {
    const a = Math.abs(table[i]!);
    if (a > widest) widest = a;
  }
  const out = new Uint8Array(rows * 3 * (11 + String(Math.ceil(widest)).length));
  let end = 0;
  for (let r = 0; r < rows; r++) {
    const i = at(r);
    end = putDecimal(out, end, table[i]!);
    out[end++] = 32;
    end = putDecimal(out, end, table[i + 1]!);
    out[end++] = 32;
    end = putDecimal(out, end, table[i + 2]!);
    out[end++] = 10;
  }
  return out.subarray(0, end);
}

const tens = Array.from({ length: 23 }, (_, i) => Number(`1e${i}`));

/**
 * Reads rows of three plain decimal numbers in a text, given as one byte a character, without cutting it into pieces. A
 * number of up to 15 digits and an exponent within ±22 is the quotient or product of two exact doubles, hence rounded as
 * `Number` rounds it (Clinger, PLDI 1990); any other row is left to the caller.
 */
export class Scanner {
  private end = 0;
  constructor(private readonly text: Uint8Array) {}

  /** The three numbers at `at`, and where the next line begins; 0 where the row is not that plain. */
  row(at: number, out: Float64Array): number {
    const text = this.text;
    let p = at;
    for (let c = 0; c < 3; c++) {
      while (text[p] === 32 || text[p] === 9) p++;
      const v = this.number(p);
      if (this.end < 0) return 0;
      out[c] = v;
      p = this.end;
      if (c < 2 && text[p] !== 32 && text[p] !== 9) return 0;
    }
    while (text[p] === 32 || text[p] === 9 || text[p] === 13) p++;
    if (p >= text.length) return text.length;
    return text[p] === 10 ? p + 1 : 0;
  }

  // eslint-disable-next-line complexity -- one pass over the digits of a file of megabytes, with its state in locals
  private number(at: number): number {
    const text = this.text;
    const n = text.length;
    this.end = -1;
    let p = at;
    let code = p < n ? text[p]! : 0;
    const negative = code === 45;
    if (negative || code === 43) code = ++p < n ? text[p]! : 0;
    // up to nine digits are a small whole number, which is quick; the rest go into a second one
    let high = 0;
    let low = 0;
    let digits = 0;
    let lows = 0;
    let scale = 0;
    let any = false;
    let point = false;
    for (;;) {
      const d = code - 48;
      if (d >= 0 && d <= 9) {
        any = true;
        if (point) scale--;
        if (digits < 9) {
          high = (high * 10 + d) | 0;
          if (high !== 0) digits++;
        } else {
          low = (low * 10 + d) | 0;
          digits++;
          lows++;
          if (digits > 15) return 0;
        }
      } else if (code === 46 && !point) point = true;
      else break;
      code = ++p < n ? text[p]! : 0;
    }
    if (!any) return 0;
    if (code === 101 || code === 69) {
      let sign = 1;
      let e = 0;
      let some = false;
      code = ++p < n ? text[p]! : 0;
      if (code === 45 || code === 43) {
        sign = code === 45 ? -1 : 1;
        code = ++p < n ? text[p]! : 0;
      }
      for (; code >= 48 && code <= 57 && e < 1000; code = ++p < n ? text[p]! : 0) {
        some = true;
        e = e * 10 + code - 48;
      }
      if (!some) return 0;
      scale += sign * e;
    }
    if (scale < -22 || scale > 22) return 0;
    this.end = p;
    const value = lows ? high * tens[lows]! + low : high;
    const v = scale < 0 ? value / tens[-scale]! : value * tens[scale]!;
    return negative ? -v : v;
  }
}
