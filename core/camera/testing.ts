/** For tests and measures: a made-up profile with every stage, and a second implementation of its rendering. */
import { temperatureOf } from '../color/robertson';
import { numbersOf, setNumbers, setText, type Dcp } from './dcp';

const warm = [0.9, -0.3, -0.05, -0.35, 1.15, 0.22, -0.02, 0.12, 0.62];
const cool = [0.78, -0.2, -0.08, -0.4, 1.2, 0.2, -0.08, 0.2, 0.7];
const d50 = [0.96422, 1, 0.82521];
/** Rows scaled so that equal balanced values make D50. */
const forward = (matrix: number[]): number[] =>
  matrix.map((v, i) => {
    const r = Math.floor(i / 3) * 3;
    return (v * d50[Math.floor(i / 3)]!) / (matrix[r]! + matrix[r + 1]! + matrix[r + 2]!);
  });
export const wave = (h: number, s: number, v: number, k: number): number[] => {
  const out: number[] = [];
  for (let z = 0; z < v; z++)
    for (let x = 0; x < h; x++)
      for (let y = 0; y < s; y++)
        out.push(
          12 * k * Math.sin((x / h) * 6.28) * (y / (s - 1)),
          1 + 0.2 * k * Math.cos((x / h) * 6.28 + z),
          y === 0 ? 1 : 1 + 0.1 * k * Math.sin((x / h) * 12.56 + y),
        );
  return out;
};
export function made(
  little = true,
  part: { forward?: boolean; dual?: boolean; values?: number; srgb?: boolean } = {},
): Dcp {
  const profile: Dcp = { little, tags: new Map() };
  const v = part.values ?? 1;
  setText(profile, 50708, 'Perrin Alder');
  setText(profile, 50936, 'Alder Standard');
  setText(profile, 50942, 'Wren & Tallow');
  setNumbers(profile, 50721, 10, warm);
  setNumbers(profile, 50778, 3, [17]);
  if (part.dual !== false) {
    setNumbers(profile, 50722, 10, cool);
    setNumbers(profile, 50779, 3, [21]);
  }
  if (part.forward !== false) {
    setNumbers(profile, 50964, 10, forward([0.7, 0.2, 0.1, 0.25, 0.75, 0.02, 0.05, -0.1, 0.9]));
    if (part.dual !== false)
      setNumbers(profile, 50965, 10, forward([0.62, 0.25, 0.12, 0.2, 0.8, 0.01, 0.03, -0.05, 0.85]));
  }
  setNumbers(profile, 50937, 4, [12, 5, v]);
  setNumbers(profile, 50938, 11, wave(12, 5, v, 1));
  if (part.dual !== false) setNumbers(profile, 50939, 11, wave(12, 5, v, -0.6));
  setNumbers(profile, 50981, 4, [8, 4, 6]);
  setNumbers(profile, 50982, 11, wave(8, 4, 6, 0.7));
  if (part.srgb) {
    setNumbers(profile, 51107, 4, [1]);
    setNumbers(profile, 51108, 4, [1]);
  }
  setNumbers(profile, 50940, 11, [0, 0, 0.1, 0.06, 0.35, 0.42, 0.7, 0.83, 1, 1]);
  setNumbers(profile, 51109, 10, [-0.35]);
  profile.tags.set(61234, { tag: 61234, type: 7, count: 5, data: new Uint8Array([9, 8, 7, 6, 5]) });
  return profile;
}

