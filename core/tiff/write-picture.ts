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

export function writeTiffPicture(pictureToWrite: PictureToWrite): Uint8Array {
  const short = (t: number, ...v: number[]) => numbersTag(t, 3, v, true);
  const long = (t: number, v: number) => numbersTag(t, 4, [v], true);
  const bits = pictureToWrite.data instanceof Uint16Array ? 16 : 8;
  return writeIfds(42, true, {
    tags: [
      long(256, pictureToWrite.width),
      long(257, pictureToWrite.height),
      short(258, ...new Array<number>(pictureToWrite.channels).fill(bits)),
      short(259, 1),
      short(262, 2),
      short(274, pictureToWrite.orientation ?? 1),
      short(277, pictureToWrite.channels),
      long(278, pictureToWrite.height),
      long(279, pictureToWrite.data.byteLength),
      short(284, 1),
      ...(pictureToWrite.channels === 4 ? [short(338, 2)] : []),
      ...(pictureToWrite.title
        ? [
            {
              ...bytesTag(270, new TextEncoder().encode(pictureToWrite.title.replace(/[^\x20-\x7e]/g, '?') + '\0')),
              type: 2,
            },
          ]
        : []),
      ...(pictureToWrite.icc ? [bytesTag(34675, pictureToWrite.icc)] : []),
    ],
    blocks: {
      tag: 273,
      parts: [
        new Uint8Array(pictureToWrite.data.buffer, pictureToWrite.data.byteOffset, pictureToWrite.data.byteLength),
      ],
    },
  });
}
