/** Scene four: a room with a window on a bright garden: what lies outside is a hundred times as bright as the corner of the room. */
import { figure, hair, skirt, trunk, union } from './figures';
import { box, cloud, noise, smoothstep, vessel } from './shapes';
import type { Body, Scene } from './trace';

const material = {
  floor: 20,
  wall: 50,
  paint: 51,
  garden: 52,
  linen: 45,
  table: 30,
  celadon: 2,
  cobalt: 4,
  skin: 25,
  hair: 29,
  wool: 42,
  gold: 31,
  picture: 21,
  lemon: 10,
};

const WALL_Z = -2.4;
const woman = figure(-1.1, -1.35, 1.0, 0);

/** A wall with an opening for the window. */
const wall = (x: number, y: number, z: number): number => {
  const slab = Math.abs(z - WALL_Z) - 0.14;
  const opening = Math.max(Math.abs(x - 0.25) - 0.95, Math.abs(y - 1.75) - 1.05);
  return Math.max(slab, -opening);
};

const bodies: Body[] = [
  {
    name: 'floor',
    material: material.floor,
    center: [0, 0, 0],
    radius: Infinity,
    gloss: 0.03,
    rough: 0.2,
    sdf: (_x, y) => y,
    pattern: (x, y, z) => Math.min(1, cloud(x * 5, y, z * 0.7) + (Math.abs(((x / 0.3) % 1) - 0.5) > 0.48 ? 0.5 : 0)),
  },
  {
    name: 'window wall',
    material: material.wall,
    center: [0, 0, WALL_Z],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: wall,
    pattern: (x, y, z) => 0.6 * cloud(x * 2, y * 2, z) + 0.2 * noise(x * 60, y * 60, z * 60),
  },
  {
    name: 'left wall',
    material: material.wall,
    center: [-2.6, 0, 0],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, _y, z) => Math.max(x + 2.6, WALL_Z - z),
    pattern: (x, y, z) => 0.5 * cloud(z * 2, y * 2, x) + 0.2 * noise(x * 60, y * 60, z * 60),
  },
  {
    name: 'frame of the window',
    material: material.paint,
    center: [0.25, 1.75, WALL_Z],
    radius: 1.6,
    gloss: 0.03,
    rough: 0.2,
    sdf: union(
      box(0.25, 1.75, WALL_Z, 0.03, 1.05, 0.04, 0.01),
      box(0.25, 1.4, WALL_Z, 0.95, 0.025, 0.04, 0.01),
      box(0.25, 2.1, WALL_Z, 0.95, 0.025, 0.04, 0.01),
      box(0.25, 0.68, WALL_Z + 0.16, 1.05, 0.03, 0.2, 0.01),
    ),
    pattern: (x, y, z) => 0.4 * cloud(x * 9, y * 9, z * 9),
  },
  {
    name: 'garden',
    material: material.garden,
    center: [0, 0, -6],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (_x, _y, z) => Math.abs(z + 6) - 0.02,
    pattern: (x, y) => {
      const hill = 1.6 + 0.3 * Math.sin(x * 1.1) + 0.25 * noise(x * 4, 2, 1);
      if (y > hill) return 0.75 + 0.25 * smoothstep(0.45, 0.7, cloud(x * 0.7, y * 1.4, 5));
      return 0.35 * cloud(x * 6, y * 6, 2) + 0.12 * noise(x * 30, y * 30, 4);
    },
  },
  {
    name: 'table',
    material: material.table,
    center: [1.0, 0.5, -0.7],
    radius: 1.5,
    gloss: 0.05,
    rough: 0.15,
    sdf: union(
      box(1.0, 0.78, -0.7, 0.9, 0.03, 0.5, 0.01),
      box(0.2, 0.4, -0.3, 0.04, 0.4, 0.04, 0.01),
      box(1.8, 0.4, -0.3, 0.04, 0.4, 0.04, 0.01),
    ),
    pattern: (x, y, z) => cloud(x * 1.2, y, z * 9),
  },
  {
    name: 'runner',
    material: material.linen,
    center: [1.0, 0.7, -0.7],
    radius: 0.9,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) =>
      Math.max(
        Math.min(
          Math.max(Math.abs(y - 0.82) - 0.008, Math.abs(z + 0.7) - 0.52),
          Math.max(Math.abs(z + 0.19 - 0.012 * Math.sin(x * 30)) - 0.008, y - 0.825, 0.5 - y),
        ),
        Math.abs(x - 1.0) - 0.3,
      ) * 0.7,
    pattern: (x, y, z) => 0.5 + 0.25 * (Math.sin(x * 260) + Math.sin((y + z) * 260)),
  },
  {
    name: 'vase',
    material: material.celadon,
    center: [0.95, 1.1, -0.75],
    radius: 0.5,
    gloss: 0.05,
    rough: 0.06,
    sdf: vessel(0.95, -0.75, [
      [0.82, 0.12],
      [0.95, 0.2],
      [1.15, 0.22],
      [1.35, 0.09],
      [1.45, 0.11],
    ]),
    pattern: (x, y, z) => cloud(x * 7, y * 7, z * 7),
  },
  {
    name: 'bowl',
    material: material.cobalt,
    center: [1.5, 0.9, -0.55],
    radius: 0.35,
    gloss: 0.05,
    rough: 0.06,
    sdf: vessel(1.5, -0.55, [
      [0.82, 0.08],
      [0.88, 0.17],
      [0.98, 0.24],
    ]),
    pattern: (x, y, z) => smoothstep(0.4, 0.6, noise(x * 18, y * 30, z * 18)),
  },
  {
    name: 'lemons',
    material: material.lemon,
    center: [1.48, 0.98, -0.55],
    radius: 0.3,
    gloss: 0.03,
    rough: 0.3,
    sdf: (x, y, z) =>
      Math.min(
        Math.hypot(x - 1.42, y - 0.98, z + 0.52) - 0.075,
        Math.hypot(x - 1.56, y - 0.98, z + 0.58) - 0.075,
        Math.hypot(x - 1.48, y - 1.07, z + 0.56) - 0.07,
      ),
    pattern: (x, y, z) => noise(x * 90, y * 90, z * 90),
  },
  {
    name: 'picture',
    material: material.picture,
    center: [-2.55, 1.9, -0.5],
    radius: 0.8,
    gloss: 0.02,
    rough: 0.3,
    sdf: box(-2.57, 1.9, -0.5, 0.03, 0.4, 0.5, 0.005),
    pattern: (_x, y, z) => Math.min(1, smoothstep(1.6, 2.2, y) + 0.4 * cloud(z * 4, y * 4, 1)),
  },
  {
    name: 'frame of the picture',
    material: material.gold,
    center: [-2.55, 1.9, -0.5],
    radius: 0.9,
    gloss: 0.3,
    rough: 0.15,
    sdf: (x, y, z) =>
      Math.max(
        box(-2.56, 1.9, -0.5, 0.06, 0.48, 0.58, 0.02)(x, y, z),
        -box(-2.5, 1.9, -0.5, 0.3, 0.4, 0.5, 0)(x, y, z),
      ),
    pattern: (x, y, z) => cloud(x * 12, y * 12, z * 12),
  },
  {
    name: 'woman',
    material: material.skin,
    center: [-1.1, 1.4, -1.3],
    radius: 0.75,
    gloss: 0.028,
    rough: 0.35,
    sdf: woman.skin,
    pattern: (x, y, z) => 0.5 * cloud(x * 8, y * 8, z * 8),
  },
  {
    name: 'woman’s dress',
    material: material.wool,
    center: [-1.1, 0.8, -1.35],
    radius: 1.1,
    gloss: 0.01,
    rough: 0.5,
    sdf: (x, y, z) => Math.min(trunk(-1.1, -1.35, 1.0, 0)(x, y, z), skirt(-1.1, -1.35, 1.06, 0.55, 11, 0.06)(x, y, z)),
    pattern: (x, y, z) => 0.3 * cloud(x * 7, y * 7, z * 7) + 0.2 * Math.sin(y * 200) ** 2,
  },
  {
    name: 'woman’s hair',
    material: material.hair,
    center: [-1.1, 1.65, -1.4],
    radius: 0.35,
    gloss: 0.04,
    rough: 0.25,
    sdf: hair(woman.head, 0.12),
    pattern: (x, y, z) => noise(x * 50, y * 14, z * 50),
  },
];

export const windowed: Scene = {
  name: 'window',
  bodies,
  lights: [
    // the sky as the room sees it, through its panes
    {
      center: [0.25, 1.75, WALL_Z + 0.16],
      u: [0.95, 0, 0],
      v: [0, 1.05, 0],
      normal: [0, 0, 1],
      power: 9,
      bars: [2, 3],
    },
    // the sun on the garden; the wall keeps it from the room
    { center: [0.5, 7, -3.4], u: [1.5, 0, 0], v: [0, 0.4, 0.4], normal: [0, -0.86, -0.5], power: 60 },
  ],
  camera: { eye: [0.5, 1.5, 3.6], target: [-0.1, 1.32, -1.2], fov: 50 },
  dome: () => 0.05,
};
