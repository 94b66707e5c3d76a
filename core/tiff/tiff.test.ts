import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { Problem } from '../problem';
import { Ifds } from './ifd';
import { decodeLosslessJpeg } from './lossless-jpeg';
import { readTiffPicture } from './picture';
import { numbersTag, writeIfds } from './write';

const WIDTH = 70;
const HEIGHT = 45;
const samples = (bits: 8 | 16, n = 3) => {
  const first = bits === 8 ? new Uint8Array(WIDTH * HEIGHT * n) : new Uint16Array(WIDTH * HEIGHT * n);
  for (let i = 0; i < first.length; i++) first[i] = (i * 7919 + (i >> 3) * 131) % (bits === 8 ? 256 : 65536);
  return first;
};
const read = (bytes: Uint8Array) => {
  const ifds = new Ifds(bytes);
  return readTiffPicture(ifds, ifds.read(ifds.first));
};

describe('pixels of a TIFF', () => {
  test.each([
    ['none', false, 'none'],
    ['lzw', false, 'none'],
    ['lzw', false, 'horizontal'],
    ['deflate', false, 'horizontal'],
    ['packbits', false, 'none'],
    ['none', true, 'none'],
    ['deflate', true, 'none'],
  ] as const)('written by another program with %s, tiles: %s, predictor %s', async (compression, tile, predictor) => {
    for (const bits of [8, 16] as const) {
      if (bits === 16 && compression === 'packbits') continue;
      const data = samples(bits);
      const made = await sharp(data, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
        .toColourspace(bits === 16 ? 'rgb16' : 'srgb')
        .tiff({ compression, predictor, tile, ...(tile ? { tileWidth: 32, tileHeight: 16 } : {}) })
        .toBuffer();
      const picture = read(new Uint8Array(made));
      expect([picture.width, picture.height, picture.channels, picture.bits]).toEqual([WIDTH, HEIGHT, 3, bits]);
      expect(Buffer.from(picture.data.buffer, 0, picture.data.byteLength).equals(Buffer.from(data.buffer))).toBe(true);
    }
  });
  test('12 bits packed, most significant first', () => {
    const bytes = writeIfds(42, true, {
      tags: [
        numbersTag(256, 4, [3], true),
        numbersTag(257, 4, [2], true),
        numbersTag(258, 3, [12], true),
        numbersTag(277, 3, [1], true),
        numbersTag(279, 4, [10], true),
      ],
      blocks: { tag: 273, parts: [new Uint8Array([0x12, 0x34, 0x56, 0x78, 0x90, 0xab, 0xcd, 0xef, 0x01, 0x20])] },
    });
    expect([...read(bytes).data]).toEqual([0x123, 0x456, 0x789, 0xabc, 0xdef, 0x012]);
  });
  test.each([
    ['a part outside the file', 273, 4, [0x7fffffff]],
    ['no width', 256, 4, [0]],
    ['an absurd size', 256, 4, [900000]],
    ['a compression that is none', 259, 3, [99]],
    ['seven bits', 258, 3, [7]],
  ])('%s is refused', (_n, tag, type, values) => {
    const tags = [
      numbersTag(256, 4, [3], true),
      numbersTag(257, 4, [200000], true),
      numbersTag(258, 3, [8], true),
      numbersTag(259, 3, [1], true),
      numbersTag(273, 4, [8], true),
      numbersTag(279, 4, [20], true),
    ].filter((t) => t.tag !== tag);
    expect(() => read(writeIfds(42, true, { tags: [...tags, numbersTag(tag, type, values, true)] }))).toThrow(Problem);
  });
});

/** A lossless JPEG of one Huffman table in which every size has a code of five bits. */
// eslint-disable-next-line complexity -- each part of the format that a test varies is one branch of the writer
function encode(
  data: Uint16Array,
  width: number,
  height: number,
  n: number,
  predictor: number,
  bits: number,
  restart = 0,
): Uint8Array {
  const out: number[] = [
    0xff,
    0xd8,
    0xff,
    0xc4,
    0,
    36,
    0,
    ...[0, 0, 0, 0, 17],
    ...new Array<number>(11).fill(0),
    ...Array.from({ length: 17 }, (_, i) => i),
  ];
  const words = (v: number) => [v >> 8, v & 255];
  if (restart) out.push(0xff, 0xdd, 0, 4, ...words(restart));
  out.push(0xff, 0xc3, ...words(8 + n * 3), bits, ...words(height), ...words(width), n);
  for (let c = 0; c < n; c++) out.push(c + 1, 0x11, 0);
  out.push(0xff, 0xda, ...words(6 + n * 2), n);
  for (let c = 0; c < n; c++) out.push(c + 1, 0);
  out.push(predictor, 0, 0);
  let acc = '';
  const flush = () => {
    while (acc.length % 8) acc += '1';
    for (let i = 0; i < acc.length; i += 8) {
      const v = parseInt(acc.slice(i, i + 8), 2);
      out.push(v);
      if (v === 255) out.push(0);
    }
    acc = '';
  };
  let left = restart;
  let fresh = true;
  let marks = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (restart && left === 0) {
        flush();
        out.push(0xff, 0xd0 + (marks++ & 7));
        left = restart;
        fresh = true;
      }
      left--;
      for (let c = 0; c < n; c++) {
        const at = (yy: number, xx: number) => data[(yy * width + xx) * n + c]!;
        const a = x ? at(y, x - 1) : 0;
        const b = y ? at(y - 1, x) : 0;
        const d = x && y ? at(y - 1, x - 1) : 0;
        let guess = [0, a, b, d, a + b - d, a + ((b - d) >> 1), b + ((a - d) >> 1), (a + b) >> 1][predictor]!;
        if (x === 0) guess = b;
        if (y === 0) guess = a;
        if (fresh) guess = 1 << (bits - 1);
        let diff = (at(y, x) - guess) & 65535;
        if (diff > 32768) diff -= 65536;
        const size = diff === 32768 ? 16 : 32 - Math.clz32(Math.abs(diff));
        acc += size.toString(2).padStart(5, '0');
        if (size && size < 16) acc += (diff > 0 ? diff : diff + (1 << size) - 1).toString(2).padStart(size, '0');
      }
      fresh = false;
    }
  flush();
  return Uint8Array.from([...out, 0xff, 0xd9]);
}

