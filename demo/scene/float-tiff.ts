/** A picture of linear light as TIFF 6.0 with samples of 32-bit floating point, in which nothing is cut off at white. */
import { numbersTag, writeIfds } from '@/core/tiff/write';

const SHORT = 3;
const LONG = 4;

/** @param data interleaved RGB, linear sRGB, unclamped */
export function floatTiff(width: number, height: number, data: Float32Array): Uint8Array {
  const little = true;
  const tag = (number: number, type: number, ...values: number[]) => numbersTag(number, type, values, little);
  const samples = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return writeIfds(42, little, {
    tags: [
      tag(256, LONG, width),
      tag(257, LONG, height),
      tag(258, SHORT, 32, 32, 32),
      tag(259, SHORT, 1),
      tag(262, SHORT, 2),
      tag(277, SHORT, 3),
      tag(278, LONG, height),
      tag(279, LONG, samples.length),
      tag(284, SHORT, 1),
      tag(339, SHORT, 3, 3, 3),
    ],
    blocks: { tag: 273, parts: [samples] },
  });
}
