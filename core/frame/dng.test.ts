import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { made } from '../camera/testing';
import { bytesTag, numbersTag, textTag, writeIfds, type RawTag } from '../tiff/write';
import { fullSamples, linearPreview, readDng } from './dng';

const WIDTH = 12;
const HEIGHT = 8;
const shorts = (t: number, ...v: number[]) => numbersTag(t, 3, v, true);
const longs = (t: number, ...v: number[]) => numbersTag(t, 4, v, true);
const rationals = (t: number, ...v: number[]) => numbersTag(t, 5, v, true);
/** A linear DNG (PhotometricInterpretation 34892) of camera values 0…1, stored with these levels. */
function linear(
  value: (i: number) => number,
  plan: { depth: 16 | 32; black: number[]; white: number[]; more?: RawTag[] },
): Uint8Array {
  const stored = Float64Array.from(
    { length: WIDTH * HEIGHT * 3 },
    (_, i) => plan.black[i % 3]! + value(i) * (plan.white[i % 3]! - plan.black[i % 3]!),
  );
  const data = plan.depth === 16 ? Uint16Array.from(stored, Math.round) : Float32Array.from(stored);
  const own = [...made().tags.values()];
  return writeIfds(42, true, {
    tags: [
      longs(254, 0),
      longs(256, WIDTH),
      longs(257, HEIGHT),
      shorts(258, plan.depth, plan.depth, plan.depth),
      shorts(259, 1),
      shorts(262, 34892),
      shorts(277, 3),
      longs(278, HEIGHT),
      longs(279, data.byteLength),
      shorts(339, ...new Array<number>(3).fill(plan.depth === 32 ? 3 : 1)),
      bytesTag(50706, Uint8Array.of(1, 4, 0, 0), 1),
      textTag(50735, 'L-1'),
      rationals(50714, ...plan.black),
      rationals(50717, ...plan.white),
      rationals(50728, 0.4, 0.8, 0.6),
      ...own,
      ...(plan.more ?? []),
    ],
    blocks: { tag: 273, parts: [new Uint8Array(data.buffer)] },
  });
}
const value = (i: number): number => ((i * 7919) % 1000) / 1000;

describe('a linear DNG', () => {
  test.each([
    [16, [100, 200, 300], [4000, 5000, 6000]],
    [32, [0, 0, 0], [1, 1, 1]],
    [32, [0.1, 0, 0.05], [2, 1, 4]],
  ] as [16 | 32, number[], number[]][])(
    'of %d bits is read between its own levels, black %j, white %j',
    (depth, black, white) => {
      const dng = readDng(linear(value, { depth, black, white }));
      expect(dng).toMatchObject({
        width: WIDTH,
        height: HEIGHT,
        cfa: null,
        channels: 3,
        black: black.map((v) => expect.closeTo(v, 4) as number),
        white,
        serial: 'L-1',
        camera: 'Perrin Alder',
        neutral: [0.5, 1, 0.75].map((v) => expect.closeTo(v, 6) as number),
      });
      const full = fullSamples(dng);
      expect(full.samples).toHaveLength(WIDTH * HEIGHT * 3);
      expect([...full.black, ...full.white]).toEqual([0, 0, 0, 65535, 65535, 65535]);
      full.samples.forEach((v, i) => expect(Math.abs(v / 65535 - value(i))).toBeLessThan(depth === 16 ? 1.5e-4 : 1e-5));
    },
  );
  test('made smaller it is the mean of its blocks; at its own width itself', () => {
    const dng = readDng(linear(value, { depth: 32, black: [0, 0, 0], white: [1, 1, 1] }));
    const half = linearPreview(dng, WIDTH / 2);
    const same = linearPreview(dng, 900);
    expect([half.width, half.height, same.width, same.height]).toEqual([6, 4, WIDTH, HEIGHT]);
    for (let y = 0; y < 4; y++)
      for (let x = 0; x < 6; x++)
        for (let c = 0; c < 3; c++)
          expect(half.data[(y * 6 + x) * 3 + c]! / 65535).toBeCloseTo(
            [0, 1]
              .flatMap((b) => [0, 1].map((a) => value(((y * 2 + b) * WIDTH + x * 2 + a) * 3 + c)))
              .reduce((a, b) => a + b) / 4,
            4,
          );
    same.data.forEach((v, i) => expect(Math.abs(v - value(i) * 65535)).toBeLessThanOrEqual(0.51));
  });
  test('beyond its levels it is cut off, and is never below nothing', () =>
    fc.assert(
      fc.property(fc.double({ min: -3, max: 4, noNaN: true }), (v) => {
        const dng = readDng(linear(() => v, { depth: 32, black: [0, 0, 0], white: [1, 1, 1] }));
        const want = Math.round(Math.min(1, Math.max(0, Math.fround(v))) * 65535);
        expect(
          [linearPreview(dng, 4).data[0], fullSamples(dng).samples[0]].map((x) => Math.abs(x! - want) <= 1),
        ).toEqual([true, true]);
      }),
      { numRuns: 60 },
    ));
  test.each<[string, RawTag[], string]>([
    ['one channel', [shorts(277, 1)], 'dng-picture'],
    ['a mosaic without pattern', [shorts(262, 32803), shorts(277, 1)], 'dng-pattern'],
    ['black above white', [rationals(50714, 9, 9, 9)], 'dng-levels'],
  ])('of %s is refused', (_name, other, code) => {
    const bytes = linear(value, { depth: 32, black: [0, 0, 0], white: [1, 1, 1] });
    const view = new DataView(bytes.buffer);
    const at = view.getUint32(4, true);
    for (let i = 0; i < view.getUint16(at, true); i++) {
      const p = at + 2 + i * 12;
      const tag = other.find((o) => o.tag === view.getUint16(p, true));
      if (tag) {
        if (tag.data.length <= 4) bytes.set(tag.data, p + 8);
        else bytes.set(tag.data, view.getUint32(p + 8, true));
      }
    }
    expect(() => readDng(bytes)).toThrow(expect.objectContaining({ code }) as Error);
  });
});
