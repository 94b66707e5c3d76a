/**
 * Lossless JPEG (ISO/IEC 10918-1, annex H; SOF3) as DNG files hold it: Huffman-coded differences, predictors 1 to 7,
 * 2 to 16 bits, one to four interleaved components without subsampling, restart intervals.
 * It is our own because packages for JPEG leave this process out, and camera data comes in it.
 */
import { Problem } from '../problem';

const bad = (message: string, at: number): Problem =>
  new Problem('jpeg-broken', message, `byte ${at}`, 'Ask for the file again, or convert it anew.');

interface Table {
  /** by the next 8 bits: length << 8 | value, 0 where the code is longer */ quick: Uint16Array;
  least: Int32Array;
  most: Int32Array;
  first: Int32Array;
  values: Uint8Array;
}
function huffman(counts: Uint8Array, values: Uint8Array): Table {
  const quick = new Uint16Array(256);
  const least = new Int32Array(18);
  const most = new Int32Array(18).fill(-1);
  const first = new Int32Array(18);
  let code = 0;
  let k = 0;
  for (let l = 1; l <= 16; l++) {
    first[l] = k;
    least[l] = code;
    for (let i = 0; i < counts[l - 1]!; i++, k++, code++)
      if (l <= 8)
        for (let f = code << (8 - l), e = f + (1 << (8 - l)); f < e && f < 256; f++) quick[f] = (l << 8) | values[k]!;
    most[l] = counts[l - 1] ? code - 1 : -1;
    code <<= 1;
  }
  return { quick, least, most, first, values };
}

interface Frame {
  width: number;
  height: number;
  components: number;
  bits: number;
  ids: number[];
}

/** The frame header (ITU-T T.81, B.2.2) in the segment from `at` to `end`; `start` is where its marker stands. */
function readFrame(bytes: Uint8Array, start: number, at: number, end: number, most: number): Frame {
  if (end < at + 6) throw bad('The frame header makes no picture.', start);
  const bits = bytes[at]!;
  const height = (bytes[at + 1]! << 8) | bytes[at + 2]!;
  const width = (bytes[at + 3]! << 8) | bytes[at + 4]!;
  const components = bytes[at + 5]!;
  const isPicture = bits >= 2 && bits <= 16 && width > 0 && height > 0 && components >= 1 && components <= 4;
  if (!isPicture || end < at + 6 + components * 3) throw bad('The frame header makes no picture.', start);
  if (width * height * components > most)
    throw new Problem(
      'limit-pixels',
      `The picture is of ${width} × ${height}, larger than its place.`,
      `byte ${start}`,
      'Ask for the file again.',
    );
  const ids = Array.from({ length: components }, (_, i) => {
    if (bytes[at + 7 + i * 3] !== 0x11) throw bad('Subsampled components are not part of lossless JPEG in DNG.', at);
    return bytes[at + 6 + i * 3]!;
  });
  return { width, height, components, bits, ids };
}

/** The Huffman tables of a segment (ITU-T T.81, B.2.4.2), each put at its number. */
function readTables(bytes: Uint8Array, at: number, end: number, tables: (Table | undefined)[]): void {
  for (let q = at; q < end;) {
    const id = bytes[q]! & 15;
    const counts = bytes.subarray(q + 1, q + 17);
    const count = counts.reduce((x, y) => x + y, 0);
    if (q + 17 + count > end || id > 3) throw bad('A Huffman table is damaged.', q);
    tables[id] = huffman(counts, bytes.subarray(q + 17, q + 17 + count));
    q += 17 + count;
  }
}

/** The table that a scan header at `at`, of n components, gives to the component with this id. */
function tableOf(id: number, bytes: Uint8Array, at: number, n: number, tables: (Table | undefined)[]): Table {
  for (let i = 0; i < n; i++) {
    const table = bytes[at + 1 + i * 2] === id ? tables[bytes[at + 2 + i * 2]! >> 4] : undefined;
    if (table) return table;
  }
  throw bad('A component has no Huffman table.', at);
}

