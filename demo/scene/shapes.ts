/**
 * Signed distance shapes of the demo scenes and the noise that gives them texture.
 * Lengths are in decimeters. Distances may be shortened (never lengthened), so sphere tracing stays safe.
 */

export type Sdf = (x: number, y: number, z: number) => number;

/** Integer lattice hash to 0…1. */
function lattice(ix: number, iy: number, iz: number): number {
  let h = Math.imul(ix, 374761393) ^ Math.imul(iy, 668265263) ^ Math.imul(iz, 2147483647 - 1013904223);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  h ^= h >>> 16;
  return (h >>> 0) / 4294967296;
}

/** Value noise, 0…1, smooth, one feature a unit. */
export function noise(x: number, y: number, z: number): number {
  const ix = Math.floor(x);
  const iy = Math.floor(y);
  const iz = Math.floor(z);
  let fx = x - ix;
  let fy = y - iy;
  let fz = z - iz;
  fx = fx * fx * (3 - 2 * fx);
  fy = fy * fy * (3 - 2 * fy);
  fz = fz * fz * (3 - 2 * fz);
  const a = lattice(ix, iy, iz) + (lattice(ix + 1, iy, iz) - lattice(ix, iy, iz)) * fx;
  const b = lattice(ix, iy + 1, iz) + (lattice(ix + 1, iy + 1, iz) - lattice(ix, iy + 1, iz)) * fx;
  const c = lattice(ix, iy, iz + 1) + (lattice(ix + 1, iy, iz + 1) - lattice(ix, iy, iz + 1)) * fx;
  const d = lattice(ix, iy + 1, iz + 1) + (lattice(ix + 1, iy + 1, iz + 1) - lattice(ix, iy + 1, iz + 1)) * fx;
  const e = a + (b - a) * fy;
  const f = c + (d - c) * fy;
  return e + (f - e) * fz;
}

/** Four octaves of value noise, about 0…1. */
export function cloud(x: number, y: number, z: number): number {
  return (
    (noise(x, y, z) * 8 +
      noise(x * 2.03, y * 2.03, z * 2.03) * 4 +
      noise(x * 4.1, y * 4.1, z * 4.1) * 2 +
      noise(x * 8.3, y * 8.3, z * 8.3)) /
    15
  );
}

export const smoothstep = (a: number, b: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
};

/** Smooth union of two distances with blending radius k. */
export const blend = (a: number, b: number, k: number): number => {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - h * h * k * 0.25;
};

export const sphere =
  (cx: number, cy: number, cz: number, r: number): Sdf =>
  (x, y, z) =>
    Math.hypot(x - cx, y - cy, z - cz) - r;

/** Box with rounded edges, turned about the vertical by `turn` radians. */
export function box(
  cx: number,
  cy: number,
  cz: number,
  hx: number,
  hy: number,
  hz: number,
  round = 0.02,
  turn = 0,
): Sdf {
  const c = Math.cos(turn);
  const s = Math.sin(turn);
  return (x, y, z) => {
    const dx = x - cx;
    const dz = z - cz;
    const qx = Math.abs(c * dx - s * dz) - hx + round;
    const qy = Math.abs(y - cy) - hy + round;
    const qz = Math.abs(s * dx + c * dz) - hz + round;
    return Math.hypot(Math.max(qx, 0), Math.max(qy, 0), Math.max(qz, 0)) + Math.min(Math.max(qx, qy, qz), 0) - round;
  };
}

/** Capsule between two points. */
export function capsule(ax: number, ay: number, az: number, bx: number, by: number, bz: number, r: number): Sdf {
  const ux = bx - ax;
  const uy = by - ay;
  const uz = bz - az;
  const uu = ux * ux + uy * uy + uz * uz;
  return (x, y, z) => {
    const px = x - ax;
    const py = y - ay;
    const pz = z - az;
    const t = Math.min(1, Math.max(0, (px * ux + py * uy + pz * uz) / uu));
    return Math.hypot(px - ux * t, py - uy * t, pz - uz * t) - r;
  };
}

/** Radius and its slope along a profile of [height, radius] pairs, as a table of a cubic through the points. */
export function profile(points: [number, number][]): {
  at(y: number): number;
  slope: number;
  low: number;
  high: number;
  widest: number;
} {
  const low = points[0]![0];
  const high = points[points.length - 1]![0];
  const steps = 400;
  const table = new Float64Array(steps + 1);
  for (let i = 0; i <= steps; i++) {
    const y = low + ((high - low) * i) / steps;
    let k = 0;
    while (k < points.length - 2 && points[k + 1]![0] < y) k++;
    const p0 = points[Math.max(0, k - 1)]!;
    const p1 = points[k]!;
    const p2 = points[k + 1]!;
    const p3 = points[Math.min(points.length - 1, k + 2)]!;
    const h = p2[0] - p1[0];
    const t = (y - p1[0]) / h;
    const m1 = ((p2[1] - p0[1]) / (p2[0] - p0[0] || 1)) * h;
    const m2 = ((p3[1] - p1[1]) / (p3[0] - p1[0] || 1)) * h;
    table[i] =
      (2 * t ** 3 - 3 * t * t + 1) * p1[1] +
      (t ** 3 - 2 * t * t + t) * m1 +
      (3 * t * t - 2 * t ** 3) * p2[1] +
      (t ** 3 - t * t) * m2;
  }
  let steep = 0;
  let widest = 0;
  for (let i = 0; i <= steps; i++) {
    if (i) steep = Math.max(steep, Math.abs(table[i]! - table[i - 1]!) / ((high - low) / steps));
    widest = Math.max(widest, table[i]!);
  }
  return {
    at(y) {
      const f = Math.min(steps - 1e-9, Math.max(0, ((y - low) / (high - low)) * steps));
      const i = Math.floor(f);
      return table[i]! + (table[i + 1]! - table[i]!) * (f - i);
    },
    slope: Math.min(steep, 3),
    low,
    high,
    widest,
  };
}

/** A turned vessel standing at (cx, cz): a shell of the given wall with an open mouth and a closed foot. */
export function vessel(cx: number, cz: number, points: [number, number][], wall = 0.05): Sdf {
  const outline = profile(points);
  const k = 1 / Math.sqrt(1 + outline.slope * outline.slope);
  return (x, y, z) => {
    const rho = Math.hypot(x - cx, z - cz);
    const radial = (Math.abs(rho - outline.at(y) + wall) - wall) * k;
    const cap = Math.max(y - outline.high, outline.low - y);
    const shell = cap > 0 ? Math.hypot(cap, Math.max(radial, 0)) - 0.012 : Math.max(radial, cap) - 0.012;
    const foot = Math.max(rho - outline.at(outline.low + 0.1), Math.abs(y - outline.low - 0.08) - 0.06);
    return Math.min(shell, foot);
  };
}
