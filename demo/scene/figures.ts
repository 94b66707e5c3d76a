/** Figures that stand in the demo scenes, and what they wear. */
import { blend, capsule, sphere, type Sdf } from './shapes';

export const union =
  (...sdfs: Sdf[]): Sdf =>
  (x, y, z) => {
    let d = 1e9;
    for (const f of sdfs) d = Math.min(d, f(x, y, z));
    return d;
  };

/** A skirt: a bell with folds about its axis. */
export const skirt =
  (cx: number, cz: number, top: number, wide: number, folds: number, deep: number): Sdf =>
  (x, y, z) => {
    const a = Math.atan2(z - cz, x - cx);
    const h = Math.min(1, Math.max(0, (top - y) / top));
    const r =
      0.08 +
      (wide - 0.08) * (0.35 * h + 0.65 * h * h) +
      deep * h * h * Math.sin(a * folds + 1.5 * Math.sin(a * 2 + h * 2));
    return Math.max((Math.hypot(x - cx, z - cz) - r) * 0.62, y - top, 0.02 - y);
  };

/** Head, neck, trunk and arms of a figure facing the house. */
export function figure(
  cx: number,
  cz: number,
  waist: number,
  lift: number,
): { skin: Sdf; head: [number, number, number] } {
  const hy = waist + 0.62;
  const head: Sdf = (x, y, z) => {
    const dx = x - cx;
    const dy = y - hy;
    const dz = z - cz;
    let d = Math.hypot(dx / 0.9, dy / 1.16, dz) - 0.13;
    d = blend(d, Math.hypot(dx, dy + 0.015, dz - 0.128) - 0.026, 0.05);
    d = blend(d, Math.hypot(dx, dy + 0.085, dz - 0.075) - 0.05, 0.06);
    const eye =
      Math.min(Math.hypot(dx - 0.05, dy - 0.03, dz - 0.13), Math.hypot(dx + 0.05, dy - 0.03, dz - 0.13)) - 0.03;
    return Math.max(d, -eye) * 0.85;
  };
  const neck = capsule(cx, hy - 0.1, cz, cx, waist + 0.36, cz, 0.05);
  const hands = union(
    sphere(cx - 0.42, waist + 0.05 + lift, cz + 0.18, 0.05),
    sphere(cx + 0.4, waist - 0.05, cz + 0.16, 0.05),
    capsule(cx - 0.36, waist + 0.08 + lift, cz + 0.12, cx - 0.42, waist + 0.05 + lift, cz + 0.18, 0.036),
    capsule(cx + 0.34, waist + 0.02, cz + 0.1, cx + 0.4, waist - 0.05, cz + 0.16, 0.036),
  );
  return { skin: (x, y, z) => Math.min(blend(head(x, y, z), neck(x, y, z), 0.04), hands(x, y, z)), head: [cx, hy, cz] };
}

export const trunk = (cx: number, cz: number, waist: number, lift: number): Sdf => {
  const body = capsule(cx, waist + 0.02, cz, cx, waist + 0.27, cz, 0.125);
  const shoulders = capsule(cx - 0.16, waist + 0.32, cz, cx + 0.16, waist + 0.32, cz, 0.075);
  const left = capsule(cx - 0.18, waist + 0.32, cz, cx - 0.33, waist + 0.16 + lift * 0.5, cz + 0.05, 0.062);
  const leftFore = capsule(
    cx - 0.33,
    waist + 0.16 + lift * 0.5,
    cz + 0.05,
    cx - 0.37,
    waist + 0.08 + lift,
    cz + 0.13,
    0.055,
  );
  const right = capsule(cx + 0.18, waist + 0.32, cz, cx + 0.3, waist + 0.14, cz + 0.03, 0.062);
  const rightFore = capsule(cx + 0.3, waist + 0.14, cz + 0.03, cx + 0.35, waist + 0.02, cz + 0.11, 0.055);
  return (x, y, z) =>
    blend(
      blend(body(x, y, z), shoulders(x, y, z), 0.08),
      blend(Math.min(left(x, y, z), leftFore(x, y, z)), Math.min(right(x, y, z), rightFore(x, y, z)), 0.04),
      0.06,
    );
};

export const hair =
  (h: [number, number, number], bun: number): Sdf =>
  (x, y, z) =>
    Math.max(
      blend(
        Math.hypot(x - h[0], (y - h[1] - 0.03) * 0.9, z - h[2] + 0.035) - 0.145,
        Math.hypot(x - h[0], y - h[1] - bun, z - h[2] + 0.1) - 0.075,
        0.05,
      ),
      -(Math.hypot((x - h[0]) * 1.15, (y - h[1] + 0.05) * 0.8, z - h[2] - 0.13) - 0.155),
    ) * 0.8;

/** The steps of a gray card, from white to black, where each is so wide; black between them and around. */
export const graySteps =
  (left: number, wide: number, middle: number, high: number) =>
  (x: number, y: number): number => {
    const step = Math.floor((x - left) / wide);
    const within = Math.abs((((x - left) / wide) % 1) - 0.5) < 0.45 && Math.abs(y - middle) < high;
    return (within && [1, 0.66, 0.4, 0.21, 0.09, 0.02][step]) || 0;
  };
