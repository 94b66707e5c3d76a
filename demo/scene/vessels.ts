/** Scene one: glazed vessels on a linen cloth before a hung backdrop, with a strip of gray patches. */
import { box, cloud, noise, profile, smoothstep, vessel } from './shapes';
import type { Body, Scene } from './trace';

/** Material numbers are rows of demo/scene/materials.ts. */
const materials = {
  linen: 0,
  backdrop: 1,
  celadon: 2,
  copperRed: 3,
  cobalt: 4,
  tenmoku: 5,
  majolica: 6,
  clay: 7,
  gray: 8,
  ochre: 9,
};

const fold = (x: number, z: number): number => {
  const a = Math.sin(x * 0.75 + 0.5 * Math.sin(z * 0.6) + 0.9);
  const b = Math.sin(x * 0.42 - z * 1.05 + 1.3 + 0.4 * Math.sin(x * 0.7));
  const quiet = smoothstep(0.3, 2.3, Math.hypot(x * 0.62, (z + 0.2) * 0.8) - 1.1);
  return quiet * (0.1 * a * a * Math.sign(a) * 0.6 + 0.13 * Math.max(0, b) ** 3) - 0.02;
};

const hung = (x: number, y: number): number =>
  -3.4 +
  0.2 * Math.sin(x * 1.25 + 0.5 * Math.sin(y * 0.45 + x * 0.3)) +
  0.09 * Math.sin(x * 2.9 + 1.2 * Math.sin(y * 0.3) + 0.6);

function pot(
  name: string,
  material: number,
  cx: number,
  cz: number,
  points: [number, number][],
  extra: Partial<Body>,
  wall = 0.045,
): Body {
  const outline = profile(points);
  const mid = (outline.low + outline.high) / 2;
  return {
    name,
    material,
    sdf: vessel(cx, cz, points, wall),
    center: [cx, mid, cz],
    radius: Math.hypot((outline.high - outline.low) / 2, outline.widest) + 0.12,
    gloss: 0.045,
    rough: 0.035,
    ...extra,
  };
}

const angle = (x: number, z: number, cx: number, cz: number) => Math.atan2(z - cz, x - cx);

/** Glaze that runs: the second color shows at the rim, below a wandering edge, and in specks. */
const runs =
  (cx: number, cz: number, rim: number, foot: number, specks = 0.3) =>
  (x: number, y: number, z: number): number => {
    const a = angle(x, z, cx, cz);
    const edge = foot + 0.12 * Math.sin(a * 5) + 0.16 * noise(a * 3, 4, 1);
    const speck = smoothstep(0.72, 0.8, noise(x * 26, y * 26, z * 26)) * specks;
    return Math.min(
      1,
      Math.max(smoothstep(rim - 0.12, rim, y), 1 - smoothstep(edge - 0.05, edge + 0.04, y), speck) +
        0.25 * (cloud(x * 3, y * 3, z * 3) - 0.4),
    );
  };

