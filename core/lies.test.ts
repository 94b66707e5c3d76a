/** Files that lie about themselves, or end too soon: refused within 2 seconds and 200 MB, with the place and what to do. */
import { made } from './camera/testing';
import { zlibSync } from 'fflate';
import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { profileOf, readDcp, writeDcp } from './camera/dcp';
import { readDng } from './frame/dng';
import { iccHeader } from './icc/header';
import { readAnyLook } from './icc/look';
import { toDeviceLink } from './icc/convert';
import { identity } from './look';
import { writeHaldTiff } from './look/hald-file';
import { Problem } from './problem';
import { icc } from './testing';
import { bytesTag, numbersTag, writeIfds, type RawTag } from './tiff/write';

const memory = (what: 'VmRSS' | 'VmHWM'): number =>
  Number(new RegExp(`${what}:\\s+(\\d+)`).exec(readFileSync('/proc/self/status', 'utf8'))![1]) / 1024;
/** Refused as said; its memory is the highest mark of this process above where it stood. */
async function refused(bytes: Uint8Array, read: (b: Uint8Array) => unknown): Promise<void> {
  writeFileSync('/proc/self/clear_refs', '5'); // the mark begins anew
  const stood = memory('VmRSS');
  const began = performance.now();
  let said: unknown;
  try {
    await read(bytes);
  } catch (error) {
    said = error;
  }
  expect(performance.now() - began).toBeLessThan(2000);
  expect(memory('VmHWM') - stood).toBeLessThan(200);
  expect(said).toBeInstanceOf(Problem);
  expect((said as Problem).where).toBeTruthy();
  expect((said as Problem).remedy).toBeTruthy();
}
const shorts = (t: number, ...v: number[]) => numbersTag(t, 3, v, true);
const longs = (t: number, ...v: number[]) => numbersTag(t, 4, v, true);
/** A linear DNG of one part, whatever its tags claim of it. */
const claimed = (
  width: number,
  height: number,
  part: Uint8Array,
  more: RawTag[] = [],
  tiles?: [number, number, number],
) => {
  const own = new Set(more.map((t) => t.tag));
  return writeIfds(42, true, {
    tags: [
      ...[
        longs(254, 0),
        longs(256, width),
        longs(257, height),
        shorts(258, 16, 16, 16),
        shorts(259, 1),
        shorts(262, 34892),
        shorts(277, 3),
        bytesTag(50706, Uint8Array.of(1, 4, 0, 0), 1),
      ].filter((t) => !own.has(t.tag)),
      ...more,
      ...(tiles
        ? [longs(322, tiles[0]), longs(323, tiles[1]), longs(325, ...new Array<number>(tiles[2]).fill(part.length))]
        : [longs(278, height), longs(279, part.length)]),
    ],
    blocks: { tag: tiles ? 324 : 273, parts: tiles ? new Array<Uint8Array>(tiles[2]).fill(part) : [part] },
  });
};
const few = Uint8Array.from({ length: 400 }, (_, i) => (i * 37) & 255);
const zeros = zlibSync(new Uint8Array(30e6), { level: 9 });

describe('a camera file or TIFF that lies', () => {
  test.each<[string, Uint8Array]>([
    ['120 megapixels in 400 bytes', claimed(12000, 10000, few)],
    ['120 megapixels in 400 bytes of LZW', claimed(12000, 10000, few, [shorts(259, 5)])],
    [
      '120 megapixels in LZW that ends at once',
      claimed(12000, 10000, Uint8Array.of(0x80, 0x40, 0x40), [shorts(259, 5)]),
    ],
    ['120 megapixels in 400 bytes of PackBits', claimed(12000, 10000, few, [shorts(259, 32773)])],
    ['120 megapixels in a deflated part of 30 MB', claimed(12000, 10000, zeros, [shorts(259, 8)])],
    ['120 megapixels in a lossless JPEG of nothing', claimed(12000, 10000, few, [shorts(259, 7)])],
    ['pixels without end', claimed(4e9, 4e9, few)],
    ['parts far larger than the picture, and many', claimed(1, 200_000, zeros, [shorts(259, 8)], [20_000, 1000, 200])],
    ['parts fewer than it takes', claimed(4000, 4000, few, [], [16, 16, 3])],
    ['bits that are none', claimed(10, 10, few, [shorts(258, 64, 64, 64)])],
  ])('%s', async (_name, bytes) => {
    await refused(bytes, (b) => readDng(b));
  });
  test('a Hald TIFF cut anywhere', async () => {
    const whole = writeHaldTiff(identity(16));
    for (const part of [0.02, 0.3, 0.9])
      await refused(whole.slice(0, Math.floor(whole.length * part)), (b) => readAnyLook(b));
  });
  test('a directory that is its own sub-directory comes to an end', async () => {
    const bytes = claimed(10, 10, few, [longs(330, 8), shorts(262, 2)]);
    await refused(bytes, (x) => readDng(x));
  });
});

describe('a profile that lies', () => {
  const dcp = writeDcp(made());
  test('a DCP whose table claims more than it holds, or cut anywhere', async () => {
    const view = new DataView(dcp.buffer, dcp.byteOffset);
    const at = view.getUint32(4, true);
    for (let i = 0; i < view.getUint16(at, true); i++) {
      const p = at + 2 + i * 12;
      const tag = view.getUint16(p, true);
      const harm = (by: number, value: number) => {
        const out = dcp.slice();
        new DataView(out.buffer).setUint32(p + by, value, true);
        return out;
      };
      if (tag === 50938) {
        await refused(harm(4, 0x7fffffff), readDcp);
        await refused(harm(8, 0xfffffff0), readDcp);
      }
      if (tag === 50937) {
        const dims = view.getUint32(p + 8, true);
        const out = dcp.slice();
        new DataView(out.buffer).setUint32(dims, 0x40000000, true);
        await refused(out, (b) => profileOf(readDcp(b)));
      }
    }
    for (const part of [0.001, 0.2, 0.7, 0.99]) await refused(dcp.slice(0, Math.floor(dcp.length * part)), readDcp);
  });
  test('an ICC profile of a false size, tags beyond it, or cut anywhere', async () => {
    const { bytes } = await toDeviceLink(
      (r, g, b, out, i) => {
        out[i] = r;
        out[i + 1] = g;
        out[i + 2] = b;
      },
      { title: 'T', created: new Date(0), grid: 9 },
    );
    for (const [at, value] of [
      [0, 0x7fffffff],
      [128, 0x10000000],
      [136, 0xfffffff0],
      [140, 0x7fffffff],
    ] as const) {
      const out = bytes.slice();
      new DataView(out.buffer).setUint32(at, value);
      await refused(out, iccHeader);
      await refused(out, (b) => readAnyLook(b));
    }
    for (const part of [0.01, 0.4, 0.95])
      await refused(bytes.slice(0, Math.floor(bytes.length * part)), (b) => readAnyLook(b));
    await refused(icc('what'), iccHeader);
  });
});
