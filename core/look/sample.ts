/**
 * Sampling of tables. Inputs are clamped to the domain (x̂); the result is x̂ + s·(f(x̂) − x̂) at strength s.
 * Tetrahedral: Sakamoto's division of the cell into six tetrahedra along the neutral diagonal (US patent 4,275,413, expired).
 */
import type { Look } from './look';

export type Interpolation = 'tetrahedral' | 'trilinear';
/** Evaluates one color: input r, g, b; the result is written to out[at…at+2]. */
export type Evaluate = (r: number, g: number, b: number, out: Float64Array | Float32Array, at: number) => void;

/** The sampler of a look. `strength` is a factor: 0 no effect, 1 as made, above that extrapolated. */
export function sampler(
  look: Look,
  interpolation: Interpolation = look.interpolation ?? 'tetrahedral',
  strength = 1,
): Evaluate {
  const table = interpolation === 'trilinear' ? trilinear : tetrahedral;
  const bare = look.kind === '1d' ? curves(look) : table(look);
  const [r0, g0, b0] = look.domain.min as [number, number, number];
  const [r1, g1, b1] = look.domain.max as [number, number, number];
  const hold = (v: number, a: number, b: number): number => {
    if (v < a) return a;
    if (v > b) return b;
    if (v === v) return v;
    return a;
  };
  return (r, g, b, out, at) => {
    const x = hold(r, r0, r1);
    const y = hold(g, g0, g1);
    const z = hold(b, b0, b1);
    bare(x, y, z, out, at);
    if (strength !== 1) {
      out[at] = x + strength * (out[at]! - x);
      out[at + 1] = y + strength * (out[at + 1]! - y);
      out[at + 2] = z + strength * (out[at + 2]! - z);
    }
  };
}

function scales(look: Look): number[] {
  return [0, 1, 2].map((c) => (look.size - 1) / (look.domain.max[c]! - look.domain.min[c]!));
}

function curves(look: Look): Evaluate {
  const { table, size, domain } = look;
  const scale = scales(look);
  const last = size - 1;
  const one = (v: number, c: number): number => {
    const p = (v - domain.min[c]!) * scale[c]!;
    const i = Math.min(last - 1, Math.floor(p));
    const f = p - i;
    const a = table[i * 3 + c]!;
    return a + f * (table[(i + 1) * 3 + c]! - a);
  };
  return (r, g, b, out, at) => {
    out[at] = one(r, 0);
    out[at + 1] = one(g, 1);
    out[at + 2] = one(b, 2);
  };
}

function trilinear(look: Look): Evaluate {
  const { table, size, domain } = look;
  const scale = scales(look);
  const last = size - 2;
  const dg = size * 3;
  const db = size * size * 3;
  return (r, g, b, out, at) => {
    const x = (r - domain.min[0]!) * scale[0]!;
    const y = (g - domain.min[1]!) * scale[1]!;
    const z = (b - domain.min[2]!) * scale[2]!;
    const i = Math.min(last, Math.floor(x));
    const j = Math.min(last, Math.floor(y));
    const l = Math.min(last, Math.floor(z));
    const fx = x - i;
    const fy = y - j;
    const fz = z - l;
    const o = i * 3 + j * dg + l * db;
    for (let c = 0; c < 3; c++) {
      const p = o + c;
      const a = table[p]! + fx * (table[p + 3]! - table[p]!);
      const d = table[p + dg]! + fx * (table[p + dg + 3]! - table[p + dg]!);
      const e = table[p + db]! + fx * (table[p + db + 3]! - table[p + db]!);
      const h = table[p + dg + db]! + fx * (table[p + dg + db + 3]! - table[p + dg + db]!);
      const low = a + fy * (d - a);
      const high = e + fy * (h - e);
      out[at + c] = low + fz * (high - low);
    }
  };
}

function tetrahedral(look: Look): Evaluate {
  const { table, size, domain } = look;
  const scale = scales(look);
  const last = size - 2;
  const dg = size * 3;
  const db = size * size * 3;
  const all = 3 + dg + db;
  return (r, g, b, out, at) => {
    const x = (r - domain.min[0]!) * scale[0]!;
    const y = (g - domain.min[1]!) * scale[1]!;
    const z = (b - domain.min[2]!) * scale[2]!;
    const i = Math.min(last, Math.floor(x));
    const j = Math.min(last, Math.floor(y));
    const l = Math.min(last, Math.floor(z));
    const fx = x - i;
    const fy = y - j;
    const fz = z - l;
    const o = i * 3 + j * dg + l * db;
    // the largest fraction is walked first, then the middle one: two corners between the cell's ends
    let p: number;
    let q: number;
    let u: number;
    let v: number;
    let w: number;
    if (fx >= fy) {
      if (fy >= fz) {
        p = 3;
        q = 3 + dg;
        u = fx;
        v = fy;
        w = fz;
      } else if (fx >= fz) {
        p = 3;
        q = 3 + db;
        u = fx;
        v = fz;
        w = fy;
      } else {
        p = db;
        q = db + 3;
        u = fz;
        v = fx;
        w = fy;
      }
    } else if (fz >= fy) {
      p = db;
      q = db + dg;
      u = fz;
      v = fy;
      w = fx;
    } else if (fz >= fx) {
      p = dg;
      q = dg + db;
      u = fy;
      v = fz;
      w = fx;
    } else {
      p = dg;
      q = dg + 3;
      u = fy;
      v = fx;
      w = fz;
    }
    const a = 1 - u;
    const d = u - v;
    const e = v - w;
    for (let c = 0; c < 3; c++) {
      const n = o + c;
      out[at + c] = a * table[n]! + d * table[n + p]! + e * table[n + q]! + w * table[n + all]!;
    }
  };
}
