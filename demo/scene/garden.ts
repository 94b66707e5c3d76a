/** Scene five: a painted drop of sky and trees behind a hedge and a climbing plant of real leaves, as a stage has them. */
import { graySteps, union } from './figures';
import { box, capsule, cloud, noise, smoothstep, type Sdf } from './shapes';
import type { Body, Scene } from './trace';

const material = { floor: 20, sky: 53, hedge: 54, ivy: 55, bark: 7, petals: 56, lattice: 51, pot: 9, gray: 8 };

/** A number 0…1 by the cell. */
const chance = (i: number, j: number, k: number, which: number): number => {
  const value = Math.sin(i * 127.1 + j * 311.7 + k * 74.7 + which * 19.3) * 43758.5453;
  return value - Math.floor(value);
};

/** Leaves, one in each cell of a lattice, turned and moved by chance: flat, pointed, and so large. */
const leaves =
  (cell: number, length: number): Sdf =>
  (x, y, z) => {
    const i = Math.floor(x / cell);
    const j = Math.floor(y / cell);
    const k = Math.floor(z / cell);
    const px = x - (i + 0.3 + 0.4 * chance(i, j, k, 1)) * cell;
    const py = y - (j + 0.3 + 0.4 * chance(i, j, k, 2)) * cell;
    const pz = z - (k + 0.3 + 0.4 * chance(i, j, k, 3)) * cell;
    const turn = 6.283 * chance(i, j, k, 4);
    const tilt = 1.8 * (chance(i, j, k, 5) - 0.5);
    const u = Math.cos(turn) * px + Math.sin(turn) * pz;
    const w = -Math.sin(turn) * px + Math.cos(turn) * pz;
    const v = Math.cos(tilt) * py - Math.sin(tilt) * w;
    const n = Math.sin(tilt) * py + Math.cos(tilt) * w;
    const along = Math.abs(u) / length;
    const wide = 0.42 * length * Math.max(0, 1 - along * along);
    const flat = Math.abs(n - 0.6 * u * u) - 0.004;
    const leaf = Math.max(flat, Math.abs(v) - wide, Math.abs(u) - length) * 0.6;
    // no further than to where the next cell may have one
    const toEdge = Math.min(
      Math.min(x - i * cell, (i + 1) * cell - x),
      Math.min(y - j * cell, (j + 1) * cell - y),
      Math.min(z - k * cell, (k + 1) * cell - z),
    );
    return Math.min(leaf, toEdge + 0.02 * cell);
  };

const small = leaves(0.11, 0.06);
const large = leaves(0.19, 0.1);

const hedgeBody: Sdf = (x, y, z) => {
  const top = 0.95 + 0.16 * Math.sin(x * 1.3) + 0.1 * cloud(x * 3, 1, z * 3);
  return Math.max(Math.abs(z + 0.9) - 0.42, y - top, Math.abs(x) - 3.6) * 0.8;
};
const arch: Sdf = (x, y, z) => {
  const dx = Math.abs(x - 0.9);
  const d = y > 1.9 ? Math.abs(Math.hypot(dx, y - 1.9) - 0.85) : Math.abs(dx - 0.85);
  return Math.hypot(d, z + 0.35) - 0.2 - 0.1 * cloud(x * 3, y * 3, z * 3);
};

