/** A picture as baseline TIFF 6.0: RGB or RGBA, 8 or 16 bits, uncompressed, one strip, with profile, orientation and title where there are any. */
import { bytesTag, numbersTag, writeIfds } from './write';

export interface PictureToWrite {
  width: number;
  height: number;
  channels: number;
  data: Uint8Array | Uint16Array;
  icc?: Uint8Array | null;
  orientation?: number;
  /** ASCII; what is beyond becomes "?" */ title?: string;
}

export function writeTiffPicture(p: PictureToWrite): Uint8Array {
  const short = (t: number, ...v: number[]) => numbersTag(t, 3, v, true);
  const long = (t: number, v: number) => numbersTag(t, 4, [v], true);
  const bits = p.data instanceof Uint16Array ? 16 : 8;
  return writeIfds(42, true, {
    tags: [
      long(256, p.width),
      long(257, p.height),
      short(258, ...new Array<number>(p.channels).fill(bits)),
      short(259, 1),
      short(262, 2),
      short(274, p.orientation ?? 1),
      short(277, p.channels),
      long(278, p.height),
      long(279, p.data.byteLength),
      short(284, 1),
      ...(p.channels === 4 ? [short(338, 2)] : []),
      ...(p.title
        ? [{ ...bytesTag(270, new TextEncoder().encode(p.title.replace(/[^\x20-\x7e]/g, '?') + '\0')), type: 2 }]
        : []),
      ...(p.icc ? [bytesTag(34675, p.icc)] : []),
    ],
    blocks: { tag: 273, parts: [new Uint8Array(p.data.buffer, p.data.byteOffset, p.data.byteLength)] },
  });
}
