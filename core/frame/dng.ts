/**
 * Digital Negative files (DNG 1.7): what is needed to develop one: the mosaic or linear picture, levels, the neutral, the
 * embedded profile, and the camera's own JPEG. Values come out as camera RGB, linear, 0 = black, 1 = white level.
 */
import type { Dcp } from '../camera/dcp';
import { Problem } from '../problem';
import { Ifds, type Directory } from '../tiff/ifd';
import { bitsOf, readTiffPicture } from '../tiff/picture';
import { bytesTag, numbersTag, textTag, writeIfds, type Plan, type RawTag } from '../tiff/write';

const again = 'Convert the camera’s file anew.';
const bad = (code: string, message: string, where: string): Problem => new Problem(code, message, where, again);

export interface Dng {
  width: number;
  height: number;
  /** channel (0 red, 1 green, 2 blue) of each of the 2 × 2 places, row-major; null for a linear picture of three channels */ cfa:
    [number, number, number, number] | null;
  /** as stored, interleaved */ samples: Uint8Array | Uint16Array | Float32Array;
  channels: number;
  /** by place of the pattern (four) or channel (three) */ black: number[];
  white: number[];
  /** camera values of what was neutral, the largest 1 */ neutral: [number, number, number];
  /** the profile inside, with matrices at least where the file has them */ profile: Dcp;
  camera: string;
  serial: string;
  /** 1…8 as TIFF has it */ orientation: number;
  /** the camera's own JPEG */ jpeg: Uint8Array | null;
}

/** All directories of the file: the chain, and those under SubIFDs. */
function directories(f: Ifds): Directory[] {
  const out: Directory[] = [];
  for (const d of f.chain()) {
    out.push(d);
    for (const at of f.numbers(d, 330, 32)) {
      if (out.length > 64) throw bad('tiff-broken', 'The file has more than 64 directories.', `byte ${at}`);
      out.push(f.read(at));
    }
  }
  return out;
}

/** Reads a DNG. `most` limits the pixels; without `pixels`, all but those is read, and `samples` is empty. */
export function readDng(bytes: Uint8Array, most = 120e6, pixels = true): Dng {
  const f = new Ifds(bytes);
  const all = directories(f);
  const first = all[0];
  if (f.magic !== 42 || !first?.tags.has(50706))
    throw bad('dng-version', 'This is no DNG: its version tag is missing.', 'DNGVersion');
  const main = all.find((d) => (f.number(d, 254) ?? 0) === 0 && [32803, 34892].includes(f.number(d, 262) ?? -1));
  if (!main) throw bad('dng-picture', 'There is no mosaic or linear picture in the file.', 'NewSubFileType');
  const mosaic = f.number(main, 262) === 32803;
  const p = pixels
    ? readTiffPicture(f, main, most * (mosaic ? 1 : 3))
    : {
        width: f.number(main, 256) ?? 0,
        height: f.number(main, 257) ?? 0,
        channels: f.number(main, 277) ?? 1,
        bits: bitsOf(f, main)[0]!,
        data: new Uint16Array(0),
      };
  if (mosaic && (p.width < 2 || p.height < 2))
    throw bad('dng-picture', `A mosaic of ${p.width} × ${p.height} is none.`, 'ImageWidth');
  if (!mosaic && p.channels !== 3)
    throw bad('dng-picture', `A linear picture of ${p.channels} channels is not developed.`, 'SamplesPerPixel');
  let cfa: Dng['cfa'] = null;
  if (mosaic) {
    const dim = f.numbers(main, 33421);
    const pattern = f.numbers(main, 33422, 16);
    if (
      p.channels !== 1 ||
      dim[0] !== 2 ||
      dim[1] !== 2 ||
      pattern.length !== 4 ||
      pattern.some((c) => c > 2) ||
      new Set(pattern).size !== 3
    )
      throw bad('dng-pattern', 'Only patterns of two by two, of red, green and blue, are developed.', 'CFAPattern');
    cfa = pattern as [number, number, number, number];
  }
  const top = p.data instanceof Float32Array ? 1 : 2 ** p.bits - 1;
  const spread = (v: number[], fallback: number, n: number): number[] =>
    Array.from({ length: n }, (_, i) => v[v.length === n ? i : 0] ?? fallback);
  const n = mosaic ? 4 : 3;
  const black = spread(f.numbers(main, 50714), 0, n);
  const white = spread(f.numbers(main, 50717), top, mosaic ? 1 : 3);
  const whites = mosaic ? [0, 0, 0, 0].map(() => white[0]!) : white;
  if (black.some((b, i) => !(b < whites[i]!)))
    throw bad(
      'dng-levels',
      `The black level of ${black.join(', ')} is not below the white level of ${whites.join(', ')}.`,
      'BlackLevel',
    );
  const shot = f.numbers(first, 50728);
  const neutral = (shot.length === 3 && shot.every((v) => v > 0 && Number.isFinite(v)) ? shot : [1, 1, 1]) as [
    number,
    number,
    number,
  ];
  const high = Math.max(...neutral);
  const tags = new Map<number, RawTag>();
  for (const t of [
    50708, 50721, 50722, 50778, 50779, 50936, 50937, 50938, 50939, 50940, 50941, 50942, 50964, 50965, 50981, 50982,
    51107, 51108, 51109, 51110,
  ]) {
    const r = f.raw(first, t);
    if (r) tags.set(t, r);
  }
  let jpeg: Uint8Array | null = null;
  let largest = 0;
  for (const d of all)
    if (f.number(d, 259) === 7 && f.number(d, 262) !== 32803 && f.number(d, 262) !== 34892) {
      const at = f.number(d, 273);
      const size = f.number(d, 279);
      const w = f.number(d, 256) ?? 0;
      if (
        at !== null &&
        size !== null &&
        at + size <= bytes.length &&
        w > largest &&
        bytes[at] === 0xff &&
        bytes[at + 1] === 0xd8
      ) {
        jpeg = bytes.slice(at, at + size);
        largest = w;
      }
    }
  return {
    width: p.width,
    height: p.height,
    cfa,
    samples: p.data,
    channels: p.channels,
    black,
    white: whites,
    neutral: [neutral[0] / high, neutral[1] / high, neutral[2] / high],
    profile: { little: f.little, tags },
    camera: f.text(first, 50708) || f.text(first, 272),
    serial: f.text(first, 50735),
    orientation: f.number(first, 274) ?? 1,
    jpeg,
  };
}

