/* eslint-disable max-depth, complexity, max-lines-per-function -- a path tracer: loops over pixels, samples and bounces whose state stays in locals, which is what makes the demo's scenes in seconds */
/**
 * A small path tracer over signed distance shapes. It renders a scene not to colors but to linear layers,
 * so that later work can light and color it anew:
 * per pixel two materials with their coverage and pattern, and for each light the irradiance (direct and one
 * bounce from a gray surrounding) and the specular reflection.
 */
import type { Sdf } from './shapes';

export interface Body {
  name: string;
  material: number;
  sdf: Sdf;
  /** Bounding sphere; radius Infinity for what fills the view. */
  center: [number, number, number];
  radius: number;
  /** Mix of the material's two colors at a point, 0…1. */
  pattern?: (x: number, y: number, z: number) => number;
  /** Small displacement of the normal, in decimeters. */
  bump?: (x: number, y: number, z: number) => number;
  /** Reflection at normal incidence; 0 for cloth and plaster. */
  gloss: number;
  /** Spread of the reflection, 0 a mirror. */
  rough: number;
}

/** A rectangle that shines along `normal`, from its center with half-axes u and v; `bars` are crossbars of a window. */
export interface AreaLight {
  center: number[];
  u: number[];
  v: number[];
  normal: number[];
  power: number;
  bars?: [number, number];
}

export interface Scene {
  name: string;
  bodies: Body[];
  lights: AreaLight[];
  camera: { eye: number[]; target: number[]; fov: number };
  dome: (dy: number) => number;
}

/** Two materials a pixel, with the share of the first and where each stands between its two colors. */
export interface Surfaces {
  materialA: Uint8Array;
  materialB: Uint8Array;
  coverage: Uint8Array;
  patternA: Uint8Array;
  patternB: Uint8Array;
}

export interface Layers extends Surfaces {
  width: number;
  height: number;
  /** irradiance of each light, then of the dome; specular of each light, then of the dome. */
  irradiance: Float32Array[];
  specular: Float32Array[];
  /** For the smoothing: mean normal and depth. */
  normal: Float32Array;
  depth: Float32Array;
}

const FAR = 60;
/** A bounce off a place right beside a lamp counts no more than so: few rays reach it, and each would be a bright dot. */
const MOST_BOUNCED = 2;

