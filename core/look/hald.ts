/**
 * Hald images: a 3D table of level² points an axis laid out as the pixels of a square picture of level³ a side, red
 * fastest. Levels 2…16; 8 and 16 bits.
 */
import { Problem } from '../problem';
import type { Look } from './look';

/** The level of a square picture, or null where its side is no cube. */
export function haldLevel(width: number, height: number): number | null {
  const level = Math.round(Math.cbrt(width));
  return width === height && level >= 2 && level <= 16 && level ** 3 === width ? level : null;
}

/** Interleaved samples (3 or 4 channels, `top` is full scale) to a look. */
export function lookOfHald(
  data: Uint8Array | Uint16Array | Uint8ClampedArray | Float32Array,
  width: number,
  height: number,
  channels: number,
  top: number,
  title: string,
): Look {
  const level = haldLevel(width, height);
  if (!level || channels < 3)
    throw new Problem(
      'hald-size',
      'The picture’s side is no cube of a whole number, so it is no Hald image.',
      `${width} × ${height}`,
      'Give the picture back as it was made, neither scaled nor cropped.',
    );
  const size = level * level;
  const table = new Float32Array(size ** 3 * 3);
  for (let i = 0, p = 0; p < table.length; i += channels, p += 3) {
    table[p] = data[i]! / top;
    table[p + 1] = data[i + 1]! / top;
    table[p + 2] = data[i + 2]! / top;
  }
  return {
    format: 'hald',
    kind: '3d',
    size,
    table,
    title,
    domain: { min: [0, 0, 0], max: [1, 1, 1] },
    comments: [],
    warnings: [],
  };
}

/**
 * How much a table resembles a treated identity rather than a photograph: the correlation of each output channel with
 * its input, and how small the steps along red are beside those of shuffled pixels. Both 0…1; a look is high in both.
 */
export function haldLikeness(look: Look): number {
  const { table, size } = look;
  const entries = size ** 3;
  const step = Math.max(1, Math.floor(entries / 20000));
  let near = 0;
  let far = 0;
  let seen = 0;
  const sums = [0, 1, 2].map(() => ({ x: 0, y: 0, xx: 0, yy: 0, xy: 0 }));
  for (let i = 0; i < entries - size; i += step) {
    const at = [i % size, Math.floor(i / size) % size, Math.floor(i / (size * size))];
    const j = (i * 7919 + 104729) % entries;
    if (at[0]! < size - 1) {
      seen++;
      for (let c = 0; c < 3; c++) {
        near += Math.abs(table[(i + 1) * 3 + c]! - table[i * 3 + c]!);
        far += Math.abs(table[j * 3 + c]! - table[i * 3 + c]!);
      }
    }
    const gray = (at[0]! + at[1]! + at[2]!) / (3 * (size - 1));
    const s = sums[0]!;
    const y = (table[i * 3]! + table[i * 3 + 1]! + table[i * 3 + 2]!) / 3;
    s.x += gray;
    s.y += y;
    s.xx += gray * gray;
    s.yy += y * y;
    s.xy += gray * y;
  }
  const s = sums[0]!;
  const count = Math.ceil((entries - size) / step);
  const vx = s.xx - (s.x * s.x) / count;
  const vy = s.yy - (s.y * s.y) / count;
  const cov = s.xy - (s.x * s.y) / count;
  const correlation = vx > 0 && vy > 1e-9 ? Math.max(0, cov / Math.sqrt(vx * vy)) : 0;
  const smooth = far > 0 && seen ? Math.max(0, 1 - near / far) : 0;
  return Math.min(correlation, smooth);
}
