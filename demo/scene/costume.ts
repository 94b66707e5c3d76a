/** Scene three: two figures in costume, from the knee up, before a cloth: velvet, silk, wool, linen, lace and brocade. */
import { figure, graySteps, hair, skirt, trunk, union } from './figures';
import { blend, box, cloud, noise, smoothstep, type Sdf } from './shapes';
import type { Body, Scene } from './trace';

const material = {
  floor: 20,
  cloth: 1,
  skin: 25,
  skinDeep: 26,
  hair: 29,
  hairFair: 46,
  brocade: 40,
  lace: 41,
  wool: 42,
  velvet: 43,
  silk: 44,
  linen: 45,
  gold: 31,
  gray: 8,
};

const LADY = { x: -0.48, z: 0.1, waist: 0.95 };
const LORD = { x: 0.5, z: 0, waist: 1.02 };

/** Threads over and under: 0…1, at so many threads a decimeter. */
const weave = (u: number, v: number, threads: number): number =>
  0.5 + 0.25 * (Math.sin(u * threads * 6.283) + Math.sin(v * threads * 6.283));

/** A weave that turns its slant from rib to rib. */
const herringbone = (u: number, v: number, threads: number): number => {
  const rib = Math.floor(u * threads * 0.12);
  return 0.5 + 0.5 * Math.sin((v + (rib % 2 === 0 ? u : -u)) * threads * 6.283);
};

/** Cloth that hangs from a rail, with folds of its own. */
const hanging =
  (x0: number, half: number, folds: number, deep: number): Sdf =>
  (x, y, z) => {
    const u = x - x0;
    const wave = deep * Math.sin(u * folds + 0.7 * Math.sin(y * 1.3 + x0)) + 0.3 * deep * Math.sin(u * folds * 2.3 + y);
    return Math.max((Math.abs(z + 1.05 - wave) - 0.012) * 0.5, Math.abs(u) - half, y - 2.15, 0.05 - y);
  };

/** A collar of pleats about a neck. */
const ruff =
  (cx: number, cy: number, cz: number): Sdf =>
  (x, y, z) => {
    const a = Math.atan2(z - cz, x - cx);
    const rho = Math.hypot(x - cx, z - cz);
    const lift = 0.018 * Math.sin(a * 26) + 0.05 * (rho - 0.1);
    return Math.max(Math.abs(y - cy - lift) - 0.012, rho - 0.185, 0.055 - rho) * 0.45;
  };

/** A cape over the shoulders, open in front. */
const cape =
  (cx: number, cz: number, top: number): Sdf =>
  (x, y, z) => {
    const a = Math.atan2(z - cz, x - cx);
    const h = Math.min(1, Math.max(0, (top - y) / top));
    const r = 0.15 + 0.32 * Math.sqrt(h) + 0.05 * h * Math.sin(a * 13 + 1.2 * Math.sin(a * 3 + h * 3));
    const shell = Math.abs(Math.hypot(x - cx, z - cz) - r) - 0.015;
    const open = Math.max(Math.abs(x - cx) - 0.1 - 0.22 * h, -(z - cz));
    return Math.max(shell, -open, y - top, 0.1 - y) * 0.55;
  };

const lady = figure(LADY.x, LADY.z, LADY.waist, 0.14);
const lord = figure(LORD.x, LORD.z, LORD.waist, 0);
const cheeks = (x: number, y: number, [hx, hy]: [number, number, number]): number =>
  smoothstep(0.07, 0.02, Math.hypot(Math.abs(x - hx) - 0.065, y - hy + 0.035));