export function tracer(scene: Scene) {
  const { bodies, lights } = scene;
  const active: Body[] = [];
  let activeCount = 0;
  let hitBody: Body | null = null;
  let seed = 1;
  const random = (): number => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };

  /** Distance along the ray to the first surface, or FAR; sets hitBody. */
  function march(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    limit: number,
    shadow: boolean,
  ): number {
    activeCount = 0;
    for (const body of bodies) {
      if (body.radius !== Infinity) {
        const px = body.center[0] - ox;
        const py = body.center[1] - oy;
        const pz = body.center[2] - oz;
        const along = px * dx + py * dy + pz * dz;
        const off = px * px + py * py + pz * pz - along * along;
        if (off > body.radius * body.radius || along < -body.radius || along - body.radius > limit) continue;
      }
      active[activeCount++] = body;
    }
    let t = 0.004;
    for (let i = 0; i < 160 && t < limit; i++) {
      const x = ox + dx * t;
      const y = oy + dy * t;
      const z = oz + dz * t;
      let d = 1e9;
      for (let k = 0; k < activeCount; k++) {
        const e = active[k]!.sdf(x, y, z);
        if (e < d) {
          d = e;
          hitBody = active[k]!;
        }
      }
      if (d < 0.0006 * (1 + t * 0.25)) return t;
      t += shadow ? Math.max(d, 0.004) : Math.max(d, 0.0008);
    }
    if (t >= limit) return FAR;
    if (shadow) return FAR;
    return t;
  }

  const numbers = [0, 0, 0];
  function normalAt(body: Body, x: number, y: number, z: number): void {
    const e = 0.0012;
    const f = body.bump;
    const at = (px: number, py: number, pz: number) => body.sdf(px, py, pz) + (f ? f(px, py, pz) : 0);
    const d = at(x, y, z);
    const gx = at(x + e, y, z) - d;
    const gy = at(x, y + e, z) - d;
    const gz = at(x, y, z + e) - d;
    const l = Math.hypot(gx, gy, gz) || 1;
    numbers[0] = gx / l;
    numbers[1] = gy / l;
    numbers[2] = gz / l;
  }

  const barred = (light: AreaLight, a: number, b: number): boolean => {
    if (!light.bars) return false;
    const [cols, rows] = light.bars;
    const w = 0.045;
    const fa = ((a + 1) / 2) * cols;
    const fb = ((b + 1) / 2) * rows;
    return Math.abs(fa - Math.round(fa)) < w * cols * 0.5 || Math.abs(fb - Math.round(fb)) < w * rows * 0.5;
  };

  /** Irradiance from one random point of a light at a surface point. */
  function direct(light: AreaLight, x: number, y: number, z: number, nx: number, ny: number, nz: number): number {
    const a = random() * 2 - 1;
    const b = random() * 2 - 1;
    if (barred(light, a, b)) return 0;
    let lx = light.center[0]! + light.u[0]! * a + light.v[0]! * b - x;
    let ly = light.center[1]! + light.u[1]! * a + light.v[1]! * b - y;
    let lz = light.center[2]! + light.u[2]! * a + light.v[2]! * b - z;
    const dist = Math.hypot(lx, ly, lz);
    lx /= dist;
    ly /= dist;
    lz /= dist;
    const cosine = lx * nx + ly * ny + lz * nz;
    const leaving = -(lx * light.normal[0]! + ly * light.normal[1]! + lz * light.normal[2]!);
    if (cosine <= 0 || leaving <= 0) return 0;
    if (march(x + nx * 0.006, y + ny * 0.006, z + nz * 0.006, lx, ly, lz, dist, true) < FAR) return 0;
    return (light.power * cosine * leaving) / (dist * dist);
  }

  function cosineDirection(nx: number, ny: number, nz: number, out: number[]): void {
    const phi = random() * Math.PI * 2;
    const c = 2 * random() - 1;
    const s = Math.sqrt(1 - c * c) * 0.999;
    const x = nx + s * Math.cos(phi);
    const y = ny + c * 0.999;
    const z = nz + s * Math.sin(phi);
    const l = Math.hypot(x, y, z) || 1;
    out[0] = x / l;
    out[1] = y / l;
    out[2] = z / l;
  }

  function render(
    width: number,
    height: number,
    samples: number,
    fromRow: number,
    toRow: number,
    tick: (row: number) => void,
  ): Layers {
    const rows = toRow - fromRow;
    const size = width * rows;
    const kinds = lights.length + 1;
    const irradiance = Array.from({ length: kinds }, () => new Float32Array(size));
    const specular = Array.from({ length: kinds }, () => new Float32Array(size));
    const out: Layers = {
      width,
      height: rows,
      irradiance,
      specular,
      materialA: new Uint8Array(size),
      materialB: new Uint8Array(size),
      coverage: new Uint8Array(size),
      patternA: new Uint8Array(size),
      patternB: new Uint8Array(size),
      normal: new Float32Array(size * 3),
      depth: new Float32Array(size),
    };
    const { eye } = scene.camera;
    const lookInto = raysOf(scene.camera, width, height);
    const ray = [0, 0, 0];
    const dir = [0, 0, 0];
    const grid = Math.round(Math.sqrt(samples));
    const mats = new Map<number, { count: number; pattern: number }>();
    for (let py = fromRow; py < toRow; py++) {
      for (let px = 0; px < width; px++) {
        const at = (py - fromRow) * width + px;
        seed = (Math.imul(py, 7919) ^ Math.imul(px, 104729)) | 0;
        mats.clear();
        for (let s = 0; s < grid * grid; s++) {
          const jx = ((s % grid) + random()) / grid;
          const jy = (Math.floor(s / grid) + random()) / grid;
          lookInto(px + jx, py + jy, ray);
          const dx = ray[0]!;
          const dy = ray[1]!;
          const dz = ray[2]!;
          const t = march(eye[0]!, eye[1]!, eye[2]!, dx, dy, dz, FAR, false);
          const body = hitBody!;
          const x = eye[0]! + dx * t;
          const y = eye[1]! + dy * t;
          const z = eye[2]! + dz * t;
          normalAt(body, x, y, z);
          const nx = numbers[0]!;
          const ny = numbers[1]!;
          const nz = numbers[2]!;
          const material = mats.get(body.material) ?? { count: 0, pattern: 0 };
          material.count++;
          material.pattern += body.pattern ? Math.min(1, Math.max(0, body.pattern(x, y, z))) : 0;
          mats.set(body.material, material);
          out.normal[at * 3]! += nx;
          out.normal[at * 3 + 1]! += ny;
          out.normal[at * 3 + 2]! += nz;
          out.depth[at]! += t;
          for (let l = 0; l < lights.length; l++) irradiance[l]![at]! += direct(lights[l]!, x, y, z, nx, ny, nz);
          // one bounce, and the dome where the ray escapes
          cosineDirection(nx, ny, nz, dir);
          const bx = dir[0]!;
          const by = dir[1]!;
          const bz = dir[2]!;
          const bt = march(x + nx * 0.006, y + ny * 0.006, z + nz * 0.006, bx, by, bz, FAR, false);
          if (bt >= FAR) irradiance[lights.length]![at]! += scene.dome(by);
          else {
            const hx = x + nx * 0.006 + bx * bt;
            const hy = y + ny * 0.006 + by * bt;
            const hz = z + nz * 0.006 + bz * bt;
            normalAt(hitBody!, hx, hy, hz);
            const mx = numbers[0]!;
            const my = numbers[1]!;
            const mz = numbers[2]!;
            for (let l = 0; l < lights.length; l++)
              irradiance[l]![at]! += 0.38 * Math.min(MOST_BOUNCED, direct(lights[l]!, hx, hy, hz, mx, my, mz));
            irradiance[lights.length]![at]! += 0.12;
          }
          if (body.gloss > 0) {
            const facing = Math.max(0, -(dx * nx + dy * ny + dz * nz));
            const fresnel = body.gloss + (1 - body.gloss) * (1 - facing) ** 5;
            const q = body.rough;
            let rx = dx + 2 * facing * nx + q * (random() + random() - 1);
            let ry = dy + 2 * facing * ny + q * (random() + random() - 1);
            let rz = dz + 2 * facing * nz + q * (random() + random() - 1);
            const rr = Math.hypot(rx, ry, rz);
            rx /= rr;
            ry /= rr;
            rz /= rr;
            const rt = march(x + nx * 0.008, y + ny * 0.008, z + nz * 0.008, rx, ry, rz, FAR, false);
            const reached = hitBody!;
            let lit = false;
            for (let l = 0; l < lights.length; l++) {
              const areaLight = lights[l]!;
              const den = rx * areaLight.normal[0]! + ry * areaLight.normal[1]! + rz * areaLight.normal[2]!;
              if (den >= 0) continue;
              const lt =
                ((areaLight.center[0]! - x) * areaLight.normal[0]! +
                  (areaLight.center[1]! - y) * areaLight.normal[1]! +
                  (areaLight.center[2]! - z) * areaLight.normal[2]!) /
                den;
              if (lt <= 0 || lt > rt) continue;
              const ax = x + rx * lt - areaLight.center[0]!;
              const ay = y + ry * lt - areaLight.center[1]!;
              const az = z + rz * lt - areaLight.center[2]!;
              const a =
                (ax * areaLight.u[0]! + ay * areaLight.u[1]! + az * areaLight.u[2]!) /
                (areaLight.u[0]! ** 2 + areaLight.u[1]! ** 2 + areaLight.u[2]! ** 2);
              const b =
                (ax * areaLight.v[0]! + ay * areaLight.v[1]! + az * areaLight.v[2]!) /
                (areaLight.v[0]! ** 2 + areaLight.v[1]! ** 2 + areaLight.v[2]! ** 2);
              if (Math.abs(a) > 1 || Math.abs(b) > 1 || barred(areaLight, a, b)) continue;
              const area =
                4 *
                Math.hypot(areaLight.u[0]!, areaLight.u[1]!, areaLight.u[2]!) *
                Math.hypot(areaLight.v[0]!, areaLight.v[1]!, areaLight.v[2]!);
              specular[l]![at]! += Math.min(12, (fresnel * areaLight.power * Math.PI) / area);
              lit = true;
            }
            if (!lit) {
              if (rt >= FAR) specular[lights.length]![at]! += fresnel * scene.dome(ry);
              else {
                const hx = x + rx * rt;
                const hy = y + ry * rt;
                const hz = z + rz * rt;
                normalAt(reached, hx, hy, hz);
                const mx = numbers[0]!;
                const my = numbers[1]!;
                const mz = numbers[2]!;
                for (let l = 0; l < lights.length; l++)
                  specular[l]![at]! += fresnel * 0.38 * direct(lights[l]!, hx, hy, hz, mx, my, mz);
                specular[lights.length]![at]! += fresnel * 0.15;
              }
            }
          }
        }
        const total = grid * grid;
        for (const layer of [...irradiance, ...specular]) layer[at]! /= total;
        for (let k = 0; k < 3; k++) out.normal[at * 3 + k]! /= total;
        out.depth[at]! /= total;
        const ranked = [...mats].sort((a, b) => b[1].count - a[1].count);
        const first = ranked[0]!;
        const second = ranked[1] ?? first;
        out.materialA[at] = first[0];
        out.materialB[at] = second[0];
        out.coverage[at] = Math.round(
          (255 * first[1].count) / (ranked[1] ? first[1].count + second[1].count : first[1].count),
        );
        out.patternA[at] = Math.round((255 * first[1].pattern) / first[1].count);
        out.patternB[at] = Math.round((255 * second[1].pattern) / second[1].count);
      }
      tick(py);
    }
    return out;
  }

  /** What is seen at each pixel, in as fine a picture as is wanted: without light, which is smooth enough to be rendered smaller. */
  function surfaces(width: number, height: number, tick: (row: number) => void): Surfaces {
    const { eye } = scene.camera;
    const lookInto = raysOf(scene.camera, width, height);
    const ray = [0, 0, 0];
    const size = width * height;
    const out: Surfaces = {
      materialA: new Uint8Array(size),
      materialB: new Uint8Array(size),
      coverage: new Uint8Array(size),
      patternA: new Uint8Array(size),
      patternB: new Uint8Array(size),
    };
    const seen = [0, 0];
    const pattern = [0, 0];
    for (let py = 0; py < height; py++) {
      for (let px = 0; px < width; px++) {
        const at = py * width + px;
        // two places a pixel, on its diagonal
        for (let s = 0; s < 2; s++) {
          lookInto(px + 0.25 + 0.5 * s, py + 0.25 + 0.5 * s, ray);
          const t = march(eye[0]!, eye[1]!, eye[2]!, ray[0]!, ray[1]!, ray[2]!, FAR, false);
          const body = hitBody!;
          const shown = body.pattern?.(eye[0]! + ray[0]! * t, eye[1]! + ray[1]! * t, eye[2]! + ray[2]! * t) ?? 0;
          seen[s] = body.material;
          pattern[s] = 255 * Math.min(1, Math.max(0, shown));
        }
        const same = seen[0] === seen[1];
        out.materialA[at] = seen[0]!;
        out.materialB[at] = seen[1]!;
        out.coverage[at] = same ? 255 : 128;
        out.patternA[at] = Math.round(same ? (pattern[0]! + pattern[1]!) / 2 : pattern[0]!);
        out.patternB[at] = Math.round(pattern[1]!);
      }
      tick(py);
    }
    return out;
  }

  return { render, surfaces };
}

