/**
 * Image file directories of TIFF 6.0 (and of what is laid out like it: EXIF, DNG, DCP): both byte orders, every offset and
 * count checked against the bytes that are there, loops of directories cut. Values are read only when asked for.
 * It is our own because no package reads DNG's tags from bytes that may lie without taking memory for what they claim.
 */
import { Problem } from '../problem';

/** Bytes a value of each TIFF type: BYTE, ASCII, SHORT, LONG, RATIONAL, SBYTE, UNDEFINED, SSHORT, SLONG, SRATIONAL, FLOAT, DOUBLE. */
export const TYPE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];

export interface Tag {
  tag: number;
  type: number;
  count: number;
  /** byte offset of the first value */ at: number;
}
export interface Directory {
  at: number;
  tags: Map<number, Tag>;
  next: number;
}

const broken = (message: string, at: number): Problem =>
  new Problem(
    'tiff-broken',
    message,
    `byte ${at}`,
    'Ask the supplier for the file again, or export it anew from the program that made it.',
  );

/** A tag's value as bytes, in the file's byte order. */
export interface RawTag {
  tag: number;
  type: number;
  count: number;
  data: Uint8Array;
}

/** `count` numbers of a TIFF type from byte `at` on. */
export function numbersAt(view: DataView, at: number, type: number, count: number, little: boolean): number[] {
  const out = new Array<number>(count);
  const each = TYPE_BYTES[type]!;
  for (let i = 0, place = at; i < count; i++, place += each)
    switch (type) {
      case 1:
      case 7:
        out[i] = view.getUint8(place);
        break;
      case 3:
        out[i] = view.getUint16(place, little);
        break;
      case 4:
        out[i] = view.getUint32(place, little);
        break;
      case 5:
        out[i] = view.getUint32(place, little) / view.getUint32(place + 4, little);
        break;
      case 6:
        out[i] = view.getInt8(place);
        break;
      case 8:
        out[i] = view.getInt16(place, little);
        break;
      case 9:
        out[i] = view.getInt32(place, little);
        break;
      case 10:
        out[i] = view.getInt32(place, little) / view.getInt32(place + 4, little);
        break;
      case 11:
        out[i] = view.getFloat32(place, little);
        break;
      case 12:
        out[i] = view.getFloat64(place, little);
        break;
    }
  return out;
}

export class Ifds {
  readonly view: DataView;
  readonly little: boolean;
  readonly magic: number;
  readonly first: number;

  constructor(
    readonly bytes: Uint8Array,
    /** where the header begins; offsets count from it */ start = 0,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset + start, bytes.byteLength - start);
    if (this.view.byteLength < 8) throw broken('The file ends within its header.', this.view.byteLength);
    const order = this.view.getUint16(0);
    if (order !== 0x4949 && order !== 0x4d4d) throw broken('There is no byte order mark.', 0);
    this.little = order === 0x4949;
    this.magic = this.view.getUint16(2, this.little);
    this.first = this.view.getUint32(4, this.little);
  }

  /** The directory at an offset. At most 4,096 tags; each value must lie within the file. */
  read(at: number): Directory {
    const view = this.view;
    if (at < 8 || at + 2 > view.byteLength) throw broken('A directory lies outside the file.', at);
    const count = view.getUint16(at, this.little);
    const end = at + 2 + count * 12;
    if (count === 0 || count > 4096 || end > view.byteLength)
      throw broken(`A directory claims ${count} tags, more than there is room for.`, at);
    const tags = new Map<number, Tag>();
    for (let i = 0; i < count; i++) {
      const entry = at + 2 + i * 12;
      const tag = view.getUint16(entry, this.little);
      const type = view.getUint16(entry + 2, this.little);
      const n = view.getUint32(entry + 4, this.little);
      const each = TYPE_BYTES[type] ?? 0;
      if (!each) continue; // types that we do not know are passed over, as TIFF 6.0 asks
      const length = each * n;
      const where = length <= 4 ? entry + 8 : view.getUint32(entry + 8, this.little);
      if (where + length > view.byteLength) throw broken(`Tag ${tag} points outside the file.`, entry);
      tags.set(tag, { tag, type, count: n, at: where });
    }
    return { at, tags, next: end + 4 <= view.byteLength ? view.getUint32(end, this.little) : 0 };
  }

  /** The chain of directories from the first; a loop, or more than 64, is refused. */
  chain(): Directory[] {
    const out: Directory[] = [];
    const seen = new Set<number>();
    for (let at = this.first; at !== 0;) {
      if (seen.has(at) || out.length >= 64) throw broken('The directories of the file run in a loop.', at);
      seen.add(at);
      const directory = this.read(at);
      out.push(directory);
      at = directory.next;
    }
    return out;
  }

  numbers(directory: Directory, tag: number, most = 4096): number[] {
    const entry = directory.tags.get(tag);
    if (!entry || entry.type === 2) return [];
    return numbersAt(this.view, entry.at, entry.type, Math.min(entry.count, most), this.little);
  }

  /** A tag's value as it lies in the file. */
  raw(directory: Directory, tag: number): RawTag | null {
    const entry = directory.tags.get(tag);
    if (!entry) return null;
    const from = this.view.byteOffset - this.bytes.byteOffset + entry.at;
    return {
      tag,
      type: entry.type,
      count: entry.count,
      data: this.bytes.slice(from, from + entry.count * TYPE_BYTES[entry.type]!),
    };
  }

  number(directory: Directory, tag: number): number | null {
    const value = this.numbers(directory, tag, 1)[0];
    return value === undefined || !Number.isFinite(value) ? null : value;
  }

  /** ASCII or bytes as text, up to the first zero, at most `most` characters. */
  text(directory: Directory, tag: number, most = 400): string {
    const entry = directory.tags.get(tag);
    if (!entry || (entry.type !== 2 && entry.type !== 1 && entry.type !== 7)) return '';
    const from = this.view.byteOffset - this.bytes.byteOffset + entry.at;
    const raw = this.bytes.subarray(from, from + Math.min(entry.count, most * 4));
    const end = raw.indexOf(0);
    return new TextDecoder()
      .decode(end < 0 ? raw : raw.subarray(0, end))
      .trim()
      .slice(0, most);
  }
}
