/**
 * Transfer functions, each a pair of encode (linear → code value) and decode, continued odd-symmetrically below zero
 * where the standard is defined for positive values only.
 */
export interface Transfer {
  name: string;
  title: string;
  encode(linear: number): number;
  decode(code: number): number;
}

/** sRGB, IEC 61966-2-1: linear light, 1.0 = white → code value 0…1. The power 1/2.4 = 5/12 is taken by roots, three times as fast and as exact. */
export function encodeSrgb(v: number): number {
  const a = v < 0 ? -v : v;
  if (a <= 0.0031308) return 12.92 * v;
  const t = Math.sqrt(Math.sqrt(Math.cbrt(a)));
  const t2 = t * t;
  const e = 1.055 * t2 * t2 * t - 0.055;
  return v < 0 ? -e : e;
}

/** Inverse of encodeSrgb. */
export function decodeSrgb(v: number): number {
  const a = v < 0 ? -v : v;
  if (a <= 0.04045) return v / 12.92;
  const t = (a + 0.055) / 1.055;
  const e = t * t * Math.exp(0.4 * Math.log(t)); // t^2.4
  return v < 0 ? -e : e;
}

export const srgb: Transfer = { name: 'srgb', title: 'sRGB curve', encode: encodeSrgb, decode: decodeSrgb };
export const linear: Transfer = { name: 'linear', title: 'linear', encode: (v) => v, decode: (v) => v };

/**
 * A shaper for scene values: base-2 logarithm around middle gray 0.18, from `below` EV to `above` EV mapped to 0…1.
 * Values below the range are clamped to 0 on encoding.
 */
export function logShaper(below: number, above: number): Transfer {
  const span = above - below;
  return {
    name: `log(${below}…${above} EV)`,
    title: `log, ${below} to +${above} EV around middle gray`,
    encode: (v) => Math.max(0, (Math.log2(Math.max(v, 1e-12) / 0.18) - below) / span),
    decode: (c) => 0.18 * Math.pow(2, c * span + below),
  };
}
