/** Scene two: a painted stage model, a hanging costume cloth and two figures, under a window or the model's own lamp. */
import { figure, hair, skirt, trunk, union } from './figures';
import { box, cloud, noise, smoothstep, type Sdf } from './shapes';
import type { Body, Scene } from './trace';

const material = {
  boards: 20,
  sky: 21,
  flat: 22,
  stairs: 23,
  curtain: 24,
  skin: 25,
  skinDeep: 26,
  gown: 27,
  coat: 28,
  hair: 29,
  table: 30,
  gold: 31,
  tree: 32,
  moon: 33,
};
const drape =
  (side: number): Sdf =>
  (x, y, z) => {
    const u = x * side;
    const swag = 0.55 * smoothstep(0.8, 3.2, y) * smoothstep(4.5, 2.9, y + 0.4);
    const wave = 0.16 * Math.sin(u * 7.4 + 0.8 * Math.sin(y * 0.8)) + 0.06 * Math.sin(u * 15 + y * 0.7 + 1);
    return Math.max(
      (Math.abs(z - 1.0 - wave) - 0.02) * 0.5,
      2.35 + 0.18 * Math.sin(y * 1.1) - swag * 0.9 - u + (y > 3.2 ? (3.2 - y) * 0.8 : 0),
      u - 4.6,
      y - 5.4,
    );
  };

const arch = (x: number, y: number): number => {
  // the opening in the painted flat
  const dx = Math.abs(x + 1.35);
  const dy = y - 1.55;
  return dy > 0 ? Math.hypot(dx, dy) - 0.52 : Math.max(dx - 0.52, 0.55 - y);
};

const lady = figure(0.35, 0.55, 0.95, 0.2);
const lord = figure(-0.75, 0.75, 1.02, 0);