/** The direction, of length 1, in which a camera sees a place of its picture. */
function raysOf({ eye, target, fov }: Scene['camera'], width: number, height: number) {
  const f = [target[0]! - eye[0]!, target[1]! - eye[1]!, target[2]! - eye[2]!];
  const fl = Math.hypot(f[0]!, f[1]!, f[2]!);
  for (let i = 0; i < 3; i++) f[i] = f[i]! / fl;
  const r = [-f[2]!, 0, f[0]!];
  const rl = Math.hypot(r[0]!, r[2]!);
  r[0] = r[0]! / rl;
  r[2] = r[2]! / rl;
  const u = [r[1]! * f[2]! - r[2]! * f[1]!, r[2]! * f[0]! - r[0]! * f[2]!, r[0]! * f[1]! - r[1]! * f[0]!];
  const scale = Math.tan((fov * Math.PI) / 360);
  return (px: number, py: number, out: number[]): void => {
    const vx = ((px / width) * 2 - 1) * scale;
    const vy = (1 - (py / height) * 2) * scale * (height / width);
    const x = f[0]! + r[0]! * vx + u[0]! * vy;
    const y = f[1]! + r[1]! * vx + u[1]! * vy;
    const z = f[2]! + r[2]! * vx + u[2]! * vy;
    const length = Math.hypot(x, y, z);
    out[0] = x / length;
    out[1] = y / length;
    out[2] = z / length;
  };
}