describe('lossless JPEG', () => {
  test('what is encoded comes back to the bit, for every predictor, one to three components, with and without restarts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom(12, 14, 16),
        fc.integer({ min: 2, max: 9 }),
        fc.integer({ min: 1, max: 7 }),
        fc.infiniteStream(fc.integer({ min: 0, max: 65535 })),
        fc.constantFrom(0, 1),
        (predictor, n, bits, w, h, stream, again) => {
          const data = Uint16Array.from({ length: w * h * n }, () => stream.next().value! & ((1 << bits) - 1));
          const decoded = decodeLosslessJpeg(encode(data, w, h, n, predictor, bits, again ? w : 0), 1e6);
          expect([decoded.width, decoded.height, decoded.components, decoded.bits]).toEqual([w, h, n, bits]);
          expect([...decoded.data]).toEqual([...data]);
        },
      ),
      { numRuns: 120 },
    );
  });
  test('cut off, or claiming more than its place, it is refused', () => {
    const bytes = encode(
      Uint16Array.from({ length: 400 }, (_, i) => i * 37),
      20,
      20,
      1,
      1,
      16,
    );
    expect(() => decodeLosslessJpeg(bytes.slice(0, 200), 1e6)).toThrow(Problem);
    expect(() => decodeLosslessJpeg(bytes, 100)).toThrow(Problem);
    expect(() => decodeLosslessJpeg(bytes.slice(0, 30), 1e6)).toThrow(Problem);
  });
});

describe('samples of 16 bits', () => {
  /** A picture of one strip that begins at an odd byte, in either order of bytes. */
  const plain = (little: boolean, values: number[], width: number, channels: number): Uint8Array => {
    const at = 8 + 2 + 9 * 12 + 4 + 1;
    const bytes = new Uint8Array(at + values.length * 2);
    const view = new DataView(bytes.buffer);
    const height = values.length / channels / width;
    bytes.set(little ? [0x49, 0x49] : [0x4d, 0x4d]);
    view.setUint16(2, 42, little);
    view.setUint32(4, 8, little);
    view.setUint16(8, 9, little);
    [
      [256, width],
      [257, height],
      [258, 16],
      [259, 1],
      [262, channels === 3 ? 2 : 1],
      [273, at],
      [277, channels],
      [278, height],
      [279, values.length * 2],
    ].forEach(([tag, value], i) => {
      const e = 10 + i * 12;
      view.setUint16(e, tag!, little);
      view.setUint16(e + 2, 4, little);
      view.setUint32(e + 4, 1, little);
      view.setUint32(e + 8, value!, little);
    });
    values.forEach((x, i) => view.setUint16(at + i * 2, x, little));
    return bytes;
  };
  test.each([
    [4, 1],
    [2, 3],
  ])('are the same in both orders of bytes, %d wide with %d channels', (width, channels) =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 65535 }), {
          minLength: width * channels * 3,
          maxLength: width * channels * 3,
        }),
        (values) => {
          for (const little of [true, false]) {
            const ifds = new Ifds(plain(little, values, width, channels));
            const picture = readTiffPicture(ifds, ifds.chain()[0]!);
            expect([...picture.data]).toEqual(values);
            expect([picture.width, picture.height, picture.channels]).toEqual([width, 3, channels]);
          }
        },
      ),
    ),
  );
});
