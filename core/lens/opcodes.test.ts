import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { refusalOf } from '../testing-refusal';
import { backThroughWarps, gainOf, readOpcodes, throughWarps } from './opcodes';

type Part = readonly ['u32' | 'f64', number];
const u32 = (value: number): Part => ['u32', value];
const f64 = (value: number): Part => ['f64', value];

function bytesOf(parts: readonly Part[]): Uint8Array {
  const out = new DataView(new ArrayBuffer(parts.reduce((sum, [kind]) => sum + (kind === 'u32' ? 4 : 8), 0)));
  let at = 0;
  for (const [kind, value] of parts) {
    if (kind === 'u32') out.setUint32(at, value);
    else out.setFloat64(at, value);
    at += kind === 'u32' ? 4 : 8;
  }
  return new Uint8Array(out.buffer);
}
const opcode = (id: number, parameters: readonly Part[]): Part[] => [
  u32(id),
  u32(0x01030000),
  u32(1),
  u32(bytesOf(parameters).length),
  ...parameters,
];
const list = (...opcodes: Part[][]): Uint8Array => bytesOf([u32(opcodes.length), ...opcodes.flat()]);
const warp = (planes: number[][], center = [0.5, 0.5]): Part[] =>
  opcode(1, [u32(planes.length), ...planes.flat().map(f64), ...center.map(f64)]);
const vignette = (k: number[], center = [0.5, 0.5]): Part[] => opcode(3, [...k, ...center].map(f64));

// 300 × 400 pixels from one center to the other: the corner is 250 from the middle
const size = { width: 301, height: 401 };
const barrel = [1, -0.1, 0.02, -0.003, 0, 0];

describe('the opcodes of a frame', () => {
  test('are read in their order, others beside them by their numbers', () => {
    const read = readOpcodes(list(opcode(9, [u32(7)]), warp([barrel]), vignette([1, 2, 3, 4, 5], [0.25, 0.75])));
    expect(read).toEqual({
      others: [9],
      warps: [{ planes: [{ radial: [1, -0.1, 0.02, -0.003], tangential: [0, 0] }], center: [0.5, 0.5] }],
      vignettes: [{ k: [1, 2, 3, 4, 5], center: [0.25, 0.75] }],
    });
  });
  test.each([
    ['nothing', new Uint8Array(2), 'too short'],
    ['a count without opcodes', list().map((_, n) => (n === 3 ? 2 : 0)), '2 opcodes are announced, and 0 are there'],
    ['the end cut off', list(warp([barrel])).subarray(0, 60), 'ends within an opcode'],
    ['too few parameters', list(opcode(3, [f64(1)])), 'ends before its parameters'],
    ['a figure that is no number', list(vignette([NaN, 0, 0, 0, 0])), 'no number'],
    ['no plane', list(warp([])), '0 planes'],
    ['a center outside', list(warp([barrel], [1.5, 0.5])), 'outside the picture'],
    ['a text', new TextEncoder().encode('<lens-database/>'), 'opcodes is none'],
  ])('%s is refused', (_, bytes, words) => {
    const refusal = refusalOf(() => readOpcodes(bytes));
    expect([refusal.code, refusal.message]).toEqual(['opcodes-broken', expect.stringContaining(words)]);
  });
});

describe('a warp', () => {
  const through = (planes: number[][], point: [number, number], plane = 0, center = [0.5, 0.5]) =>
    throughWarps(readOpcodes(list(warp(planes, center))).warps, size, plane, point);
  test('leads where the specification says, worked out by hand', () => {
    // the corner: r = 1, 1 − 0.1 + 0.02 − 0.003 = 0.917 of 150 and 200 pixels
    expect(through([barrel], [300, 400])).toEqual([expect.closeTo(150 + 137.55, 9), expect.closeTo(200 + 183.4, 9)]);
    expect(through([barrel], [150, 200])).toEqual([150, 200]);
    // r = 0.6 to the right, kt0 = 0.01, kt1 = 0.02: 3 r² kt1 across, r² kt0 down
    const [x, y] = through([[1, 0, 0, 0, 0.01, 0.02]], [300, 200]);
    expect([x, y]).toEqual([
      expect.closeTo(300 + 250 * 3 * 0.36 * 0.02, 9),
      expect.closeTo(200 + 250 * 0.36 * 0.01, 9),
    ]);
  });
  test('is measured from its own center to the farthest corner', () => {
    const [x, y] = through([[1, 0.1, 0, 0, 0, 0]], [0, 0], 0, [1, 1]);
    expect([x, y]).toEqual([expect.closeTo(300 - 300 * 1.1, 9), expect.closeTo(400 - 400 * 1.1, 9)]);
  });
  test('has one plane for all, or one for each; another is refused', () => {
    const red = [1, 0.05, 0, 0, 0, 0];
    expect(through([barrel], [300, 400], 2)).toEqual(through([barrel], [300, 400], 0));
    expect(through([red, barrel, barrel], [300, 400], 0)).not.toEqual(through([red, barrel, barrel], [300, 400], 1));
    expect(refusalOf(() => through([red, barrel], [300, 400], 2)).code).toBe('opcodes-plane');
  });
  test('behind another is done after it', () => {
    const twice = readOpcodes(list(warp([barrel]), warp([[1, 0, 0, 0, 0.01, 0.02]])));
    const [first, second] = [twice.warps[0]!, twice.warps[1]!];
    const point = [280, 30] as const;
    expect(throughWarps(twice.warps, size, 0, point)).toEqual(
      throughWarps([first], size, 0, throughWarps([second], size, 0, point)),
    );
  });
  test('is led back', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 400, noNaN: true }),
        fc.double({ min: -0.15, max: 0.2, noNaN: true }),
        (x, y, k1) => {
          const { warps } = readOpcodes(list(warp([[1.02, k1, 0.01, 0, 0.004, -0.003]], [0.48, 0.53])));
          const back = backThroughWarps(warps, size, 0, throughWarps(warps, size, 0, [x, y]));
          expect(back).toEqual([expect.closeTo(x, 6), expect.closeTo(y, 6)]);
        },
      ),
    ));
  test('that shows a place nowhere says so', () => {
    const { warps } = readOpcodes(list(warp([[1, -0.6, 0, 0, 0, 0]])));
    expect(backThroughWarps(warps, size, 0, [600, 700])).toBeNull();
  });
});

test('the gain of light is what the specification says, worked out by hand; several are multiplied', () => {
  const { vignettes } = readOpcodes(list(vignette([0.5, 0.25, 0.125, 0.1, 0.05]), vignette([1, 0, 0, 0, 0])));
  expect(gainOf(vignettes, size, [150, 200])).toBe(1);
  expect(gainOf(vignettes, size, [300, 400])).toBeCloseTo(2.025 * 2, 12);
  // r² = 0.36
  const one = 1 + 0.5 * 0.36 + 0.25 * 0.36 ** 2 + 0.125 * 0.36 ** 3 + 0.1 * 0.36 ** 4 + 0.05 * 0.36 ** 5;
  expect(gainOf(vignettes, size, [300, 200])).toBeCloseTo(one * 1.36, 12);
});