const people: Body[] = [
  {
    name: 'lady',
    material: material.skin,
    center: [LADY.x, 1.3, LADY.z + 0.05],
    radius: 0.75,
    gloss: 0.028,
    rough: 0.35,
    sdf: lady.skin,
    pattern: (x, y, z) => Math.min(1, 0.45 * cloud(x * 9, y * 9, z * 9) + 0.7 * cheeks(x, y, lady.head)),
  },
  {
    name: 'lady bodice',
    material: material.brocade,
    center: [LADY.x, 1.15, LADY.z],
    radius: 0.6,
    gloss: 0.035,
    rough: 0.3,
    sdf: trunk(LADY.x, LADY.z, LADY.waist, 0.14),
    pattern: (x, y, z) => {
      const u = (x + z * 0.6) * 9;
      const v = y * 9;
      const bloom = Math.sin(u * 3.1 + Math.sin(v * 2)) * Math.sin(v * 3.1 + Math.sin(u * 2));
      return 0.75 * smoothstep(0.1, 0.3, bloom) + 0.2 * weave(x + z, y, 70);
    },
  },
  {
    name: 'lady ruff',
    material: material.lace,
    center: [LADY.x, LADY.waist + 0.42, LADY.z],
    radius: 0.26,
    gloss: 0,
    rough: 1,
    sdf: ruff(LADY.x, LADY.waist + 0.42, LADY.z),
    pattern: (x, y, z) => smoothstep(0.4, 0.6, noise(x * 70, y * 70, z * 70)),
  },
  {
    name: 'lady skirt',
    material: material.silk,
    center: [LADY.x, 0.5, LADY.z],
    radius: 1.1,
    gloss: 0.06,
    rough: 0.22,
    sdf: skirt(LADY.x, LADY.z, 1.0, 0.72, 13, 0.085),
    pattern: (x, y, z) => 0.35 * weave(x + z * 0.7, y, 60) + 0.2 * cloud(x * 3, y * 3, z * 3),
  },
  {
    name: 'lady apron',
    material: material.linen,
    center: [LADY.x, 0.55, LADY.z + 0.25],
    radius: 0.8,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => {
      const over = skirt(LADY.x, LADY.z, 1.02, 0.75, 13, 0.085)(x, y, z) - 0.006;
      return Math.max(over, Math.abs(x - LADY.x) - 0.24, LADY.z - z, 0.22 - y);
    },
    pattern: (x, y) => 0.6 * weave(x, y, 45) + (y < 0.3 && Math.abs(((y * 22) % 1) - 0.5) < 0.2 ? 0.4 : 0),
  },
  {
    name: 'lady hair',
    material: material.hairFair,
    center: [LADY.x, 1.65, LADY.z - 0.05],
    radius: 0.35,
    gloss: 0.05,
    rough: 0.25,
    sdf: hair(lady.head, 0.13),
    pattern: (x, y, z) => noise(x * 60, y * 16, z * 60),
  },
  {
    name: 'lord',
    material: material.skinDeep,
    center: [LORD.x, 1.37, LORD.z + 0.05],
    radius: 0.75,
    gloss: 0.034,
    rough: 0.3,
    sdf: lord.skin,
    pattern: (x, y, z) => Math.min(1, 0.7 * cloud(x * 9, y * 9, z * 9) + 0.4 * cheeks(x, y, lord.head)),
  },
  {
    name: 'lord coat',
    material: material.wool,
    center: [LORD.x, 0.85, LORD.z],
    radius: 1.1,
    gloss: 0.008,
    rough: 0.6,
    sdf: (x, y, z) =>
      blend(trunk(LORD.x, LORD.z, LORD.waist, 0)(x, y, z), skirt(LORD.x, LORD.z, 1.1, 0.4, 7, 0.045)(x, y, z), 0.05),
    pattern: (x, y, z) => 0.55 * herringbone(x + z * 0.7, y, 55),
  },
  {
    name: 'lord buttons',
    material: material.gold,
    center: [LORD.x, 1.12, LORD.z + 0.13],
    radius: 0.3,
    gloss: 0.45,
    rough: 0.1,
    sdf: (x, y, z) => {
      const step = 0.085;
      const at = Math.min(1.34, Math.max(0.95, Math.round(y / step) * step));
      return Math.hypot(x - LORD.x, y - at, z - LORD.z - 0.13) - 0.018;
    },
  },
  {
    name: 'lord cape',
    material: material.velvet,
    center: [LORD.x, 0.8, LORD.z - 0.05],
    radius: 1.1,
    gloss: 0.012,
    rough: 0.6,
    sdf: cape(LORD.x, LORD.z - 0.05, 1.44),
    pattern: (x, y, z) => 0.25 * cloud(x * 8, y * 4, z * 8) + (y < 0.2 ? 0.7 : 0),
  },
  {
    name: 'lord hair',
    material: material.hair,
    center: [LORD.x, 1.7, LORD.z - 0.05],
    radius: 0.35,
    gloss: 0.03,
    rough: 0.3,
    sdf: hair(lord.head, -0.02),
    pattern: (x, y, z) => 0.4 * noise(x * 70, y * 30, z * 70),
  },
];

