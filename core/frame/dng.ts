/**
 * Digital Negative files (DNG 1.7): what is needed to develop one: the mosaic or linear picture, levels, the neutral, the
 * embedded profile, and the camera's own JPEG. Values come out as camera RGB, linear, 0 = black, 1 = white level.
 */
import { sample16 } from '../samples';
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
  /** EV by which the camera wants it lighter than it was taken (BaselineExposure, 50730); 0 where it does not say */ baseline: number;
  /** the profile inside, with matrices at least where the file has them */ profile: Dcp;
  camera: string;
  serial: string;
  /** 1…8 as TIFF has it */ orientation: number;
  /** the camera's own JPEG */ jpeg: Uint8Array | null;
}

/** All directories of the file: the chain, and those under SubIFDs. */
function directories(ifds: Ifds): Directory[] {
  const out: Directory[] = [];
  for (const directory of ifds.chain()) {
    out.push(directory);
    for (const at of ifds.numbers(directory, 330, 32)) {
      if (out.length > 64) throw bad('tiff-broken', 'The file has more than 64 directories.', `byte ${at}`);
      out.push(ifds.read(at));
    }
  }
  return out;
}

interface Described {
  width: number;
  height: number;
  channels: number;
  bits: number;
  data: Dng['samples'];
}

/** What the picture is, without its pixels. */
const described = (ifds: Ifds, main: Directory): Described => ({
  width: ifds.number(main, 256) ?? 0,
  height: ifds.number(main, 257) ?? 0,
  channels: ifds.number(main, 277) ?? 1,
  bits: bitsOf(ifds, main)[0]!,
  data: new Uint16Array(0),
});

/** The color of each of the 2 × 2 places of a mosaic; null for a linear picture. */
function patternOf(ifds: Ifds, main: Directory, mosaic: boolean, picture: Described): Dng['cfa'] {
  if (!mosaic) {
    if (picture.channels !== 3)
      throw bad('dng-picture', `A linear picture of ${picture.channels} channels is not developed.`, 'SamplesPerPixel');
    return null;
  }
  if (picture.width < 2 || picture.height < 2)
    throw bad('dng-picture', `A mosaic of ${picture.width} × ${picture.height} is none.`, 'ImageWidth');
  const size = ifds.numbers(main, 33421);
  const pattern = ifds.numbers(main, 33422, 16);
  const isTwoByTwo = picture.channels === 1 && size[0] === 2 && size[1] === 2 && pattern.length === 4;
  if (!isTwoByTwo || pattern.some((color) => color > 2) || new Set(pattern).size !== 3)
    throw bad('dng-pattern', 'Only patterns of two by two, of red, green and blue, are developed.', 'CFAPattern');
  return pattern as [number, number, number, number];
}

/** Black and white levels: one of each of the four places of a mosaic, or of three channels. */
function levelsOf(ifds: Ifds, main: Directory, mosaic: boolean, picture: Described): Pick<Dng, 'black' | 'white'> {
  const top = picture.data instanceof Float32Array ? 1 : 2 ** picture.bits - 1;
  const spread = (values: number[], fallback: number, n: number): number[] =>
    Array.from({ length: n }, (_, i) => values[values.length === n ? i : 0] ?? fallback);
  const black = spread(ifds.numbers(main, 50714), 0, mosaic ? 4 : 3);
  const given = spread(ifds.numbers(main, 50717), top, mosaic ? 1 : 3);
  const white = mosaic ? [0, 0, 0, 0].map(() => given[0]!) : given;
  if (black.some((level, i) => !(level < white[i]!)))
    throw bad(
      'dng-levels',
      `The black level of ${black.join(', ')} is not below the white level of ${white.join(', ')}.`,
      'BlackLevel',
    );
  return { black, white };
}

/** The color of white as shot, the largest 1; all 1 where the file does not say. */
function neutralOf(ifds: Ifds, first: Directory): [number, number, number] {
  const shot = ifds.numbers(first, 50728);
  const known = shot.length === 3 && shot.every((v) => v > 0 && Number.isFinite(v));
  const [r, g, b] = (known ? shot : [1, 1, 1]) as [number, number, number];
  const high = Math.max(r, g, b);
  return [r / high, g / high, b / high];
}

/** Beyond this, in EV, an offset is no offset but a fault. */
const MOST_BASELINE = 10;

function baselineOf(ifds: Ifds, first: Directory): number {
  const [said = 0] = ifds.numbers(first, 50730);
  return Number.isFinite(said) && Math.abs(said) <= MOST_BASELINE ? said : 0;
}

/** Tags of the DNG specification that make up a camera profile, and the name of the camera. */
const PROFILE_TAGS = [
  50708, 50721, 50722, 50778, 50779, 50936, 50937, 50938, 50939, 50940, 50941, 50942, 50964, 50965, 50981, 50982, 51107,
  51108, 51109, 51110,
];

function profileTags(ifds: Ifds, first: Directory): Map<number, RawTag> {
  const tags = new Map<number, RawTag>();
  for (const number of PROFILE_TAGS) {
    const tag = ifds.raw(first, number);
    if (tag) tags.set(number, tag);
  }
  return tags;
}

