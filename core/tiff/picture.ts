/**
 * The pixels of a TIFF directory (TIFF 6.0, and as DNG uses it): strips or tiles, 8 to 16 bits or 32-bit floats, uncompressed,
 * LZW, deflate, PackBits or lossless JPEG, horizontal predictor, chunky or planar. Sizes are checked before memory is taken.
 */
import { inflateSync, unzlibSync } from 'fflate';
import { Problem } from '../problem';
import type { Directory, Ifds } from './ifd';
import { decodeLosslessJpeg } from './lossless-jpeg';

export interface TiffPicture {
  width: number;
  height: number;
  channels: number;
  bits: number;
  data: Uint8Array | Uint16Array | Float32Array;
}
const again = 'Save it anew, uncompressed or with deflate, from the program that made it.';
const bad = (code: string, message: string, where: string): Problem => new Problem(code, message, where, again);

/** Bytes of one strip or tile, unpacked to at most `length`; fewer where it ends before. */
function unpack(src: Uint8Array, compression: number, length: number, where: string): Uint8Array {
  if (compression === 1) return src;
  const out = new Uint8Array(length);
  if (compression === 8 || compression === 32946) {
    try {
      return unzlibSync(src, { out });
    } catch {
      try {
        return inflateSync(src, { out });
      } catch {
        throw bad('tiff-broken', 'A compressed part is damaged.', where);
      }
    }
  }
  if (compression === 32773) {
    let o = 0;
    for (let i = 0; i < src.length && o < length;) {
      const n = (src[i++]! << 24) >> 24;
      if (n >= 0) {
        for (let k = 0; k <= n && o < length && i < src.length; k++) out[o++] = src[i++]!;
      } else if (n !== -128 && i < src.length) {
        const end = Math.min(length, o + 1 - n);
        out.fill(src[i++]!, o, end);
        o = end;
      }
    }
    return out.subarray(0, o);
  }
  if (compression === 5) return out.subarray(0, lzw(src, out, where));
  throw bad('tiff-compression', `Compression ${compression} is not read.`, where);
}

/** TIFF's LZW: codes of 9 to 12 bits, most significant first, 256 clears, 257 ends. How many bytes came out. */
function lzw(src: Uint8Array, out: Uint8Array, where: string): number {
  const prefix = new Uint16Array(4097);
  const last = new Uint8Array(4097);
  const lengths = new Uint16Array(4097);
  for (let i = 0; i < 256; i++) {
    last[i] = i;
    lengths[i] = 1;
  }
  let next = 258;
  let width = 9;
  let acc = 0;
  let have = 0;
  let p = 0;
  let o = 0;
  let before = -1;
  const put = (code: number): number => {
    const n = lengths[code]!;
    let c = code;
    let at = o + n - 1;
    for (let k = 0; k < n; k++, at--) {
      if (at < out.length) out[at] = last[c]!;
      c = prefix[c]!;
    }
    const first = out[Math.min(o, out.length - 1)]!;
    o += n;
    return first;
  };
  while (o < out.length) {
    while (have < width) {
      if (p >= src.length) return o;
      acc = ((acc << 8) | src[p++]!) & 0xffffff;
      have += 8;
    }
    const code = (acc >> (have - width)) & ((1 << width) - 1);
    have -= width;
    if (code === 257) return Math.min(o, out.length);
    if (code === 256) {
      next = 258;
      width = 9;
      before = -1;
      continue;
    }
    if (before < 0) {
      if (code > 255) throw bad('tiff-broken', 'An LZW part is damaged.', where);
      put(code);
      before = code;
      continue;
    }
    if (code > next || next > 4096) throw bad('tiff-broken', 'An LZW part is damaged.', where);
    if (next < 4096) {
      prefix[next] = before;
      lengths[next] = lengths[before]! + 1;
    }
    if (code < next) {
      const first = put(code);
      if (next < 4096) last[next] = first;
    } else {
      let c = before;
      while (lengths[c]! > 1) c = prefix[c]!;
      last[next] = last[c]!;
      put(code);
    }
    next++;
    if (next >= (1 << width) - 1 && width < 12) width++;
    before = code;
  }
  return out.length;
}

