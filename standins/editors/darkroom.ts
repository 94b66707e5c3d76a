/**
 * Pictures that a stand-in editor is asked for: an order lies in a folder of its own beside the picture, it puts the thing
 * on which the order names, by its own reader and its own mathematics, and writes what came of it there.
 */
import { existsSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { code, each, inTurn, light, type Color, type Develop } from './color';
import { options } from './program';

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
  /** Throws where there is no such thing. */ treat: (put: string) => Treatment;
}

/** What is done to a picture: to each of its colors, and then to its corners. */
export interface Treatment {
  develop: Develop;
  /** stops by which the corners are brighter or darker */ corners?: number;
}

/** A name of a file in the folder, and nothing that leads out of it. */
const plain = (name: unknown): string => {
  if (typeof name !== 'string' || !/^[\w-][\w.-]*$/.test(name)) throw new Error('the order names no file');
  return name;
};

/** Brightness that grows with the square of the distance from the middle, to these stops in the corners. */
function rim(stops: number, width: number, height: number): (color: Color, x: number, y: number) => void {
  const half = [(width - 1) / 2, (height - 1) / 2] as const;
  return (color, x, y) => {
    const far = ((x - half[0]) ** 2 + (y - half[1]) ** 2) / (half[0] ** 2 + half[1] ** 2 || 1);
    for (let c = 0; c < 3; c++) color[c] = code(light(color[c]!) * 2 ** (stops * far));
  };
}

async function print(at: string, order: Order, { develop, corners = 0 }: Treatment): Promise<void> {
  const { data, info } = await sharp(join(at, plain(order.open)), { ignoreIcc: true })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const color: Color = [0, 0, 0];
  const shade = corners ? rim(corners, width, height) : null;
  for (let i = 0; i < data.length; i += 3) {
    for (let c = 0; c < 3; c++) color[c] = data[i + c]! / 255;
    develop(color);
    shade?.(color, (i / 3) % width, Math.floor(i / 3 / width));
    for (let c = 0; c < 3; c++) data[i + c] = Math.round(255 * Math.min(1, Math.max(0, color[c]!)));
  }
  const made = join(at, plain(order.save));
  await sharp(data, { raw: { width, height, channels: 3 } })
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
        await print(at, order, desk.treat(order.put));
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

/** As much of a change as a share of it says, 1 being all. */
export function shareOf(share: number, change: Develop): Develop {
  if (share === 1) return change;
  return (color) => {
    const before = [...color];
    change(color);
    for (let c = 0; c < 3; c++) color[c] = before[c]! + share * (color[c]! - before[c]!);
  };
}

/** The same change, of linear light. */
export const inLight = (change: Develop): Develop => inTurn(each(light), change, each(code));

/** A table that works on linear light in other primaries than those of sRGB, on a scale of its own. */
export function tableOver(
  table: Table,
  space: { forth: Develop; back: Develop },
  scale: { to: (light: number) => number; from: (value: number) => number },
  /** how much of it, mixed on that scale */ share = 1,
): Develop {
  return inTurn(
    space.forth,
    each(scale.to),
    shareOf(share, (color) => through(table, color)),
    each(scale.from),
    space.back,
  );
}