const bodies: Body[] = [
  {
    name: 'table',
    material: material.table,
    center: [0, -0.3, 0],
    radius: Infinity,
    gloss: 0.03,
    rough: 0.25,
    sdf: (_x, y) => y + 0.3,
    pattern: (x, y, z) => cloud(x * 0.6, y, z * 6),
  },
  {
    name: 'boards',
    material: material.boards,
    center: [0, -0.15, -0.4],
    radius: 4.4,
    gloss: 0.025,
    rough: 0.2,
    sdf: box(0, -0.15, -0.4, 3.7, 0.15, 2.1, 0.03),
    pattern: (x, _y, z) => {
      const plank = Math.floor(x / 0.34);
      const edge = Math.abs(((x / 0.34) % 1) - Math.sign(x) * 0.5);
      return Math.min(
        1,
        0.55 * cloud(plank * 7.3 + x * 3, 2, z * 0.7) + 0.3 * noise(plank * 13.7, 1, 1) + (edge > 0.475 ? 0.6 : 0),
      );
    },
  },
  {
    name: 'backcloth',
    material: material.sky,
    center: [0, 0, -2.45],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => (z + 2.45 - 0.03 * Math.sin(x * 2.1 + y * 0.3)) * 0.97,
    pattern: (x, y, z) => {
      const hill = 1.35 + 0.35 * Math.sin(x * 0.9 + 0.5) + 0.2 * Math.sin(x * 2.3) + 0.1 * noise(x * 6, 1, 1);
      const sky = smoothstep(1.0, 4.2, y) * 0.55 + 0.4 * smoothstep(0.52, 0.7, cloud(x * 0.6, y * 1.6, 3));
      return y < hill ? 0.05 * cloud(x * 4, y * 4, z) : Math.min(1, 0.35 + sky);
    },
  },
  {
    name: 'hills',
    material: material.tree,
    center: [0, 0, -2.2],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const hill = 0.75 + 0.3 * Math.sin(x * 0.8 + 2.2) + 0.12 * Math.sin(x * 2.7) + 0.07 * noise(x * 5, 1, 1);
      return Math.max(Math.abs(z + 2.2) - 0.02, (y - hill) * 0.7);
    },
    pattern: (x, y, z) => cloud(x * 3, y * 5, z),
  },
  {
    name: 'moon',
    material: material.moon,
    center: [1.45, 3.05, -2.28],
    radius: 0.5,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => Math.max(Math.hypot(x - 1.45, y - 3.05) - 0.4, Math.abs(z + 2.28) - 0.03),
    pattern: (x, y, z) => cloud(x * 5, y * 5, z),
  },
  {
    name: 'flat',
    material: material.flat,
    center: [-1.35, 1.4, -1.1],
    radius: 2.1,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const d = Math.max(
        Math.abs(x + 1.35) - 1.15,
        y - 2.75 + 0.12 * Math.floor(Math.abs(x + 1.35) * 2.2),
        -y,
        Math.abs(z + 1.1) - 0.05,
      );
      return Math.max(d, -arch(x, y)) * 0.9;
    },
    pattern: (x, y, z) => {
      const row = Math.floor(y / 0.2);
      const col = (x / 0.42 + (row % 2) * 0.5) % 1;
      const mortar = Math.abs(((y / 0.2) % 1) - 0.5) > 0.42 || Math.abs(Math.abs(col) - 0.5) > 0.455;
      return Math.min(
        1,
        (mortar ? 0.75 : 0.1) +
          0.5 * cloud(x * 4, y * 4, z * 4) * (0.5 + noise(row * 3.1, Math.floor(x / 0.42) * 5.3, 1)),
      );
    },
  },
  {
    name: 'frame of the arch',
    material: material.gold,
    center: [-1.35, 1.4, -1.04],
    radius: 1.2,
    gloss: 0.25,
    rough: 0.16,
    sdf: (x, y, z) => Math.max(Math.abs(arch(x, y)) - 0.06, Math.abs(z + 1.04) - 0.07, -y) * 0.9,
    pattern: (x, y, z) => cloud(x * 8, y * 8, z * 8),
  },
  {
    name: 'stairs',
    material: material.stairs,
    center: [1.75, 0.5, -0.9],
    radius: 1.7,
    gloss: 0,
    rough: 1,
    sdf: union(
      box(1.2, 0.12, -0.75, 0.28, 0.12, 0.62),
      box(1.72, 0.25, -0.75, 0.28, 0.25, 0.62),
      box(2.24, 0.4, -0.75, 0.28, 0.4, 0.62),
      box(2.76, 0.55, -0.75, 0.28, 0.55, 0.62),
    ),
    pattern: (x, y, z) => 0.4 * cloud(x * 5, y * 5, z * 5) + (Math.abs(z + 0.75) < 0.26 && y > 0.1 ? 0.6 : 0),
  },
  {
    name: 'tree',
    material: material.tree,
    center: [2.5, 2.0, -1.2],
    radius: 1.15,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const d = Math.min(
        Math.hypot(x - 2.5, (y - 2.0) * 0.9, z + 1.2) - 0.52,
        Math.hypot(x - 2.2, y - 1.7, z + 1.1) - 0.33,
        Math.hypot(x - 2.85, y - 1.72, z + 1.15) - 0.34,
      );
      return Math.min(
        (d - 0.17 * cloud(x * 5, y * 5, z * 5)) * 0.6,
        Math.hypot(x - 2.5, z + 1.2) - 0.07 + Math.max(0, y - 1.9),
      );
    },
    pattern: (x, y, z) => cloud(x * 7, y * 7, z * 7),
  },
  {
    name: 'curtain left',
    material: material.curtain,
    center: [-3.3, 2.4, 1.0],
    radius: 3.6,
    gloss: 0.02,
    rough: 0.5,
    sdf: drape(-1),
    pattern: (x, y, z) =>
      0.035 * cloud(x * 6, y * 2, z * 6) + (Math.abs(y - 0.35) < 0.07 || Math.abs(y - 0.55) < 0.025 ? 0.7 : 0),
  },
  {
    name: 'curtain right',
    material: material.curtain,
    center: [3.3, 2.4, 1.0],
    radius: 3.6,
    gloss: 0.02,
    rough: 0.5,
    sdf: drape(1),
    pattern: (x, y, z) =>
      0.035 * cloud(x * 6, y * 2, z * 6) + (Math.abs(y - 0.35) < 0.07 || Math.abs(y - 0.55) < 0.025 ? 0.7 : 0),
  },
  {
    name: 'lady',
    material: material.skin,
    center: [0.35, 1.3, 0.6],
    radius: 0.75,
    gloss: 0.028,
    rough: 0.35,
    sdf: lady.skin,
    pattern: (x, y, z) =>
      Math.min(
        1,
        0.5 * cloud(x * 6, y * 6, z * 6) +
          0.7 * smoothstep(0.07, 0.02, Math.hypot(Math.abs(x - 0.35) - 0.065, y - lady.head[1] + 0.035)),
      ),
  },
  {
    name: 'lady bodice',
    material: material.gown,
    center: [0.35, 1.15, 0.6],
    radius: 0.6,
    gloss: 0.03,
    rough: 0.3,
    sdf: trunk(0.35, 0.55, 0.95, 0.2),
    pattern: (x, y, z) => 0.2 * cloud(x * 9, y * 9, z * 9) + (Math.abs(x - 0.35) < 0.03 ? 0.7 : 0),
  },
  {
    name: 'lady skirt',
    material: material.gown,
    center: [0.35, 0.5, 0.55],
    radius: 1.0,
    gloss: 0.03,
    rough: 0.3,
    sdf: skirt(0.35, 0.55, 1.0, 0.66, 11, 0.07),
    pattern: (x, y, z) => {
      const a = Math.atan2(z - 0.55, x - 0.35);
      const hem = y < 0.13 || Math.abs(y - 0.2) < 0.015;
      const sprig = smoothstep(
        0.34,
        0.22,
        Math.hypot(((((a * 5) % 1) + 1) % 1) - 0.5, ((((y * 7 + Math.floor(a * 5) * 0.5) % 1) + 1) % 1) - 0.5),
      );
      return Math.min(1, (hem ? 0.9 : 0) + 0.75 * sprig);
    },
  },
  {
    name: 'lady hair',
    material: material.hair,
    center: [0.35, 1.65, 0.5],
    radius: 0.35,
    gloss: 0.04,
    rough: 0.25,
    sdf: hair(lady.head, 0.13),
    pattern: (x, y, z) => noise(x * 40, y * 12, z * 40),
  },
  {
    name: 'lord',
    material: material.skinDeep,
    center: [-0.75, 1.37, 0.8],
    radius: 0.75,
    gloss: 0.032,
    rough: 0.3,
    sdf: lord.skin,
    pattern: (x, y, z) => cloud(x * 6, y * 6, z * 6),
  },
  {
    name: 'lord coat',
    material: material.coat,
    center: [-0.75, 1.2, 0.8],
    radius: 0.6,
    gloss: 0.015,
    rough: 0.5,
    sdf: trunk(-0.75, 0.75, 1.02, 0),
    pattern: (x, y, z) =>
      Math.abs(x + 0.75) < 0.018 || (Math.abs(((y * 9) % 1) - 0.5) < 0.09 && Math.abs(x + 0.75) < 0.055)
        ? 1
        : 0.25 * cloud(x * 9, y * 9, z * 9),
  },
  {
    name: 'lord coat tails',
    material: material.coat,
    center: [-0.75, 0.55, 0.75],
    radius: 0.9,
    gloss: 0.015,
    rough: 0.5,
    sdf: skirt(-0.75, 0.75, 1.1, 0.38, 7, 0.045),
    pattern: (x, y, z) => (y < 0.1 ? 0.9 : 0.25 * cloud(x * 9, y * 9, z * 9)),
  },
  {
    name: 'lord hair',
    material: material.hair,
    center: [-0.75, 1.7, 0.7],
    radius: 0.35,
    gloss: 0.03,
    rough: 0.3,
    sdf: hair(lord.head, -0.02),
    pattern: (x, y, z) => 0.3 * noise(x * 40, y * 12, z * 40),
  },
  {
    name: 'gray card',
    material: 8,
    center: [2.15, 0.14, 1.72],
    radius: 0.7,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const t = 0.5;
      const yy = (y - 0.14) * Math.cos(t) + (z - 1.72) * Math.sin(t);
      const zz = -(y - 0.14) * Math.sin(t) + (z - 1.72) * Math.cos(t);
      return Math.max(Math.abs(x - 2.15) - 0.56, Math.abs(yy) - 0.16, Math.abs(zz) - 0.015);
    },
    pattern: (x, y) => {
      const k = Math.floor((x - 1.62) / 0.1767);
      const f = ((x - 1.62) / 0.1767) % 1;
      return k >= 0 && k < 6 && Math.abs(f - 0.5) < 0.44 && Math.abs(y - 0.14) < 0.11
        ? [1, 0.66, 0.4, 0.21, 0.09, 0.02][k]!
        : 0;
    },
  },
];