/** Bits of a directory's samples, e.g. [16, 16, 16]. */
export function bitsOf(ifds: Ifds, directory: Directory): number[] {
  const bits = ifds.numbers(directory, 258, 8);
  return bits.length ? bits : [1];
}

interface Layout {
  where: string;
  width: number;
  height: number;
  channels: number;
  bits: number;
  float: boolean;
  compression: number;
  planar: boolean;
  /** 2: samples are differences from those to their left */ predictor: number;
  /** size of a part, which is a tile or a strip */ partWidth: number;
  partHeight: number;
  tiled: boolean;
}

/** How the picture lies in the file, refused where its figures make none or it is more than `most` samples. */
function layoutOf(ifds: Ifds, directory: Directory, most: number): Layout {
  const where = `the directory at byte ${directory.at}`;
  const width = ifds.number(directory, 256) ?? 0;
  const height = ifds.number(directory, 257) ?? 0;
  const channels = ifds.number(directory, 277) ?? 1;
  if (!(width > 0 && height > 0 && channels > 0 && channels <= 8) || ![width, height, channels].every(Number.isInteger))
    throw bad('tiff-broken', `A picture of ${width} × ${height} with ${channels} channels is none.`, where);
  if (width * height * channels > most)
    throw new Problem(
      'limit-pixels',
      `The picture is of ${width} × ${height} pixels, more than is read.`,
      where,
      'Make it smaller.',
    );
  const { bits, float, predictor } = sampleForm(ifds, directory, where);
  const tiled = directory.tags.has(322);
  const [partWidth, partHeight] = partSize(ifds, directory, width, height);
  if (partWidth * partHeight * channels > most)
    throw bad('tiff-broken', `Parts of ${partWidth} × ${partHeight} are none.`, where);
  return {
    where,
    width,
    height,
    channels,
    bits,
    float,
    compression: ifds.number(directory, 259) ?? 1,
    planar: ifds.number(directory, 284) === 2,
    predictor,
    partWidth,
    partHeight,
    tiled,
  };
}

function sampleForm(ifds: Ifds, directory: Directory, where: string): Pick<Layout, 'bits' | 'float' | 'predictor'> {
  const all = bitsOf(ifds, directory);
  const bits = all[0]!;
  const float = ifds.number(directory, 339) === 3;
  const predictor = ifds.number(directory, 317) ?? 1;
  if (all.some((b) => b !== bits) || !(float ? bits === 32 : bits >= 8 && bits <= 16))
    throw bad('tiff-depth', `Samples of ${all.join(', ')} bits are not read.`, where);
  if (predictor !== 1 && predictor !== 2) throw bad('tiff-compression', `Predictor ${predictor} is not read.`, where);
  return { bits, float, predictor };
}

/** Width and height of a tile, or of a strip. */
function partSize(ifds: Ifds, directory: Directory, width: number, height: number): [number, number] {
  const size: [number, number] = directory.tags.has(322)
    ? [ifds.number(directory, 322) ?? 0, ifds.number(directory, 323) ?? 0]
    : [width, Math.min(height, ifds.number(directory, 278) ?? height)];
  if (!size.every((n) => n > 0 && Number.isInteger(n)))
    throw bad('tiff-broken', `Parts of ${size.join(' × ')} are none.`, `the directory at byte ${directory.at}`);
  return size;
}

