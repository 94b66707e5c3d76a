/** Writes image file directories of TIFF 6.0: DCP, DNG and our TIFF pictures. Byte-stable: tags ascending, values behind their directory in that order, on even offsets. */

import { TYPE_BYTES, type RawTag } from './ifd';

export type { RawTag };
/** A directory to write: its tags, directories that hang under tags, and blocks of data whose offsets a tag holds. */
export interface Plan {
  tags: RawTag[];
  under?: { tag: number; plans: Plan[] }[];
  blocks?: { tag: number; parts: Uint8Array[] };
  next?: Plan;
}

/** The nearest fraction with a denominator that keeps nine digits. */
function fraction(v: number, signed: boolean): [number, number] {
  const limit = signed ? 2147483647 : 4294967295;
  let d = 1_000_000;
  while (Math.abs(v) * d > limit && d > 1) d /= 10;
  return [Math.round(v * d), d];
}

/** Numbers of a TIFF type as the bytes of a tag. RATIONAL and SRATIONAL take decimals, to six places. */
export function numbersTag(tag: number, type: number, values: ArrayLike<number>, little: boolean): RawTag {
  const data = new Uint8Array(values.length * TYPE_BYTES[type]!);
  const view = new DataView(data.buffer);
  for (let i = 0, p = 0; i < values.length; i++, p += TYPE_BYTES[type]!) {
    const value = values[i]!;
    switch (type) {
      case 1:
      case 7:
        view.setUint8(p, value);
        break;
      case 3:
        view.setUint16(p, value, little);
        break;
      case 4:
        view.setUint32(p, value, little);
        break;
      case 5: {
        const [a, b] = fraction(value, false);
        view.setUint32(p, a, little);
        view.setUint32(p + 4, b, little);
        break;
      }
      case 6:
        view.setInt8(p, value);
        break;
      case 8:
        view.setInt16(p, value, little);
        break;
      case 9:
        view.setInt32(p, value, little);
        break;
      case 10: {
        const [a, b] = fraction(value, true);
        view.setInt32(p, a, little);
        view.setInt32(p + 4, b, little);
        break;
      }
      case 11:
        view.setFloat32(p, value, little);
        break;
      case 12:
        view.setFloat64(p, value, little);
        break;
      default:
        throw new RangeError(`no numbers of type ${type}`);
    }
  }
  return { tag, type, count: values.length, data };
}

/** ASCII with its closing zero; text beyond ASCII as bytes of UTF-8, which DNG allows in its place. */
export function textTag(tag: number, text: string): RawTag {
  const data = new TextEncoder().encode(text + '\0');
  return { tag, type: data.length === text.length + 1 ? 2 : 1, count: data.length, data };
}
export const bytesTag = (tag: number, data: Uint8Array, type: 1 | 7 = 7): RawTag => ({
  tag,
  type,
  count: data.length,
  data,
});

const even = (n: number): number => n + (n & 1);

export function writeIfds(magic: number, little: boolean, plan: Plan): Uint8Array {
  const chunks: { at: number; data: Uint8Array }[] = [];
  let end = 8;
  const lay = (plan: Plan): number => {
    const holders = [
      ...(plan.under ?? []).map((u) => ({ tag: u.tag, n: u.plans.length })),
      ...(plan.blocks ? [{ tag: plan.blocks.tag, n: plan.blocks.parts.length }] : []),
    ];
    const tags = [
      ...plan.tags.filter((t) => !holders.some((h) => h.tag === t.tag)),
      ...holders.map((h): RawTag => numbersTag(h.tag, 4, new Array<number>(h.n).fill(0), little)),
    ].sort((a, b) => a.tag - b.tag);
    const at = end;
    const head = new Uint8Array(2 + tags.length * 12 + 4);
    const view = new DataView(head.buffer);
    const values = new Map<number, { data: Uint8Array; at: number }>();
    chunks.push({ at, data: head });
    end = at + even(head.length);
    view.setUint16(0, tags.length, little);
    tags.forEach((tag, i) => {
      const entry = 2 + i * 12;
      view.setUint16(entry, tag.tag, little);
      view.setUint16(entry + 2, tag.type, little);
      view.setUint32(entry + 4, tag.count, little);
      if (tag.data.length <= 4) {
        head.set(tag.data, entry + 8);
        values.set(tag.tag, { data: head, at: entry + 8 });
      } else {
        const own = tag.data.slice();
        view.setUint32(entry + 8, end, little);
        chunks.push({ at: end, data: own });
        values.set(tag.tag, { data: own, at: 0 });
        end = even(end + own.length);
      }
    });
    const point = (tag: number, offsets: number[]): void => {
      const held = values.get(tag)!;
      const view = new DataView(held.data.buffer, held.data.byteOffset);
      offsets.forEach((o, i) => view.setUint32(held.at + i * 4, o, little));
    };
    if (plan.blocks)
      point(
        plan.blocks.tag,
        plan.blocks.parts.map((data) => {
          const o = end;
          chunks.push({ at: o, data });
          end = even(end + data.length);
          return o;
        }),
      );
    for (const u of plan.under ?? []) point(u.tag, u.plans.map(lay));
    if (plan.next) view.setUint32(2 + tags.length * 12, lay(plan.next), little);
    return at;
  };
  const first = lay(plan);
  const out = new Uint8Array(end);
  const view = new DataView(out.buffer);
  view.setUint16(0, little ? 0x4949 : 0x4d4d);
  view.setUint16(2, magic, little);
  view.setUint32(4, first, little);
  for (const c of chunks) out.set(c.data, c.at);
  return out;
}
