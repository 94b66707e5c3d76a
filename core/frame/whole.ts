/** Whether a picture's file is whole, without decoding it: PNG by its chunks and their checksums, JPEG by its end, TIFF and DNG by their parts. */
import { crc32 } from '../crc32';
import { Problem } from '../problem';
import { Ifds } from '../tiff/ifd';

const cut = (where: string): Problem =>
  new Problem(
    'picture-truncated',
    'The picture is cut off or damaged: it cannot be read to its end.',
    where,
    'Copy it again, or save it anew from the program that made it.',
  );

const isTiff = ([a, b, c, d]: Uint8Array): boolean =>
  (a === 0x49 && b === 0x49 && c === 42 && d === 0) || (a === 0x4d && b === 0x4d && c === 0 && d === 42);
const PNG = [0x89, 0x50, 0x4e, 0x47];

/** Chunks of ISO/IEC 15948, 5.3: length, type, data and a checksum of both; the last is IEND. */
function checkPng(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 8; ;) {
    if (at + 12 > bytes.length) throw cut(`byte ${at}`);
    const length = view.getUint32(at);
    if (at + 12 + length > bytes.length) throw cut(`byte ${at}`);
    const body = bytes.subarray(at + 4, at + 8 + length);
    if (crc32(body) !== view.getUint32(at + 8 + length)) throw cut(`byte ${at}`);
    if (String.fromCharCode(...body.subarray(0, 4)) === 'IEND') return;
    at += 12 + length;
  }
}

/** Where the first scan begins (ITU-T T.81, B.2.3): what comes before, thumbnails too, says nothing of the picture's end. */
function scanOf(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xff) break;
    if (bytes[at + 1] === 0xda) return at;
    at += bytes[at + 1] === 0xff ? 1 : 2 + view.getUint16(at + 2);
  }
  throw cut(`byte ${bytes.length}`);
}

/** An end-of-image marker (B.1.1.3) behind the scan; programs append things of theirs to it. */
function checkJpeg(bytes: Uint8Array): void {
  const scan = scanOf(bytes);
  for (let at = bytes.length - 2; at > scan; at--) if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return;
  throw cut(`byte ${bytes.length}`);
}

const STRIPS = [273, 279] as const;
const TILES = [324, 325] as const;
const SUB_DIRECTORIES = 330;
const MOST_PARTS = 1 << 20;

/** Strips and tiles (TIFF 6.0) of every directory lie within the file. */
function checkTiff(bytes: Uint8Array): void {
  const ifds = new Ifds(bytes);
  const chain = ifds.chain();
  const below = chain.flatMap((directory) => ifds.numbers(directory, SUB_DIRECTORIES, 16).map((at) => ifds.read(at)));
  for (const directory of [...chain, ...below])
    for (const [offsets, counts] of [STRIPS, TILES]) {
      const sizes = ifds.numbers(directory, counts, MOST_PARTS);
      ifds.numbers(directory, offsets, MOST_PARTS).forEach((at, n) => {
        if (at + (sizes[n] ?? 0) > bytes.length) throw cut(`byte ${at}`);
      });
    }
}

/** Throws a Problem for a picture that ends early. A camera's own kinds of file are left to the decoder. */
export function checkWhole(bytes: Uint8Array): void {
  if (PNG.every((byte, i) => bytes[i] === byte)) checkPng(bytes);
  else if (bytes[0] === 0xff && bytes[1] === 0xd8) checkJpeg(bytes);
  else if (isTiff(bytes)) checkTiff(bytes);
}