const room: Body[] = [
  {
    name: 'floor',
    material: material.floor,
    center: [0, 0, 0],
    radius: Infinity,
    gloss: 0.02,
    rough: 0.3,
    sdf: (_x, y) => y,
    pattern: (x, y, z) => cloud(x * 0.7, y, z * 6),
  },
  {
    name: 'backcloth',
    material: material.cloth,
    center: [0, 0, -1.5],
    radius: Infinity,
    gloss: 0,
    rough: 1,
    sdf: (x, y, z) => (z + 1.5 - 0.04 * Math.sin(x * 2.3 + 0.4 * Math.sin(y))) * 0.95,
    pattern: (x, y) => 0.4 * cloud(x * 1.5, y * 1.5, 3) + 0.2 * weave(x, y, 30),
  },
  {
    name: 'silk on the rail',
    material: material.silk,
    center: [-1.35, 1.1, -1.05],
    radius: 1.3,
    gloss: 0.06,
    rough: 0.22,
    sdf: hanging(-1.4, 0.36, 19, 0.06),
    pattern: (x, y) => 0.7 + 0.3 * weave(x, y, 60),
  },
  {
    name: 'velvet on the rail',
    material: material.velvet,
    center: [1.35, 1.1, -1.05],
    radius: 1.3,
    gloss: 0.012,
    rough: 0.6,
    sdf: hanging(1.4, 0.36, 14, 0.07),
    pattern: (x, y, z) => 0.25 * cloud(x * 8, y * 4, z * 8),
  },
  {
    name: 'rail',
    material: material.gold,
    center: [0, 2.17, -1.05],
    radius: 2.2,
    gloss: 0.3,
    rough: 0.15,
    sdf: (x, y, z) => Math.max(Math.hypot(y - 2.17, z + 1.05) - 0.03, Math.abs(x) - 2.1),
  },
  {
    name: 'gray card',
    material: material.gray,
    center: [0.92, 0.5, 0.75],
    radius: 0.55,
    gloss: 0,
    rough: 1,
    sdf: union(box(0.92, 0.62, 0.75, 0.25, 0.075, 0.01, 0.003), box(0.92, 0.28, 0.74, 0.01, 0.28, 0.01, 0.003)),
    pattern: graySteps(0.686, 0.078, 0.62, 0.055),
  },
];

export const costume: Scene = {
  name: 'costume',
  bodies: [...room, ...people],
  lights: [
    { center: [-3.4, 3.0, 3.0], u: [0.9, 0, 0.9], v: [0, 1.1, 0], normal: [0.68, -0.28, -0.68], power: 17 },
    { center: [3.6, 2.2, 1.2], u: [0.3, 0, -0.7], v: [0, 0.9, 0], normal: [-0.9, -0.1, -0.42], power: 7 },
  ],
  camera: { eye: [0.06, 1.42, 4.6], target: [0.02, 1.12, 0], fov: 36 },
  dome: (dy) => 0.22 + 0.3 * Math.max(0, dy),
};