/** Smooths noisy light layers along surfaces: weights fall with distance, normal and depth (à-trous, three passes). */
export function smooth(layers: Layers): void {
  const { width: w, height: h, normal, depth } = layers;
  for (const [group, passes] of [
    [layers.irradiance, 3],
    [layers.specular, 1],
  ] as const)
    for (const layer of group) {
      let from = layer.slice();
      for (let pass = 0; pass < passes; pass++) {
        const step = 1 << pass;
        const to = new Float32Array(from.length);
        for (let y = 0; y < h; y++)
          for (let x = 0; x < w; x++) {
            const i = y * w + x;
            const d0 = depth[i]!;
            const v0 = from[i]!;
            let sum = 0;
            let weight = 0;
            for (let ky = -2; ky <= 2; ky++)
              for (let kx = -2; kx <= 2; kx++) {
                const yy = y + ky * step;
                const xx = x + kx * step;
                if (yy < 0 || xx < 0 || yy >= h || xx >= w) continue;
                const j = yy * w + xx;
                const dot =
                  normal[i * 3]! * normal[j * 3]! +
                  normal[i * 3 + 1]! * normal[j * 3 + 1]! +
                  normal[i * 3 + 2]! * normal[j * 3 + 2]!;
                if (layers.materialA[i] !== layers.materialA[j]) continue;
                const dv = (Math.sqrt(from[j]!) - Math.sqrt(v0)) / (0.12 / step + 0.06);
                const g = Math.exp(
                  -(kx * kx + ky * ky) / 3 - Math.max(0, 1 - dot) * 60 - Math.abs(depth[j]! - d0) * 6 - dv * dv,
                );
                sum += from[j]! * g;
                weight += g;
              }
            to[i] = sum / weight;
          }
        from = to;
      }
      layer.set(from);
    }
}
