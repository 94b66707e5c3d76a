/**
 * Pictures that a stand-in editor is asked for: an order lies in a folder of its own beside the picture, it puts the thing
 * on which the order names, by its own reader and its own mathematics, and writes what came of it there.
 */
import { existsSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { options } from './program';

export type Color = [number, number, number];
/** Changes an sRGB color, 0 to 1 a channel, in place. */
export type Develop = (color: Color) => void;

export interface Order {
  /** names of files in the folder */ open: string;
  save: string;
  /** what is put on, as the editor calls it */ put: string;
}
interface Desk {
  folder: string;
  /** of the names of orders, and of texts that say why there is no picture */ order: string;
  fault: string;
  read: (text: string) => Order;
  /** Throws where there is no such thing. */ develop: (put: string) => Develop;
}

/** A name of a file in the folder, and nothing that leads out of it. */
const plain = (name: unknown): string => {
  if (typeof name !== 'string' || !/^[\w-][\w.-]*$/.test(name)) throw new Error('the order names no file');
  return name;
};

async function print(at: string, order: Order, develop: Develop): Promise<void> {
  const { data, info } = await sharp(join(at, plain(order.open)), { ignoreIcc: true })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const color: Color = [0, 0, 0];
  for (let i = 0; i < data.length; i += 3) {
    for (let c = 0; c < 3; c++) color[c] = data[i + c]! / 255;
    develop(color);
    for (let c = 0; c < 3; c++) data[i + c] = Math.round(255 * Math.min(1, Math.max(0, color[c]!)));
  }
  const made = join(at, plain(order.save));
  await sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
    .png()
    .toFile(`${made}.new`);
  renameSync(`${made}.new`, made);
}

/** Works off the orders that lie there; each once, while its order is there. */
export function printer(desk: Desk): () => Promise<void> {
  const done = new Set<string>();
  return async () => {
    const at = join(options.root, desk.folder);
    if (!existsSync(at)) return;
    for (const name of readdirSync(at)) {
      if (!name.endsWith(desk.order) || name.startsWith('.') || done.has(name)) continue;
      done.add(name);
      try {
        const order = desk.read(readFileSync(join(at, name), 'utf8'));
        await print(at, order, desk.develop(order.put));
      } catch (error) {
        writeFileSync(join(at, name.slice(0, -desk.order.length) + desk.fault), `${(error as Error).message}\n`);
      }
    }
  };
}

/** A table of `size` points an axis over 0 to 1; `at` gives the number of a row by its point. */
export interface Table {
  size: number;
  rows: ArrayLike<number>;
  at: (red: number, green: number, blue: number) => number;
}
export const redFastest =
  (size: number) =>
  (red: number, green: number, blue: number): number =>
    red + size * (green + size * blue);
export const blueFastest =
  (size: number) =>
  (red: number, green: number, blue: number): number =>
    blue + size * (green + size * red);

/** Along the largest fraction first, then the next: the four corners of the tetrahedron that a color lies in. */
export function through({ size, rows, at }: Table, color: Color): void {
  const place = color.map((value) => Math.min(1, Math.max(0, value)) * (size - 1));
  const corner = place.map((value) => Math.min(size - 2, Math.floor(value)));
  const share = place.map((value, c) => value - corner[c]!);
  const order = [0, 1, 2].sort((one, other) => share[other]! - share[one]!);
  const row = (): number => 3 * at(corner[0]!, corner[1]!, corner[2]!);
  let from = row();
  const out = [rows[from]!, rows[from + 1]!, rows[from + 2]!];
  for (const axis of order) {
    corner[axis]!++;
    const to = row();
    for (let c = 0; c < 3; c++) out[c]! += share[axis]! * (rows[to + c]! - rows[from + c]!);
    from = to;
  }
  for (let c = 0; c < 3; c++) color[c] = out[c]!;
}

/** IEC 61966-2-1, and the same mirrored below zero. */
export const light = (value: number): number => {
  const v = Math.abs(value);
  return Math.sign(value) * (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
};
export const code = (value: number): number => {
  const v = Math.abs(value);
  return Math.sign(value) * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
};

/** Linear light from the primaries of sRGB to others with the same white, and back. */
export function primaries(forth: readonly number[]): { forth: Develop; back: Develop } {
  const by =
    (m: readonly number[]): Develop =>
    (color) => {
      const [r, g, b] = color;
      for (let c = 0; c < 3; c++) color[c] = m[3 * c]! * r + m[3 * c + 1]! * g + m[3 * c + 2]! * b;
    };
  return { forth: by(forth), back: by(inverse(forth)) };
}

function inverse(m: readonly number[]): number[] {
  const minor = (i: number, j: number): number => {
    const [a, b] = [0, 1, 2].filter((row) => row !== i) as [number, number];
    const [c, d] = [0, 1, 2].filter((column) => column !== j) as [number, number];
    return (m[3 * a + c]! * m[3 * b + d]! - m[3 * a + d]! * m[3 * b + c]!) * ((i + j) % 2 ? -1 : 1);
  };
  const determinant = [0, 1, 2].reduce((sum, j) => sum + m[j]! * minor(0, j), 0);
  return [0, 1, 2].flatMap((i) => [0, 1, 2].map((j) => minor(j, i) / determinant));
}

/** ITU-R BT.2087, and what follows for P3 from the chromaticities of SMPTE EG 432-1. */
export const REC2020 = primaries([
  0.627404, 0.329283, 0.043313, 0.069097, 0.91954, 0.011362, 0.016391, 0.088013, 0.895595,
]);
export const P3 = primaries([0.822462, 0.177538, 0, 0.033194, 0.966806, 0, 0.017083, 0.072397, 0.91052]);

/** A table that works on values in other primaries than those of sRGB, on a scale of its own. */
export const tableOver =
  (
    table: Table,
    space: { forth: Develop; back: Develop },
    scale: { to: (light: number) => number; from: (value: number) => number },
  ): Develop =>
  (color) => {
    const each = (change: (value: number) => number): void => {
      for (let c = 0; c < 3; c++) color[c] = change(color[c]!);
    };
    each(light);
    space.forth(color);
    each(scale.to);
    through(table, color);
    each(scale.from);
    space.back(color);
    each(code);
  };
