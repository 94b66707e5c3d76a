/**
 * A 3D table over 8-bit RGBA pixels, tetrahedral, alpha kept, rounded half up. Written for speed: the place of each
 * of the 256 code values in the table is looked up, and strength is folded into the table beforehand, which is exact
 * since interpolation is linear in the table's entries and reproduces the identity. The work is done by a kernel in
 * WebAssembly (kernel/lut.ts); `applyPlain` is the same in plain steps, its reference and its stand-in.
 */
import { kernel } from './kernel/kernel';
import type { Look } from './look';
import { sampler } from './sample';

/** What `applyTo` needs of a look at one strength; make it once, use it for many pictures. */
export interface Prepared {
  table: Float32Array;
  size: number;
  offset: [Int32Array, Int32Array, Int32Array];
  fraction: [Float32Array, Float32Array, Float32Array];
}

/** `strength` as a factor. For 3D tables; see `applyLook` for both kinds. */
export function prepare(look: Look, strength = 1): Prepared {
  const { size, domain } = look;
  const last = size - 1;
  const table = new Float32Array(size ** 3 * 3);
  const nodes = [0, 1, 2].map((c) =>
    Float64Array.from({ length: size }, (_, i) => domain.min[c]! + ((domain.max[c]! - domain.min[c]!) * i) / last),
  );
  const [nr, ng, nb] = nodes as [Float64Array, Float64Array, Float64Array];
  const t = look.table;
  const kept = 1 - strength;
  let i = 0;
  for (let b = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, i += 3) {
        table[i] = 255 * (kept * nr[r]! + strength * t[i]!) + 0.5;
        table[i + 1] = 255 * (kept * ng[g]! + strength * t[i + 1]!) + 0.5;
        table[i + 2] = 255 * (kept * nb[b]! + strength * t[i + 2]!) + 0.5;
      }
  const step = [3, 3 * size, 3 * size * size];
  const offset = [0, 1, 2].map(() => new Int32Array(256)) as Prepared['offset'];
  const fraction = [0, 1, 2].map(() => new Float32Array(256)) as Prepared['fraction'];
  for (let c = 0; c < 3; c++)
    for (let v = 0; v < 256; v++) {
      const lo = domain.min[c]!;
      const hi = domain.max[c]!;
      const x = Math.min(hi, Math.max(lo, v / 255));
      const p = ((x - lo) / (hi - lo)) * last;
      const i = Math.min(last - 1, Math.floor(p + 1e-9));
      offset[c]![v] = i * step[c]!;
      fraction[c]![v] = Math.max(0, p - i);
    }
  return { table, size, offset, fraction };
}

/** Pixels from `source` through the table to `target`, both RGBA, 8 bits; they may be the same array. */
export function applyTo(prepared: Prepared, source: Uint8Array | Uint8ClampedArray, target: Uint8ClampedArray): void {
  if (!kernel()?.apply(prepared, source, target)) applyPlain(prepared, source, target);
}

/** Pixels through a look of either kind at a strength, as `applyTo`; a 1D table is asked for 256 answers by channel. */
export function applyLook(
  look: Look,
  strength: number,
  source: Uint8Array | Uint8ClampedArray,
  target: Uint8ClampedArray,
): void {
  if (look.kind === '3d') {
    applyTo(prepare(look, strength), source, target);
    return;
  }
  const evaluate = sampler(look, 'tetrahedral', strength);
  const values = new Float64Array(3);
  const table = new Uint8ClampedArray(768);
  for (let i = 0; i < 256; i++) {
    evaluate(i / 255, i / 255, i / 255, values, 0);
    for (let c = 0; c < 3; c++) table[c * 256 + i] = Math.floor(values[c]! * 255 + 0.5);
  }
  for (let i = 0; i < target.length; i += 4) {
    target[i] = table[source[i]!]!;
    target[i + 1] = table[256 + source[i + 1]!]!;
    target[i + 2] = table[512 + source[i + 2]!]!;
    target[i + 3] = source[i + 3]!;
  }
}

/** The same in plain steps. */
export function applyPlain(
  prepared: Prepared,
  source: Uint8Array | Uint8ClampedArray,
  target: Uint8ClampedArray,
): void {
  const table = prepared.table;
  const dg = prepared.size * 3;
  const db = prepared.size * prepared.size * 3;
  const all = 3 + dg + db;
  const [or, og, ob] = prepared.offset;
  const [fr, fg, fb] = prepared.fraction;
  const rg = 3 + dg;
  const rb = 3 + db;
  const gb = dg + db;
  for (let i = 0; i < source.length; i += 4) {
    const r = source[i]!;
    const g = source[i + 1]!;
    const b = source[i + 2]!;
    const x = fr[r]!;
    const y = fg[g]!;
    const z = fb[b]!;
    const o = (or[r]! + og[g]! + ob[b]!) | 0;
    let p: number;
    let q: number;
    let u: number;
    let v: number;
    let w: number;
    if (x >= y) {
      if (y >= z) {
        p = 3;
        q = rg;
        u = x;
        v = y;
        w = z;
      } else if (x >= z) {
        p = 3;
        q = rb;
        u = x;
        v = z;
        w = y;
      } else {
        p = db;
        q = rb;
        u = z;
        v = x;
        w = y;
      }
    } else if (z >= y) {
      p = db;
      q = gb;
      u = z;
      v = y;
      w = x;
    } else if (z >= x) {
      p = dg;
      q = gb;
      u = y;
      v = z;
      w = x;
    } else {
      p = dg;
      q = rg;
      u = y;
      v = x;
      w = z;
    }
    const k0 = 1 - u;
    const k1 = u - v;
    const k2 = v - w;
    const m = (o + p) | 0;
    const n = (o + q) | 0;
    const e = (o + all) | 0;
    // whole numbers are stored, so the array's own clamping applies and not its rounding
    target[i] = (k0 * table[o]! + k1 * table[m]! + k2 * table[n]! + w * table[e]!) | 0;
    target[i + 1] = (k0 * table[o + 1]! + k1 * table[m + 1]! + k2 * table[n + 1]! + w * table[e + 1]!) | 0;
    target[i + 2] = (k0 * table[o + 2]! + k1 * table[m + 2]! + k2 * table[n + 2]! + w * table[e + 2]!) | 0;
    target[i + 3] = source[i + 3]!;
  }
}

/** Any look, any depth: samples are interleaved with `channels` (3 or 4; alpha kept), `top` is full scale. */
export function applyAny(
  look: Look,
  data: Uint8Array | Uint16Array,
  channels: number,
  top: number,
  interpolation: 'tetrahedral' | 'trilinear',
  strength: number,
): void {
  const evaluate = sampler(look, interpolation, strength);
  const values = new Float64Array(3);
  for (let i = 0; i < data.length; i += channels) {
    evaluate(data[i]! / top, data[i + 1]! / top, data[i + 2]! / top, values, 0);
    for (let c = 0; c < 3; c++) data[i + c] = Math.floor(Math.min(1, Math.max(0, values[c]!)) * top + 0.5);
  }
}
