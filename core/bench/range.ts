/**
 * Range compression: a scene's range in EV is brought into another, details kept. Log luminance is split into a base, by
 * the guided filter (He, Sun, Tang, IEEE Transactions on Pattern Analysis and Machine Intelligence 35, 2013), and detail;
 * the base alone is compressed about middle gray.
 */
import { decodeSrgb, encodeSrgb } from '../color/transfer';

/** Ends in EV about middle gray; `edge`: the filter's radius in percent of the diagonal; `detail`: what is kept of it, as a factor. */
export interface RangeCompression {
  inLow: number;
  inHigh: number;
  outLow: number;
  outHigh: number;
  edge: number;
  detail: number;
}
export const usualRange: RangeCompression = { inLow: -6, inHigh: 2.5, outLow: -4.5, outHigh: 2, edge: 4, detail: 1 };

/** Means over squares of radius r, edges held to the picture, by running sums. */
function box(src: Float32Array, w: number, h: number, r: number): Float32Array {
  const mid = new Float32Array(src.length);
  const out = new Float32Array(src.length);
  for (let y = 0; y < h; y++) {
    let s = 0;
    let n = 0;
    const o = y * w;
    for (let x = 0; x < Math.min(r, w); x++) {
      s += src[o + x]!;
      n++;
    }
    for (let x = 0; x < w; x++) {
      if (x + r < w) {
        s += src[o + x + r]!;
        n++;
      }
      if (x - r - 1 >= 0) {
        s -= src[o + x - r - 1]!;
        n--;
      }
      mid[o + x] = s / n;
    }
  }
  for (let x = 0; x < w; x++) {
    let s = 0;
    let n = 0;
    for (let y = 0; y < Math.min(r, h); y++) {
      s += mid[y * w + x]!;
      n++;
    }
    for (let y = 0; y < h; y++) {
      if (y + r < h) {
        s += mid[(y + r) * w + x]!;
        n++;
      }
      if (y - r - 1 >= 0) {
        s -= mid[(y - r - 1) * w + x]!;
        n--;
      }
      out[y * w + x] = s / n;
    }
  }
  return out;
}

/** What the base is made of at each place of a picture: base = a · (log luminance) + b; small, and smooth but at edges. */
export interface RangeField {
  width: number;
  height: number;
  a: Float32Array;
  b: Float32Array;
}
const light = new Float64Array(256).map((_, i) => decodeSrgb(i / 255));
const floor = 0.18 * 2 ** -9;
const evOf = (pixels: Uint8ClampedArray, i: number): number =>
  Math.log2(
    Math.max(floor, 0.2126 * light[pixels[i]!]! + 0.7152 * light[pixels[i + 1]!]! + 0.0722 * light[pixels[i + 2]!]!) /
      0.18,
  );

export function rangeField(
  pixels: Uint8ClampedArray,
  w: number,
  h: number,
  rangeCompression: RangeCompression,
): RangeField {
  const count = w * h;
  const ev = new Float32Array(count);
  const r = Math.max(1, Math.round((Math.hypot(w, h) * rangeCompression.edge) / 100));
  for (let i = 0, k = 0; k < count; i += 4, k++) ev[k] = evOf(pixels, i);
  const mean = box(ev, w, h, r);
  const square = box(
    ev.map((v) => v * v),
    w,
    h,
    r,
  );
  const values = new Float32Array(count);
  const b = new Float32Array(count);
  const eps = 0.16;
  for (let k = 0; k < count; k++) {
    const v = Math.max(0, square[k]! - mean[k]! ** 2);
    values[k] = v / (v + eps);
    b[k] = mean[k]! * (1 - values[k]!);
  }
  return { width: w, height: h, a: box(values, w, h, r), b: box(b, w, h, r) };
}

/**
 * In place on RGBA of 8 bits, sRGB; colors keep their ratios. `p` may be a part of a larger rendering of the same picture
 * (`part`: its place and the whole's size): the field is then read between its places (He, Sun, "Fast guided filter", 2015).
 */
export function applyRange(
  pixels: Uint8ClampedArray,
  w: number,
  h: number,
  rangeCompression: RangeCompression,
  field: RangeField,
  part: { x: number; y: number; width: number; height: number } = { x: 0, y: 0, width: w, height: h },
): void {
  const below = rangeCompression.outLow / rangeCompression.inLow;
  const above = rangeCompression.outHigh / rangeCompression.inHigh;
  const code = new Uint8ClampedArray(4097).map((_, i) => Math.round(255 * encodeSrgb((i / 4096) ** 2)));
  const kx = field.width / part.width;
  const ky = field.height / part.height;
  const same = part.width === field.width && part.height === field.height;
  for (let y = 0, i = 0; y < h; y++) {
    const fy = Math.min(field.height - 1, Math.max(0, (part.y + y + 0.5) * ky - 0.5));
    const y0 = Math.floor(fy);
    const y1 = Math.min(field.height - 1, y0 + 1);
    const v = fy - y0;
    for (let x = 0; x < w; x++, i += 4) {
      let a: number;
      let b: number;
      if (same) {
        const k = (part.y + y) * field.width + part.x + x;
        a = field.a[k]!;
        b = field.b[k]!;
      } else {
        const fx = Math.min(field.width - 1, Math.max(0, (part.x + x + 0.5) * kx - 0.5));
        const x0 = Math.floor(fx);
        const x1 = Math.min(field.width - 1, x0 + 1);
        const u = fx - x0;
        const p00 = y0 * field.width + x0;
        const p01 = y0 * field.width + x1;
        const p10 = y1 * field.width + x0;
        const p11 = y1 * field.width + x1;
        const mix = (values: Float32Array): number =>
          (values[p00]! * (1 - u) + values[p01]! * u) * (1 - v) + (values[p10]! * (1 - u) + values[p11]! * u) * v;
        a = mix(field.a);
        b = mix(field.b);
      }
      const ev = evOf(pixels, i);
      const base = a * ev + b;
      const gain = 2 ** ((base < 0 ? base * below : base * above) + rangeCompression.detail * (ev - base) - ev);
      for (let q = 0; q < 3; q++)
        pixels[i + q] = code[Math.min(4096, Math.round(4096 * Math.sqrt(Math.min(1, light[pixels[i + q]!]! * gain))))]!;
    }
  }
}

export function compressRange(
  pixels: Uint8ClampedArray,
  w: number,
  h: number,
  rangeCompression: RangeCompression,
): void {
  applyRange(pixels, w, h, rangeCompression, rangeField(pixels, w, h, rangeCompression));
}
