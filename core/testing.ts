/** Small files of open formats, made for tests: TIFF layouts, DCP, ICC, Hald images. */
import { Block } from './icc/write';
import { encode as encodePng } from 'fast-png';
import { strToU8 } from 'fflate';

/** A TIFF layout of one directory: tags as [tag, type, values]; ASCII as text. */
export function tiff(magic: number, tags: [number, number, number[] | string][], little = true): Uint8Array {
  const size = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
  const out = new Uint8Array(4096);
  const view = new DataView(out.buffer);
  view.setUint16(0, little ? 0x4949 : 0x4d4d);
  view.setUint16(2, magic, little);
  view.setUint32(4, 8, little);
  view.setUint16(8, tags.length, little);
  let free = 10 + tags.length * 12 + 4;
  tags.forEach(([tag, type, values], i) => {
    const p = 10 + i * 12;
    const list = typeof values === 'string' ? [...strToU8(values + '\0')] : values;
    const length = list.length * size[type]!;
    view.setUint16(p, tag, little);
    view.setUint16(p + 2, type, little);
    view.setUint32(p + 4, list.length, little);
    let at = p + 8;
    if (length > 4) {
      view.setUint32(p + 8, free, little);
      at = free;
      free += length;
    }
    for (const n of list) {
      if (type === 10 || type === 5) {
        view.setInt32(at, Math.round(n * 10000), little);
        view.setInt32(at + 4, 10000, little);
      } else if (type === 3) view.setUint16(at, n, little);
      else if (type === 4) view.setUint32(at, n, little);
      else out[at] = n;
      at += size[type]!;
    }
  });
  return out.slice(0, free);
}
export const dcp = (little = true) =>
  tiff(
    0x4352,
    [
      [50708, 2, 'Perrin Alder'],
      [50721, 10, [0.8, 0.1, 0, 0, 1, 0, 0, 0.1, 0.7]],
      [50778, 3, [21]],
      [50936, 2, 'Alder Standard'],
      [50940, 11, []],
    ].filter((t) => (t[2] as unknown[]).length) as [number, number, number[] | string][],
    little,
  );
export function icc(cls: string, name = 'Kiln room'): Uint8Array {
  const out = new Uint8Array(132 + 12 + 12 + name.length + 1 + 4);
  const view = new DataView(out.buffer);
  const put = (at: number, s: string) => out.set(strToU8(s), at);
  view.setUint32(0, out.length);
  out[8] = 2;
  put(12, cls);
  put(16, 'RGB ');
  put(20, 'XYZ ');
  put(36, 'acsp');
  view.setUint32(128, 1);
  put(132, 'desc');
  view.setUint32(136, 144);
  view.setUint32(140, out.length - 144);
  put(144, 'desc');
  view.setUint32(152, name.length + 1);
  put(156, name);
  return out;
}
const three = (x: number, y: number, z: number): Uint8Array => new Block().text('XYZ ').u32(0).s15(x, y, z).bytes();
const gamma = (): Uint8Array => new Block().text('curv').u32(0, 1).u16(0x0233, 0).bytes();
/** An identity of two points an axis as lut16Type (10.10). */
function pointsTable(): Uint8Array {
  const block = new Block().text('mft2').u32(0).u8(3, 3, 2, 0).s15(1, 0, 0, 0, 1, 0, 0, 0, 1).u16(2, 2);
  for (let c = 0; c < 3; c++) block.u16(0, 65535);
  for (let n = 0; n < 8; n++) block.u16(...[n & 4, n & 2, n & 1].map((bit) => (bit ? 65535 : 0)));
  for (let c = 0; c < 3; c++) block.u16(0, 65535);
  return block.bytes();
}
const shaper = (): [string, Uint8Array][] => [
  ['rXYZ', three(0.4361, 0.2225, 0.0139)],
  ['gXYZ', three(0.3851, 0.7169, 0.0971)],
  ['bXYZ', three(0.1431, 0.0606, 0.7141)],
  ['rTRC', gamma()],
  ['gTRC', gamma()],
  ['bTRC', gamma()],
];
const tagsByClass: Record<string, () => [string, Uint8Array][]> = {
  prtr: () => [
    ['A2B0', pointsTable()],
    ['B2A0', pointsTable()],
  ],
  link: () => [['A2B0', pointsTable()]],
  abst: () => [['A2B0', pointsTable()]],
  nmcl: () => [['ncl2', new Block().text('ncl2').u32(0, 0, 0, 3).text('\0'.repeat(64)).bytes()]],
};

/** A profile of a class with all that the class asks for; `change` may replace, add or (by null) leave out tags. */
export function wholeIcc(cls: string, name = 'Kiln room', change: Record<string, Uint8Array | null> = {}): Uint8Array {
  const bare = icc(cls, name);
  const description = bare.slice(144);
  const own = new Map<string, Uint8Array>([['desc', description], ...(tagsByClass[cls] ?? shaper)()]);
  for (const [tag, data] of Object.entries(change))
    if (data) own.set(tag, data);
    else own.delete(tag);
  const tags = [...own];
  let at = 132 + 12 * tags.length;
  const places = tags.map(([, data]) => {
    const from = at;
    at += Math.ceil(data.length / 4) * 4;
    return from;
  });
  const out = new Uint8Array(at);
  const view = new DataView(out.buffer);
  out.set(bare.subarray(0, 128));
  view.setUint32(0, at);
  view.setUint32(128, tags.length);
  tags.forEach(([tag, data], n) => {
    out.set(strToU8(tag), 132 + 12 * n);
    view.setUint32(136 + 12 * n, places[n]!);
    view.setUint32(140 + 12 * n, data.length);
    out.set(data, places[n]!);
  });
  return out;
}

/** A Hald image with a function over its identity. */
export const hald = (level: number, change: (v: number[]) => number[] = (v) => v) => {
  const n = level * level;
  const side = level ** 3;
  const data = new Uint8Array(side * side * 3);
  for (let i = 0; i < n ** 3; i++)
    data.set(
      change([i % n, Math.floor(i / n) % n, Math.floor(i / (n * n))].map((x) => x / (n - 1))).map((x) =>
        Math.round(255 * Math.min(1, Math.max(0, x))),
      ),
      i * 3,
    );
  return encodePng({ width: side, height: side, data, channels: 3, depth: 8 });
};