/**
 * A linear picture no wider than `width` and no larger than half the mosaic: blocks of whole patterns averaged by channel,
 * which needs no guessing. Interleaved RGB, 16 bits, 65535 = white level.
 */
export function linearPreview(d: Dng, width: number): { width: number; height: number; data: Uint16Array } {
  const unit = d.cfa ? 2 : 1;
  const w0 = Math.floor(d.width / unit);
  const h0 = Math.floor(d.height / unit);
  const w = Math.max(1, Math.min(width, w0));
  const h = Math.max(1, Math.round((h0 * w) / w0));
  const out = new Uint16Array(w * h * 3);
  const sums = new Float64Array(w * 3);
  const counts = new Float64Array(w * 3);
  const columns = new Int32Array(d.width);
  for (let x = 0; x < d.width; x++) columns[x] = Math.min(w - 1, Math.floor((Math.floor(x / unit) * w) / w0)) * 3;
  const scale = d.white.map((v, i) => 1 / (v - d.black[i]!));
  for (let y = 0; y < h; y++) {
    sums.fill(0);
    counts.fill(0);
    const from = Math.floor((y * h0) / h) * unit;
    const to = Math.max(from + unit, Math.floor(((y + 1) * h0) / h) * unit);
    for (let yy = from; yy < to && yy < d.height; yy++) {
      const row = yy * d.width;
      if (d.cfa) {
        const p = (yy & 1) * 2;
        const c0 = d.cfa[p]!;
        const c1 = d.cfa[p + 1]!;
        const b0 = d.black[p]!;
        const b1 = d.black[p + 1]!;
        const s0 = scale[p]!;
        const s1 = scale[p + 1]!;
        for (let x = 0; x + 1 < d.width; x += 2) {
          const o = columns[x]!;
          sums[o + c0]! += (d.samples[row + x]! - b0) * s0;
          counts[o + c0]!++;
          sums[o + c1]! += (d.samples[row + x + 1]! - b1) * s1;
          counts[o + c1]!++;
        }
      } else
        for (let x = 0, i = row * 3; x < d.width; x++) {
          const o = columns[x]!;
          for (let c = 0; c < 3; c++, i++) {
            sums[o + c]! += (d.samples[i]! - d.black[c]!) * scale[c]!;
            counts[o + c]!++;
          }
        }
    }
    for (let i = 0; i < w * 3; i++) {
      const v = counts[i] ? sums[i]! / counts[i]! : 0;
      out[y * w * 3 + i] = v <= 0 ? 0 : v >= 1 ? 65535 : Math.round(v * 65535);
    }
  }
  return { width: w, height: h, data: out };
}