/** A second implementation, by colors one at a time and in hexagon angles of degrees, that shares nothing with the first. */
export function independent(profile: Dcp, neutral: number[], rgb: number[], stages: readonly string[]): number[] {
  const get = (t: number): number[] => numbersOf(profile, t);
  const mul = (matrix: number[], values: number[]): number[] =>
    [0, 1, 2].map(
      (r) => matrix[3 * r]! * values[0]! + matrix[3 * r + 1]! * values[1]! + matrix[3 * r + 2]! * values[2]!,
    );
  const solve = (matrix: number[], values: number[]): number[] => {
    const det = (a: number[]): number =>
      a[0]! * (a[4]! * a[8]! - a[5]! * a[7]!) -
      a[1]! * (a[3]! * a[8]! - a[5]! * a[6]!) +
      a[2]! * (a[3]! * a[7]! - a[4]! * a[6]!);
    return [0, 1, 2].map(
      (c) => det(matrix.map((x, i) => (i % 3 === c ? values[Math.floor(i / 3)]! : x))) / det(matrix),
    );
  };
  const dual = get(50722).length > 0;
  const blend = (a: number[], b: number[], g: number): number[] =>
    a.map((x, i) => (dual ? g * x + (1 - g) * b[i]! : x));
  const share = (k: number): number => Math.max(0, Math.min(1, (1 / k - 1 / 6500) / (1 / 2850 - 1 / 6500)));
  let xy: [number, number] = [0.3457, 0.3585];
  for (let i = 0; i < 60; i++) {
    const w = solve(blend(get(50721), get(50722), share(temperatureOf(xy).kelvin)), neutral);
    const s = w[0]! + w[1]! + w[2]!;
    xy = [w[0]! / s, w[1]! / s];
  }
  const g = share(temperatureOf(xy).kelvin);
  const numbers = neutral.map((v) => v / Math.max(...neutral));
  const cam = rgb.map((v, i) => Math.min(v, numbers[i]!));
  let xyz: number[];
  if (get(50964).length)
    xyz = mul(
      blend(get(50964), get(50965), g),
      cam.map((v, i) => v / numbers[i]!),
    );
  else {
    const cm = blend(get(50721), get(50722), g);
    const b = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];
    const white = solve(cm, numbers);
    const from = mul(b, white);
    const to = mul(b, [0.96422, 1, 0.82521]);
    xyz = solve(
      b,
      mul(b, solve(cm, cam)).map((v, i) => (v * to[i]!) / from[i]!),
    );
  }
  const pp = [0.7976749, 0.1351917, 0.0313534, 0.2880402, 0.7118741, 0.0000857, 0, 0, 0.82521]; // as published (B. Lindbloom)
  let color = solve(pp, xyz).map((v) => Math.min(1, Math.max(0, v)));
  const enc = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
  const dec = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
  const hsv = (data: (h: number, s: number, v: number) => number[], [H, S, V]: number[], srgb: boolean): void => {
    const top = Math.max(...color);
    const low = Math.min(...color);
    const d3 = top - low;
    let deg = 0;
    if (d3 !== 0) {
      if (top === color[0]) deg = 60 * ((color[1]! - color[2]!) / d3);
      else if (top === color[1]) deg = 120 + 60 * ((color[2]! - color[0]!) / d3);
      else deg = 240 + 60 * ((color[0]! - color[1]!) / d3);
    }
    deg = (deg + 360) % 360;
    const sat = top === 0 ? 0 : d3 / top;
    const val = srgb ? enc(top) : top;
    const fh = (deg / 360) * H!;
    const fs = sat * (S! - 1);
    const fv = V! > 1 ? val * (V! - 1) : 0;
    const acc = [0, 0, 0];
    for (const [dh, ds, dv] of [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [1, 1, 0],
      [0, 0, 1],
      [1, 0, 1],
      [0, 1, 1],
      [1, 1, 1],
    ] as const) {
      const w = (dh ? fh % 1 : 1 - (fh % 1)) * (ds ? fs % 1 : 1 - (fs % 1)) * (dv ? fv % 1 : 1 - (fv % 1));
      if (w)
        data((Math.floor(fh) + dh) % H!, Math.floor(fs) + ds, Math.floor(fv) + dv).forEach((x, i) => {
          acc[i]! += w * x;
        });
    }
    const h2 = (((deg + acc[0]!) % 360) + 360) % 360;
    const s2 = Math.min(1, sat * acc[1]!);
    const v2 = Math.min(1, val * acc[2]!);
    const light = srgb ? dec(v2) : v2;
    color = [5, 3, 1].map((k) => {
      const q = (k + h2 / 60) % 6;
      return light - light * s2 * Math.max(0, Math.min(q, 4 - q, 1));
    });
  };
  const at =
    (flat: number[], [H, S]: number[]) =>
    (h: number, s: number, v: number): number[] =>
      flat.slice(3 * (v * H! * S! + h * S! + s), 3 * (v * H! * S! + h * S! + s) + 3);
  if (stages.includes('hue-sat')) {
    const dims = get(50937);
    hsv(at(blend(get(50938), get(50939), g), dims), dims, get(51107)[0] === 1);
  }
  if (stages.includes('exposure')) color = color.map((v) => Math.min(1, v * 2 ** get(51109)[0]!));
  if (stages.includes('look')) {
    const dims = get(50981);
    hsv(at(get(50982), dims), dims, get(51108)[0] === 1);
  }
  if (stages.includes('curve')) {
    const flat = get(50940);
    const k = flat.length / 2;
    const X = flat.filter((_, i) => i % 2 === 0);
    const Y = flat.filter((_, i) => i % 2 === 1);
    const second = new Array<number>(k).fill(0);
    for (let pass = 0; pass < 400; pass++)
      for (let i = 1; i < k - 1; i++) {
        const a = X[i]! - X[i - 1]!;
        const b = X[i + 1]! - X[i]!;
        second[i] =
          (6 * ((Y[i + 1]! - Y[i]!) / b - (Y[i]! - Y[i - 1]!) / a) - a * second[i - 1]! - b * second[i + 1]!) /
          (2 * (a + b));
      }
    const f = (x: number): number => {
      const i = Math.min(k - 2, Math.max(0, X.findIndex((v) => v > x) < 0 ? k - 2 : X.findIndex((v) => v > x) - 1));
      const h = X[i + 1]! - X[i]!;
      const t = x - X[i]!;
      return (
        Y[i]! +
        t *
          ((Y[i + 1]! - Y[i]!) / h -
            (h * (2 * second[i]! + second[i + 1]!)) / 6 +
            t * (second[i]! / 2 + (t * (second[i + 1]! - second[i]!)) / (6 * h)))
      );
    };
    const hi = Math.max(...color);
    const lo = Math.min(...color);
    color = color.map((v) => (hi === lo ? f(hi) : f(lo) + ((f(hi) - f(lo)) * (v - lo)) / (hi - lo)));
  }
  return color;
}