const bodies: Body[] = [
  {
    name: 'cloth',
    material: materials.linen,
    center: [0, 0, 0],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => (y - fold(x, z)) * 0.88,
    pattern: (x, _y, z) =>
      0.5 * ((Math.sin(x * 95) > 0.2 ? 0.5 : 0) + (Math.sin(z * 95) > 0.2 ? 0.5 : 0)) * 0.6 +
      0.5 * cloud(x * 2, 0, z * 2),
    bump: (x, _y, z) => 0.0009 * (Math.sin(x * 95) + Math.sin(z * 95)),
  },
  {
    name: 'backdrop',
    material: materials.backdrop,
    center: [0, 0, 0],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => (z - hung(x, y)) * 0.82,
    pattern: (x, y, z) => cloud(x * 0.7, y * 0.7, z) * 0.9 + 0.1 * noise(x * 30, y * 30, 1),
  },
  pot(
    'bottle',
    materials.celadon,
    -1.55,
    -0.75,
    [
      [0, 0.5],
      [0.15, 0.56],
      [0.7, 0.82],
      [1.3, 0.78],
      [1.8, 0.42],
      [2.3, 0.22],
      [2.75, 0.2],
      [2.95, 0.33],
    ],
    {
      pattern: runs(-1.55, -0.75, 2.96, 0.16, 0.1),
      bump: (x, y, z) =>
        0.004 * Math.sin(18 * angle(x, z, -1.55, -0.75)) * smoothstep(1.4, 1.1, y) * smoothstep(0.2, 0.5, y),
    },
  ),
  pot(
    'jar',
    materials.copperRed,
    0.15,
    -1.7,
    [
      [0, 0.55],
      [0.12, 0.62],
      [0.8, 1.05],
      [1.4, 0.98],
      [1.75, 0.6],
      [1.9, 0.52],
      [2.05, 0.6],
    ],
    { pattern: runs(0.15, -1.7, 2.02, 0.3, 0.25) },
  ),
  pot(
    'tall',
    materials.ochre,
    1.75,
    -0.95,
    [
      [0, 0.42],
      [0.1, 0.46],
      [0.9, 0.5],
      [1.7, 0.66],
      [2.2, 0.5],
      [2.45, 0.36],
      [2.6, 0.44],
    ],
    {
      rough: 0.12,
      gloss: 0.035,
      pattern: (x, y, z) => {
        const a = angle(x, z, 1.75, -0.95);
        const band =
          smoothstep(0.06, 0.03, Math.abs(y - 1.9)) +
          smoothstep(0.05, 0.02, Math.abs(y - 1.3)) +
          smoothstep(0.05, 0.02, Math.abs(y - 0.7));
        const leaf =
          y > 1.36 && y < 1.84
            ? smoothstep(0.05, 0.0, Math.abs(Math.sin(a * 5 + (y - 1.6) * 2)) - 0.35 + Math.abs(y - 1.6))
            : 0;
        return Math.min(1, band + leaf + 0.15 * cloud(x * 4, y * 4, z * 4));
      },
    },
  ),
  pot(
    'bowl',
    materials.cobalt,
    0.72,
    0.62,
    [
      [0, 0.3],
      [0.1, 0.32],
      [0.22, 0.55],
      [0.5, 0.86],
      [0.8, 1.0],
    ],
    {
      pattern: (x, y, z) => {
        const inside =
          Math.hypot(x - 0.72, z - 0.62) < 0.9 && y > 0.2
            ? smoothstep(-0.01, 0.03, y - 0.1 - 0.95 * Math.hypot(x - 0.72, z - 0.62) ** 2.4)
            : 0;
        const rim = smoothstep(0.75, 0.8, y);
        return Math.min(1, Math.max(inside * 0.85, rim) + 0.18 * cloud(x * 5, y * 5, z * 5));
      },
    },
    0.035,
  ),
  pot(
    'cup',
    materials.tenmoku,
    -0.72,
    0.75,
    [
      [0, 0.26],
      [0.08, 0.28],
      [0.3, 0.4],
      [0.62, 0.44],
      [0.85, 0.46],
    ],
    { pattern: runs(-0.72, 0.75, 0.86, 0.2, 0.5), rough: 0.02 },
    0.03,
  ),
  pot(
    'dish',
    materials.majolica,
    -2.35,
    0.55,
    [
      [0, 0.4],
      [0.06, 0.46],
      [0.14, 0.8],
      [0.24, 1.05],
    ],
    {
      pattern: (x, _y, z) => {
        const r = Math.hypot(x + 2.35, z - 0.55);
        const a = angle(x, z, -2.35, 0.55);
        return Math.max(
          smoothstep(0.03, 0.0, Math.abs(r - 0.86) - 0.05),
          r < 0.7 ? smoothstep(0.1, 0, Math.abs(r - 0.42 - 0.16 * Math.cos(a * 6)) - 0.03) : 0,
        );
      },
    },
    0.03,
  ),
  {
    name: 'lemon one',
    material: materials.gray + 2,
    center: [2.55, 0.28, 0.45],
    radius: 0.45,
    gloss: 0.04,
    rough: 0.22,
    sdf: (x, y, z) => {
      const d = Math.hypot((x - 2.55) * 0.8, y - 0.28, z - 0.45) - 0.29;
      return Math.min(d, Math.hypot(x - 2.87, y - 0.28, z - 0.45) - 0.07) * 0.8;
    },
    pattern: (x, y, z) => cloud(x * 3, y * 3, z * 3),
    bump: (x, y, z) => 0.006 * noise(x * 34, y * 34, z * 34),
  },
  {
    name: 'apricot',
    material: materials.gray + 3,
    center: [2.1, 0.26, 0.95],
    radius: 0.34,
    gloss: 0.03,
    rough: 0.3,
    sdf: (x, y, z) =>
      Math.hypot(x - 2.1, y - 0.26, z - 0.95) -
      0.27 -
      0.012 * Math.min(0, Math.abs(Math.sin(Math.atan2(z - 0.95, x - 2.1) / 2)) - 0.12),
    pattern: (x, y, z) => smoothstep(0.1, 0.45, y + 0.5 * cloud(x * 2, y * 2, z * 2) - 0.25),
  },
  {
    name: 'gray strip',
    material: materials.gray,
    center: [0, 0.03, 1.62],
    radius: 0.95,
    gloss: 0,
    rough: 1,
    sdf: box(0, 0.03, 1.62, 0.86, 0.02, 0.17, 0.01),
    pattern: (x, _y, z) => {
      const k = Math.floor((x + 0.81) / 0.27);
      const inside =
        Math.abs(x) < 0.81 && Math.abs(z - 1.62) < 0.13 && Math.abs((((x + 0.81) / 0.27) % 1) - 0.5) < 0.45;
      return inside ? [1, 0.66, 0.4, 0.21, 0.09, 0.02][Math.max(0, Math.min(5, k))]! : 0.0;
    },
  },
];

export const vessels: Scene = {
  name: 'vessels',
  bodies,
  lights: [
    {
      center: [-5.2, 4.2, 2.2],
      u: [0.9, 0, 1.9],
      v: [0.0, 1.7, 0],
      normal: [0.72, -0.6, -0.34],
      power: 34,
      bars: [2, 3],
    },
    { center: [3.6, 4.6, 2.6], u: [0.45, 0, -0.45], v: [0, 0.5, 0], normal: [-0.6, -0.7, -0.38], power: 26 },
  ],
  camera: { eye: [0.15, 2.75, 7.6], target: [0.0, 1.12, -0.3], fov: 45 },
  dome: (dy) => 0.35 + 0.65 * Math.max(0, dy),
};