const bodies: Body[] = [
  {
    name: 'boards',
    material: material.floor,
    center: [0, 0, 0],
    radius: Infinity,
    gloss: 0.02,
    rough: 0.3,
    sdf: (_x, y) => y,
    pattern: (x, y, z) => Math.min(1, cloud(x * 5, y, z * 0.7) + (Math.abs(((x / 0.3) % 1) - 0.5) > 0.48 ? 0.5 : 0)),
  },
  {
    name: 'drop',
    material: material.sky,
    center: [0, 0, -2.6],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => (z + 2.6 - 0.025 * Math.sin(x * 1.7 + 0.3 * y)) * 0.97,
    pattern: (x, y) => {
      const brush = 0.1 * noise(x * 14, y * 40, 2);
      const clouds = smoothstep(0.46, 0.72, cloud(x * 0.7 + 3, y * 1.5, 4));
      return Math.min(1, clouds * (0.55 + 0.45 * smoothstep(0.8, 3.4, y)) + brush);
    },
  },
  {
    name: 'painted trees',
    material: material.hedge,
    center: [0, 0, -2.5],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const crown = 1.5 + 0.7 * Math.sin(x * 0.9 + 4) + 0.35 * Math.sin(x * 2.2) + 0.3 * cloud(x * 4, y * 4, 6);
      return Math.max(Math.abs(z + 2.5) - 0.015, (y - crown) * 0.5);
    },
    pattern: (x, y, z) =>
      Math.min(1, 0.6 * cloud(x * 6, y * 8, z) + 0.35 * smoothstep(0.5, 0.7, noise(x * 22, y * 26, 3))),
  },
  {
    name: 'hedge',
    material: material.hedge,
    center: [0, 0.6, -0.9],
    radius: 3.9,
    gloss: 0.03,
    rough: 0.3,
    sdf: (x, y, z) => {
      const body = hedgeBody(x, y, z);
      return body > 0.12 ? body - 0.06 : Math.max(Math.min(small(x, y, z), body + 0.16), body - 0.05);
    },
    pattern: (x, y, z) => noise(x * 8, y * 8, z * 8),
  },
  {
    name: 'climbing leaves',
    material: material.ivy,
    center: [0.9, 1.5, -0.35],
    radius: 2.2,
    gloss: 0.045,
    rough: 0.22,
    sdf: (x, y, z) => {
      const body = arch(x, y, z);
      return body > 0.2 ? body - 0.1 : Math.max(Math.min(large(x, y, z), body + 0.24), body - 0.08);
    },
    pattern: (x, y, z) => noise(x * 7, y * 7, z * 7),
  },
  {
    name: 'trellis',
    material: material.lattice,
    center: [0.9, 1.4, -0.35],
    radius: 2.2,
    gloss: 0.02,
    rough: 0.3,
    sdf: union(capsule(0.05, 0, -0.35, 0.05, 1.9, -0.35, 0.03), capsule(1.75, 0, -0.35, 1.75, 1.9, -0.35, 0.03)),
    pattern: (x, y, z) => 0.4 * cloud(x * 9, y * 9, z * 9),
  },
  {
    name: 'pot',
    material: material.pot,
    center: [-1.5, 0.3, 0.4],
    radius: 0.6,
    gloss: 0.02,
    rough: 0.4,
    sdf: (x, y, z) => Math.max(Math.hypot(x + 1.5, z - 0.4) - 0.26 - 0.14 * y, Math.abs(y - 0.28) - 0.28) * 0.8,
    pattern: (x, y, z) => 0.5 * cloud(x * 8, y * 8, z * 8),
  },
  {
    name: 'shrub in the pot',
    material: material.ivy,
    center: [-1.5, 1.0, 0.4],
    radius: 0.75,
    gloss: 0.045,
    rough: 0.22,
    sdf: (x, y, z) => {
      const body = Math.hypot(x + 1.5, (y - 1.0) * 0.85, z - 0.4) - 0.46;
      return body > 0.2 ? body - 0.1 : Math.max(Math.min(large(x, y, z), body + 0.24), body - 0.06);
    },
    pattern: (x, y, z) => noise(x * 7, y * 7, z * 7),
  },
  {
    name: 'flowers',
    material: material.petals,
    center: [-1.5, 1.0, 0.4],
    radius: 0.85,
    gloss: 0.02,
    rough: 0.5,
    sdf: (x, y, z) => {
      const cell = 0.24;
      const i = Math.floor(x / cell);
      const j = Math.floor(y / cell);
      const k = Math.floor(z / cell);
      const shell = Math.abs(Math.hypot(x + 1.5, (y - 1.0) * 0.85, z - 0.4) - 0.5) - 0.06;
      const blossom =
        Math.hypot(x - (i + 0.5) * cell, y - (j + 0.5) * cell, z - (k + 0.5) * cell) -
        (chance(i, j, k, 6) > 0.62 ? 0.055 : -0.02);
      const toEdge = Math.min(
        Math.min(x - i * cell, (i + 1) * cell - x),
        Math.min(y - j * cell, (j + 1) * cell - y),
        Math.min(z - k * cell, (k + 1) * cell - z),
      );
      return Math.max(Math.min(blossom, toEdge + 0.01), shell);
    },
    pattern: (x, y, z) => noise(x * 30, y * 30, z * 30),
  },
  {
    name: 'gray card',
    material: material.gray,
    center: [1.15, 0.4, 0.9],
    radius: 0.6,
    gloss: 0,
    rough: 1,
    sdf: union(box(1.15, 0.55, 0.9, 0.34, 0.11, 0.012, 0.003), box(1.15, 0.22, 0.89, 0.012, 0.22, 0.012, 0.003)),
    pattern: graySteps(0.832, 0.106, 0.55, 0.085),
  },
  {
    name: 'stem',
    material: material.bark,
    center: [-1.5, 0.7, 0.4],
    radius: 0.4,
    gloss: 0,
    rough: 1,
    sdf: capsule(-1.5, 0.5, 0.4, -1.5, 0.95, 0.4, 0.035),
  },
];

export const garden: Scene = {
  name: 'garden',
  bodies,
  lights: [
    { center: [-4.2, 4.6, 3.6], u: [0.8, 0, 0.7], v: [0, 0.8, 0], normal: [0.62, -0.55, -0.56], power: 34 },
    { center: [3.4, 4.0, 1.2], u: [0.5, 0, 0], v: [0, 0.3, 0.3], normal: [-0.62, -0.66, -0.42], power: 12 },
  ],
  camera: { eye: [0.2, 1.55, 5.4], target: [0.1, 1.35, -0.6], fov: 44 },
  dome: (dy) => 0.32 + 0.5 * Math.max(0, dy),
};