/** The pixels. `most` limits width × height × channels (default 400 million). */
export function readTiffPicture(ifds: Ifds, directory: Directory, most = 400e6): TiffPicture {
  const layout = layoutOf(ifds, directory, most);
  const { where, width, height, channels, bits, planar, partWidth, partHeight, tiled } = layout;
  const across = Math.ceil(width / partWidth);
  const down = Math.ceil(height / partHeight);
  const planes = planar ? channels : 1;
  const each = planar ? 1 : channels;
  const parts = across * down * planes;
  // each would be unpacked whole
  if (parts * partWidth * partHeight > 4 * planes * Math.max(width * height, 4e6))
    throw bad('tiff-broken', `${parts} parts of ${partWidth} × ${partHeight} are far more than the picture.`, where);
  const offsets = ifds.numbers(directory, tiled ? 324 : 273, 1e6);
  const counts = ifds.numbers(directory, tiled ? 325 : 279, 1e6);
  if (offsets.length < parts) throw bad('tiff-broken', `There are ${offsets.length} parts of ${parts}.`, where);
  const base = ifds.view.byteOffset - ifds.bytes.byteOffset;
  const whole = bits === 8 ? Uint8Array : Uint16Array;
  const data = new (layout.float ? Float32Array : whole)(width * height * channels);
  for (let part = 0; part < parts; part++) {
    const plane = Math.floor(part / (across * down));
    const left = (part % across) * partWidth;
    const top = (Math.floor(part / across) % down) * partHeight;
    const rows = tiled ? partHeight : Math.min(partHeight, height - top);
    const at = offsets[part]!;
    const count = counts[part] ?? Math.ceil((partWidth * each * bits) / 8) * rows;
    const spot = `part ${part + 1} at byte ${at}`;
    if (at + count > ifds.view.byteLength)
      throw bad('tiff-broken', 'A part of the picture lies outside the file.', spot);
    const samples = partSamples(ifds.bytes.subarray(base + at, base + at + count), layout, rows, ifds.little, spot);
    const w = Math.min(partWidth, width - left);
    const h = Math.min(rows, height - top);
    for (let y = 0; y < h; y++) {
      let s = y * partWidth * each;
      let o = ((top + y) * width + left) * channels + plane;
      if (!planar) data.set(samples.subarray(s, s + w * channels), o);
      else for (let x = 0; x < w; x++, o += channels) data[o] = samples[s++]!;
    }
  }
  return { width, height, channels, bits, data };
}

/** The samples of one part, as many rows of it as are asked for. */
function partSamples(raw: Uint8Array, layout: Layout, rows: number, little: boolean, spot: string): Samples {
  const { partWidth, partHeight, planar, channels, bits, float, compression, predictor } = layout;
  const each = planar ? 1 : channels;
  if (compression === 7) {
    const picture = decodeLosslessJpeg(raw, partWidth * partHeight * each);
    if (picture.width * picture.height * picture.components < partWidth * rows * each)
      throw bad('tiff-broken', 'A part of the picture is smaller than its place.', spot);
    return picture.data;
  }
  const bytesARow = Math.ceil((partWidth * each * bits) / 8);
  const unpacked = unpack(raw, compression, bytesARow * rows, spot);
  return samplesOf(unpacked, partWidth * each, rows, bits, float, little, predictor === 2 ? each : 0, spot);
}

type Samples = Uint8Array | Uint16Array | Float32Array;
/** The order of bytes of this machine: what is stored in it is copied as it is. */
const LITTLE = new Uint8Array(Uint16Array.of(1).buffer)[0] === 1;

function samplesOf(
  bytes: Uint8Array,
  perRow: number,
  rows: number,
  bits: number,
  float: boolean,
  little: boolean,
  apart: number,
  where: string,
): Samples {
  const bytesARow = Math.ceil((perRow * bits) / 8);
  if (bytes.length < bytesARow * rows)
    throw bad('tiff-broken', `A part ends after ${bytes.length} of ${bytesARow * rows} bytes.`, where);
  if (bits === 8 && !apart) return bytes;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const n = perRow * rows;
  if (float) {
    const out = new Float32Array(n);
    for (let i = 0; i < n; i++) out[i] = view.getFloat32(i * 4, little);
    return out;
  }
  const out = bits === 8 ? bytes.slice(0, n) : new Uint16Array(n);
  if (bits === 16 && little === LITTLE) new Uint8Array(out.buffer).set(bytes.subarray(0, n * 2));
  else if (bits === 16) for (let i = 0; i < n; i++) out[i] = view.getUint16(i * 2, little);
  else if (bits !== 8)
    for (let y = 0; y < rows; y++)
      for (let x = 0, bit = y * bytesARow * 8; x < perRow; x++, bit += bits) {
        const q = bit >> 3;
        const word = ((bytes[q]! << 16) | ((bytes[q + 1] ?? 0) << 8) | (bytes[q + 2] ?? 0)) >>> 0;
        out[y * perRow + x] = (word >> (24 - (bit & 7) - bits)) & ((1 << bits) - 1);
      }
  if (apart)
    for (let y = 0; y < rows; y++)
      for (let x = apart, i = y * perRow + apart; x < perRow; x++, i++) out[i] = out[i]! + out[i - apart]!;
  return out;
}