/** All samples as 16 bits with their levels: a mosaic of 16 bits as it came; linear pictures, bytes and floats between their own levels, clamped. */
export function fullSamples(d: Dng): { samples: Uint16Array; black: number[]; white: number[] } {
  if (d.cfa && d.samples instanceof Uint16Array) return { samples: d.samples, black: d.black, white: d.white };
  const out = new Uint16Array(d.samples.length);
  const n = d.cfa ? 4 : 3;
  const scale = d.white.map((w, i) => 65535 / (w - d.black[i]!));
  for (let i = 0; i < out.length; i++) {
    const p = d.cfa ? (Math.floor(i / d.width) & 1) * 2 + ((i % d.width) & 1) : i % 3;
    const v = (d.samples[i]! - d.black[p]!) * scale[p]!;
    out[i] = v <= 0 ? 0 : v >= 65535 ? 65535 : Math.round(v);
  }
  return { samples: out, black: new Array<number>(n).fill(0), white: new Array<number>(n).fill(65535) };
}

export interface DngPlan {
  width: number;
  height: number;
  cfa: [number, number, number, number];
  mosaic: Uint16Array;
  black: number;
  white: number;
  neutral: readonly number[];
  maker: string;
  model: string;
  /** the name by which profiles find it */ unique: string;
  serial: string;
  lens: string;
  focal: number;
  aperture: number;
  iso: number;
  date: string;
  profile: Dcp;
  jpeg: { bytes: Uint8Array; width: number; height: number } | null;
  /** as TIFF has it, 1 without */ orientation?: number;
  /** the name of the profile that the camera was set to */ asShot?: string;
}

/** Writes a DNG: the camera's JPEG in the first directory, the mosaic, uncompressed in strips, beneath it. */
export function writeDng(p: DngPlan): Uint8Array {
  const l = true;
  const s = (t: number, ...v: number[]) => numbersTag(t, 3, v, l);
  const n = (t: number, ...v: number[]) => numbersTag(t, 4, v, l);
  const r = (t: number, ...v: number[]) => numbersTag(t, 5, v, l);
  const rows = 64;
  const parts: Uint8Array[] = [];
  const bytes = new Uint8Array(p.mosaic.buffer, p.mosaic.byteOffset, p.mosaic.byteLength);
  for (let y = 0; y < p.height; y += rows)
    parts.push(bytes.subarray(y * p.width * 2, Math.min(p.height, y + rows) * p.width * 2));
  const mosaic: Plan = {
    tags: [
      n(254, 0),
      n(256, p.width),
      n(257, p.height),
      s(258, 16),
      s(259, 1),
      s(262, 32803),
      s(277, 1),
      n(278, rows),
      n(279, ...parts.map((x) => x.length)),
      s(284, 1),
      s(33421, 2, 2),
      bytesTag(33422, Uint8Array.from(p.cfa), 1),
      s(50711, 1),
      s(50714, p.black),
      n(50717, p.white),
    ],
    blocks: { tag: 273, parts },
  };
  const exif: Plan = {
    tags: [
      r(33434, 1 / 60),
      r(33437, p.aperture),
      s(34855, p.iso),
      textTag(36867, p.date),
      r(37386, p.focal),
      textTag(42036, p.lens),
      textTag(42033, p.serial),
    ],
  };
  const j = p.jpeg;
  const own = [...p.profile.tags.values()].filter((t) => t.tag !== 50708);
  return writeIfds(42, l, {
    tags: [
      ...(j
        ? [
            n(254, 1),
            n(256, j.width),
            n(257, j.height),
            s(258, 8, 8, 8),
            s(259, 7),
            s(262, 6),
            s(277, 3),
            n(278, j.height),
            n(279, j.bytes.length),
          ]
        : [n(254, 1)]),
      textTag(271, p.maker),
      textTag(272, p.model),
      s(274, p.orientation ?? 1),
      textTag(306, p.date),
      bytesTag(50706, Uint8Array.of(1, 4, 0, 0), 1),
      bytesTag(50707, Uint8Array.of(1, 1, 0, 0), 1),
      textTag(50708, p.unique),
      textTag(50735, p.serial),
      r(50728, ...p.neutral),
      ...(p.asShot ? [textTag(50934, p.asShot)] : []),
      ...own,
    ],
    under: [
      { tag: 330, plans: [mosaic] },
      { tag: 34665, plans: [exif] },
    ],
    ...(j ? { blocks: { tag: 273, parts: [j.bytes] } } : {}),
  });
}