/** Interleaved samples of width × height × components. `most` limits their number. */
export function decodeLosslessJpeg(
  bytes: Uint8Array,
  most: number,
): { width: number; height: number; components: number; bits: number; data: Uint16Array } {
  const u16 = (p: number): number => {
    if (p + 1 >= bytes.length) throw bad('The picture ends within a header.', p);
    return (bytes[p]! << 8) | bytes[p + 1]!;
  };
  if (u16(0) !== 0xffd8) throw bad('This is no JPEG.', 0);
  const tables: (Table | undefined)[] = [];
  let p = 2;
  let frame: Frame | null = null;
  let restart = 0;
  for (;;) {
    const marker = u16(p);
    const length = u16(p + 2);
    const at = p + 4;
    const end = p + 2 + length;
    if ((marker & 0xff00) !== 0xff00 || length < 2 || end > bytes.length) throw bad('A segment is damaged.', p);
    if (marker === 0xffc3) frame = readFrame(bytes, p, at, end, most);
    else if (marker === 0xffc4) readTables(bytes, at, end, tables);
    else if (marker === 0xffdd) restart = u16(at);
    else if (marker >= 0xffc0 && marker <= 0xffcf && marker !== 0xffc8)
      throw bad('This JPEG is not a lossless one.', p);
    else if (marker === 0xffda) {
      if (!frame) throw bad('The scan comes before the frame.', p);
      const n = bytes[at]!;
      const own = frame.ids.map((id) => tableOf(id, bytes, at, n, tables));
      const { width, height, components, bits } = frame;
      const predictor = bytes[at + 1 + n * 2]!;
      const shift = bytes[at + 3 + n * 2]! & 15;
      const data = scan(bytes, end, width, height, own, predictor, bits, shift, restart);
      return { width, height, components, bits, data };
    }
    p = end;
  }
}

// eslint-disable-next-line max-lines-per-function -- the state of the bit reader stays in registers as locals of one function
function scan(
  bytes: Uint8Array,
  start: number,
  width: number,
  height: number,
  tables: Table[],
  predictor: number,
  bits: number,
  shift: number,
  restart: number,
): Uint16Array {
  const components = tables.length;
  const out = new Uint16Array(width * height * components);
  const row = width * components;
  const initial = 1 << (bits - shift - 1);
  if (predictor < 1 || predictor > 7) throw bad('The predictor is none of the seven.', start);
  let p = start;
  let acc = 0;
  let have = 0;
  let past = 0;
  const fill = (): void => {
    while (have <= 24) {
      let v = 0;
      if (p < bytes.length) {
        v = bytes[p]!;
        if (v === 0xff) {
          if (bytes[p + 1] === 0) p += 2;
          else {
            v = 0;
            past++;
          }
        } else p++;
      } else past++;
      // a scan may end a few bits early, not many
      if (past > 8) throw bad('The picture is cut off.', p);
      acc = ((acc << 8) | v) >>> 0;
      have += 8;
    }
  };
  // at most 24 bits at a time
  const take = (k: number): number => {
    if (k === 0) return 0;
    if (have < k) fill();
    have -= k;
    return (acc >>> have) & ((1 << k) - 1);
  };
  const difference = (table: Table): number => {
    if (have < 16) fill();
    const q = table.quick[(acc >>> (have - 8)) & 255]!;
    let size: number;
    if (q) {
      size = q & 255;
      have -= q >> 8;
    } else {
      let l = 9;
      let code = 0;
      for (; l <= 16; l++) {
        code = (acc >>> (have - l)) & ((1 << l) - 1);
        if (table.most[l]! >= code && code >= table.least[l]!) break;
      }
      if (l > 16) throw bad('A code stands in no Huffman table.', p);
      have -= l;
      size = table.values[table.first[l]! + code - table.least[l]!]!;
    }
    if (size === 0) return 0;
    if (size >= 16) return 32768;
    const v = take(size);
    return v < 1 << (size - 1) ? v - (1 << size) + 1 : v;
  };
  let left = restart;
  let fresh = true;
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (restart && left === 0) {
        have = 0;
        acc = 0;
        past = 0;
        while (p + 1 < bytes.length && !(bytes[p] === 0xff && bytes[p + 1]! >= 0xd0 && bytes[p + 1]! <= 0xd7)) p++;
        p += 2;
        left = restart;
        fresh = true;
      }
      left--;
      for (let c = 0; c < components; c++, at++) {
        let guess: number;
        if (fresh) guess = initial;
        else if (y === 0) guess = out[at - components]!;
        else if (x === 0) guess = out[at - row]!;
        else {
          guess = predicted(predictor, out[at - components]!, out[at - row]!, out[at - row - components]!);
        }
        out[at] = guess + difference(tables[c]!);
      }
      fresh = false;
    }
  }
  if (shift) for (let i = 0; i < out.length; i++) out[i]! <<= shift;
  return out;
}

/** What the neighbours to the left, above and above left let expect (ITU-T T.81, table H.1). */
function predicted(predictor: number, left: number, above: number, corner: number): number {
  switch (predictor) {
    case 1:
      return left;
    case 2:
      return above;
    case 3:
      return corner;
    case 4:
      return left + above - corner;
    case 5:
      return left + ((above - corner) >> 1);
    case 6:
      return above + ((left - corner) >> 1);
    default:
      return (left + above) >> 1;
  }
}