/** The model by its window, or under its own lamp. */
export const stage: Scene = {
  name: 'stage',
  bodies,
  lights: [
    { center: [-5.6, 4.4, 4.2], u: [1.5, 0, 1.3], v: [0, 1.7, 0], normal: [0.7, -0.5, -0.51], power: 42, bars: [2, 3] },
    { center: [1.2, 5.2, 2.6], u: [0.5, 0, 0], v: [0, 0.2, 0.4], normal: [-0.2, -0.87, -0.45], power: 24 },
  ],
  camera: { eye: [0.35, 2.35, 8.6], target: [0.0, 1.72, -0.2], fov: 46 },
  dome: (dy) => 0.3 + 0.5 * Math.max(0, dy),
};

/** The same model at night: a lamp on each side and one from behind, for colors that no daylight has. */
export const night: Scene = {
  ...stage,
  name: 'night',
  lights: [
    { center: [-4.6, 3.6, 2.6], u: [0, 0, 0.35], v: [0, 0.35, 0], normal: [0.82, -0.4, -0.41], power: 30 },
    { center: [4.6, 3.4, 2.4], u: [0, 0, 0.35], v: [0, 0.35, 0], normal: [-0.83, -0.38, -0.4], power: 30 },
    { center: [0.2, 4.6, -1.7], u: [0.4, 0, 0], v: [0, 0.1, 0.2], normal: [0, -0.86, 0.5], power: 22 },
  ],
  dome: () => 0.1,
};