/** The widest JPEG of the file that lies in it whole, as its preview. */
function largestJpeg(ifds: Ifds, all: Directory[], bytes: Uint8Array): Uint8Array | null {
  let jpeg: Uint8Array | null = null;
  let largest = 0;
  for (const directory of all) {
    const isPreview = ifds.number(directory, 259) === 7 && !MAIN_PICTURES.includes(ifds.number(directory, 262) ?? -1);
    const at = ifds.number(directory, 273);
    const size = ifds.number(directory, 279);
    const width = ifds.number(directory, 256) ?? 0;
    if (!isPreview || at === null || size === null || at + size > bytes.length || width <= largest) continue;
    if (bytes[at] !== 0xff || bytes[at + 1] !== 0xd8) continue;
    jpeg = bytes.slice(at, at + size);
    largest = width;
  }
  return jpeg;
}

const MOSAIC = 32803;
/** Photometric interpretations of what is developed: a mosaic, or a linear picture. */
const MAIN_PICTURES = [MOSAIC, 34892];

/** Reads a DNG. `most` limits the pixels; without `pixels`, all but those is read, and `samples` is empty. */
export function readDng(bytes: Uint8Array, most = 120e6, pixels = true): Dng {
  const ifds = new Ifds(bytes);
  const all = directories(ifds);
  const first = all[0];
  if (ifds.magic !== 42 || !first?.tags.has(50706))
    throw bad('dng-version', 'This is no DNG: its version tag is missing.', 'DNGVersion');
  const main = all.find((d) => (ifds.number(d, 254) ?? 0) === 0 && MAIN_PICTURES.includes(ifds.number(d, 262) ?? -1));
  if (!main) throw bad('dng-picture', 'There is no mosaic or linear picture in the file.', 'NewSubFileType');
  const mosaic = ifds.number(main, 262) === MOSAIC;
  const picture = pixels ? readTiffPicture(ifds, main, most * (mosaic ? 1 : 3)) : described(ifds, main);
  return {
    width: picture.width,
    height: picture.height,
    cfa: patternOf(ifds, main, mosaic, picture),
    samples: picture.data,
    channels: picture.channels,
    ...levelsOf(ifds, main, mosaic, picture),
    neutral: neutralOf(ifds, first),
    baseline: baselineOf(ifds, first),
    profile: { little: ifds.little, tags: profileTags(ifds, first) },
    camera: ifds.text(first, 50708) || ifds.text(first, 272),
    serial: ifds.text(first, 50735),
    orientation: ifds.number(first, 274) ?? 1,
    jpeg: largestJpeg(ifds, all, bytes),
  };
}

/**
 * A linear picture no wider than `width` and no larger than half the mosaic: blocks of whole patterns averaged by channel,
 * which needs no guessing. Interleaved RGB, 16 bits, 65535 = white level.
 */
export function linearPreview(dng: Dng, width: number): { width: number; height: number; data: Uint16Array } {
  const unit = dng.cfa ? 2 : 1;
  const w0 = Math.floor(dng.width / unit);
  const h0 = Math.floor(dng.height / unit);
  const w = Math.max(1, Math.min(width, w0));
  const h = Math.max(1, Math.round((h0 * w) / w0));
  const out = new Uint16Array(w * h * 3);
  const sums = new Float64Array(w * 3);
  const counts = new Float64Array(w * 3);
  const columns = new Int32Array(dng.width);
  for (let x = 0; x < dng.width; x++) columns[x] = Math.min(w - 1, Math.floor((Math.floor(x / unit) * w) / w0)) * 3;
  const scale = dng.white.map((v, i) => 1 / (v - dng.black[i]!));
  for (let y = 0; y < h; y++) {
    sums.fill(0);
    counts.fill(0);
    const from = Math.floor((y * h0) / h) * unit;
    const to = Math.max(from + unit, Math.floor(((y + 1) * h0) / h) * unit);
    for (let yy = from; yy < to && yy < dng.height; yy++) {
      const row = yy * dng.width;
      if (dng.cfa) {
        const p = (yy & 1) * 2;
        const c0 = dng.cfa[p]!;
        const c1 = dng.cfa[p + 1]!;
        const b0 = dng.black[p]!;
        const b1 = dng.black[p + 1]!;
        const s0 = scale[p]!;
        const s1 = scale[p + 1]!;
        for (let x = 0; x + 1 < dng.width; x += 2) {
          const o = columns[x]!;
          sums[o + c0]! += (dng.samples[row + x]! - b0) * s0;
          counts[o + c0]!++;
          sums[o + c1]! += (dng.samples[row + x + 1]! - b1) * s1;
          counts[o + c1]!++;
        }
      } else addLinearRow(dng, row, columns, scale, sums, counts);
    }
    for (let i = 0; i < w * 3; i++) {
      const v = counts[i] ? sums[i]! / counts[i]! : 0;
      out[y * w * 3 + i] = sample16(v);
    }
  }
  return { width: w, height: h, data: out };
}

