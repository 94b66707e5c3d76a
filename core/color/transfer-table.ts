/**
 * Powers from tables of cubic pieces, several times as fast as the powers themselves. The sRGB transfer is within 2e-10 of the
 * exact one between its straight part near black and four times white; outside, it is the exact one.
 */
import { decodeSrgb, encodeSrgb } from './transfer';

/** Of each 1 of what a table goes by. */
const PIECES = 512;
/** A table goes so far: what is lighter than white is frequent enough. */
const TOP = 2;

/** Four coefficients of each piece of 0…TOP, over the place within the piece, 0…1: Hermite's, from values and slopes at its ends. */
function pieces(curve: (x: number) => number, slope: (x: number) => number): Float64Array {
  const table = new Float64Array(PIECES * TOP * 4);
  for (let i = 0; i < PIECES * TOP; i++) {
    const from = curve(i / PIECES);
    const rise = curve((i + 1) / PIECES) - from;
    const into = slope(i / PIECES) / PIECES;
    const out = slope((i + 1) / PIECES) / PIECES;
    table.set([from, into, 3 * rise - 2 * into - out, into + out - 2 * rise], i * 4);
  }
  return table;
}

function piece(table: Float64Array, x: number): number {
  const place = x * PIECES;
  const i = place | 0;
  const f = place - i;
  const k = i << 2;
  return table[k]! + f * (table[k + 1]! + f * (table[k + 2]! + f * table[k + 3]!));
}

// the encoding is tabulated over the square root of the light, where it bends little
const encoding = pieces(
  (u) => 1.055 * u ** (5 / 6) - 0.055,
  (u) => (u === 0 ? 0 : ((1.055 * 5) / 6) * u ** (-1 / 6)),
);
const decoding = pieces(
  (v) => ((v + 0.055) / 1.055) ** 2.4,
  (v) => (2.4 / 1.055) * ((v + 0.055) / 1.055) ** 1.4,
);

/** From here on a power over √x bends little enough. */
const LEAST = 0.0025;
const MOST = TOP * TOP;

/** x^exponent over √x. */
const powers = (exponent: number): Float64Array =>
  pieces(
    (u) => (u === 0 ? 0 : u ** (2 * exponent)),
    (u) => (u === 0 ? 0 : 2 * exponent * u ** (2 * exponent - 1)),
  );

/** x ↦ x^exponent for x above 0: within 4e-9 of the power on 0.0025…4, relative to it above 1; exact outside. */
export function powerQuickly(exponent: number): (x: number) => number {
  const table = powers(exponent);
  return (x) => (x > LEAST && x < MOST ? piece(table, Math.sqrt(x)) : Math.pow(x, exponent));
}

const roots = powers(1 / 3);

/** The cube root, within 1e-9 on 0.0025…4; exact outside. */
export function cubeRootQuickly(x: number): number {
  return x > LEAST && x < MOST ? piece(roots, Math.sqrt(x)) : Math.cbrt(x);
}

export function encodeSrgbQuickly(v: number): number {
  return v > 0.0031308 && v < MOST ? piece(encoding, Math.sqrt(v)) : encodeSrgb(v);
}

export function decodeSrgbQuickly(v: number): number {
  return v > 0.04045 && v < TOP ? piece(decoding, v) : decodeSrgb(v);
}
