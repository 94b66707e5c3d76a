/**
 * Full color at every place of a mosaic: linear interpolation corrected by the gradient of the color that was measured there
 * (Malvar, He and Cutler, "High-quality linear interpolation for demosaicing of Bayer-patterned color images", ICASSP 2004).
 * The filters take the channels to be balanced, so values are divided by the neutral before, and multiplied after.
 */
export interface Mosaic {
  width: number;
  height: number;
  /** channel of each of the 2 × 2 places, row-major, as the data begins */ cfa: readonly number[];
  black: readonly number[];
  white: readonly number[];
  neutral: readonly number[];
  samples: ArrayLike<number>;
}

/** What holds by place of a pattern, for a part that begins at (x, y) of it. */
export function phased<T>(four: readonly T[], x: number, y: number): T[] {
  return [0, 1, 2, 3].map((p) => four[((y + (p >> 1)) & 1) * 2 + ((x + (p & 1)) & 1)]!);
}

/** Interleaved RGB, 16 bits, 65535 = white level. Beyond the edges, the picture is mirrored. */
export function demosaic(mosaic: Mosaic): Uint16Array {
  const { width: w, height: h } = mosaic;
  const pad = 2;
  const pw = w + 2 * pad;
  const plane = new Float32Array(pw * (h + 2 * pad));
  const out = new Uint16Array(w * h * 3);
  /** Beyond an edge, the picture goes on as in a mirror that stands there. */
  const mirror = (v: number, n: number): number => {
    const inside = v >= n ? 2 * n - 2 - v : Math.abs(v);
    return Math.min(n - 1, Math.max(0, inside));
  };
  for (let y = -pad; y < h + pad; y++) {
    const sy = mirror(y, h);
    const p = (sy & 1) * 2;
    const at = (y + pad) * pw + pad;
    const row = sy * w;
    const k0 = 65535 / ((mosaic.white[p]! - mosaic.black[p]!) * mosaic.neutral[mosaic.cfa[p]!]!);
    const k1 = 65535 / ((mosaic.white[p + 1]! - mosaic.black[p + 1]!) * mosaic.neutral[mosaic.cfa[p + 1]!]!);
    const b0 = mosaic.black[p]!;
    const b1 = mosaic.black[p + 1]!;
    for (let x = 0; x < w; x += 2) {
      plane[at + x] = (mosaic.samples[row + x]! - b0) * k0;
      if (x + 1 < w) plane[at + x + 1] = (mosaic.samples[row + x + 1]! - b1) * k1;
    }
    for (const x of [-2, -1, w, w + 1]) plane[at + x] = plane[at + mirror(x, w)]!;
  }
  const put = (o: number, c: number, v: number): void => {
    const q = v * mosaic.neutral[c]!;
    out[o + c] = q >= 65535 ? 65535 : Math.max(0, q + 0.5);
  };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = (y + pad) * pw + x + pad;
      const o = (y * w + x) * 3;
      const here = mosaic.cfa[(y & 1) * 2 + (x & 1)]!;
      const c = plane[i]!;
      const n1 = plane[i - pw]!;
      const s1 = plane[i + pw]!;
      const w1 = plane[i - 1]!;
      const e1 = plane[i + 1]!;
      const vertical = plane[i - 2 * pw]! + plane[i + 2 * pw]!;
      const level = plane[i - 2]! + plane[i + 2]!;
      const corners = plane[i - pw - 1]! + plane[i - pw + 1]! + plane[i + pw - 1]! + plane[i + pw + 1]!;
      put(o, here, c);
      if (here === 1) {
        // of the two others, one stands beside, one above and below
        const beside = mosaic.cfa[(y & 1) * 2 + ((x + 1) & 1)]!;
        put(o, beside, (5 * c + 4 * (w1 + e1) - corners - level + 0.5 * vertical) / 8);
        put(o, 2 - beside, (5 * c + 4 * (n1 + s1) - corners - vertical + 0.5 * level) / 8);
      } else {
        put(o, 1, (4 * c + 2 * (n1 + s1 + w1 + e1) - vertical - level) / 8);
        put(o, 2 - here, (6 * c + 2 * corners - 1.5 * (vertical + level)) / 8);
      }
    }
  return out;
}