/** The samples of a linear picture's row, which begins at pixel `row`, are added to the blocks that they lie in. */
function addLinearRow(
  dng: Dng,
  row: number,
  columns: Int32Array,
  scale: number[],
  sums: Float64Array,
  counts: Float64Array,
): void {
  for (let x = 0, i = row * 3; x < dng.width; x++) {
    const o = columns[x]!;
    for (let c = 0; c < 3; c++, i++) {
      sums[o + c]! += (dng.samples[i]! - dng.black[c]!) * scale[c]!;
      counts[o + c]!++;
    }
  }
}

/** All samples as 16 bits with their levels: a mosaic of 16 bits as it came; linear pictures, bytes and floats between their own levels, clamped. */
export function fullSamples(dng: Dng): { samples: Uint16Array; black: number[]; white: number[] } {
  if (dng.cfa && dng.samples instanceof Uint16Array)
    return { samples: dng.samples, black: dng.black, white: dng.white };
  const out = new Uint16Array(dng.samples.length);
  const channels = dng.cfa ? 4 : 3;
  const scale = dng.white.map((w, i) => 65535 / (w - dng.black[i]!));
  for (let i = 0; i < out.length; i++) {
    const p = dng.cfa ? (Math.floor(i / dng.width) & 1) * 2 + ((i % dng.width) & 1) : i % 3;
    const v = (dng.samples[i]! - dng.black[p]!) * scale[p]!;
    out[i] = sample16(v / 65535);
  }
  return { samples: out, black: new Array<number>(channels).fill(0), white: new Array<number>(channels).fill(65535) };
}

export interface DngPlan {
  width: number;
  height: number;
  /** null for a linear picture */ cfa: [number, number, number, number] | null;
  /** one sample a place of the mosaic, or three of a linear picture */ mosaic: Uint16Array;
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
  /** EV, as BaselineExposure */ baseline?: number;
}

/** Writes a DNG: the camera's JPEG in the first directory, the mosaic or linear picture, uncompressed in strips, beneath it. */
export function writeDng(plan: DngPlan): Uint8Array {
  const little = true;
  const shorts = (t: number, ...v: number[]) => numbersTag(t, 3, v, little);
  const longs = (t: number, ...v: number[]) => numbersTag(t, 4, v, little);
  const rationals = (t: number, ...v: number[]) => numbersTag(t, 5, v, little);
  const rows = 64;
  const parts: Uint8Array[] = [];
  const { cfa } = plan;
  const samples = cfa ? 1 : 3;
  const line = plan.width * 2 * samples;
  const bytes = new Uint8Array(plan.mosaic.buffer, plan.mosaic.byteOffset, plan.mosaic.byteLength);
  for (let y = 0; y < plan.height; y += rows)
    parts.push(bytes.subarray(y * line, Math.min(plan.height, y + rows) * line));
  const mosaic: Plan = {
    tags: [
      longs(254, 0),
      longs(256, plan.width),
      longs(257, plan.height),
      shorts(258, ...new Array<number>(samples).fill(16)),
      shorts(259, 1),
      shorts(262, cfa ? 32803 : 34892),
      shorts(277, samples),
      longs(278, rows),
      longs(279, ...parts.map((x) => x.length)),
      shorts(284, 1),
      ...(cfa ? [shorts(33421, 2, 2), bytesTag(33422, Uint8Array.from(cfa), 1), shorts(50711, 1)] : []),
      shorts(50714, plan.black),
      longs(50717, plan.white),
    ],
    blocks: { tag: 273, parts },
  };
  const exif: Plan = {
    tags: [
      rationals(33434, 1 / 60),
      rationals(33437, plan.aperture),
      shorts(34855, plan.iso),
      textTag(36867, plan.date),
      rationals(37386, plan.focal),
      textTag(42036, plan.lens),
      textTag(42033, plan.serial),
    ],
  };
  const jpeg = plan.jpeg;
  const own = [...plan.profile.tags.values()].filter((t) => t.tag !== 50708);
  return writeIfds(42, little, {
    tags: [
      ...(jpeg
        ? [
            longs(254, 1),
            longs(256, jpeg.width),
            longs(257, jpeg.height),
            shorts(258, 8, 8, 8),
            shorts(259, 7),
            shorts(262, 6),
            shorts(277, 3),
            longs(278, jpeg.height),
            longs(279, jpeg.bytes.length),
          ]
        : [longs(254, 1)]),
      textTag(271, plan.maker),
      textTag(272, plan.model),
      shorts(274, plan.orientation ?? 1),
      textTag(306, plan.date),
      bytesTag(50706, Uint8Array.of(1, 4, 0, 0), 1),
      bytesTag(50707, Uint8Array.of(1, 1, 0, 0), 1),
      textTag(50708, plan.unique),
      textTag(50735, plan.serial),
      rationals(50728, ...plan.neutral),
      ...(plan.baseline ? [numbersTag(50730, 10, [plan.baseline], little)] : []),
      ...(plan.asShot ? [textTag(50934, plan.asShot)] : []),
      ...own,
    ],
    under: [
      { tag: 330, plans: [mosaic] },
      { tag: 34665, plans: [exif] },
    ],
    ...(jpeg ? { blocks: { tag: 273, parts: [jpeg.bytes] } } : {}),
  });
}
