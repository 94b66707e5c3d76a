/** The profile that an export embeds: fifty of other spaces are refused, fifty of sRGB by other writers are not. */
import { describe, expect, test } from 'vitest';
import sharp from 'sharp';
import { multiply } from '../color/matrix';
import { adapt, D50, spaces, toXyz, type Space } from '../color/spaces';
import { decodeSrgb } from '../color/transfer';
import { Block } from '../icc/write';
import { must } from '../must';
import { Problem } from '../problem';
import { seeded } from '../random';
import { checkColorSpace } from './color-space';

type Curve = { gamma: number } | { points: number; of: (x: number) => number };

/** A curveType (ICC.1:2022, 10.6). */
function curveTag(curve: Curve): Uint8Array {
  const block = new Block().text('curv').u32(0);
  if ('gamma' in curve)
    return block
      .u32(1)
      .u16(Math.round(curve.gamma * 256))
      .u16(0)
      .bytes();
  block.u32(curve.points);
  for (let i = 0; i < curve.points; i++) block.u16(Math.round(65535 * curve.of(i / (curve.points - 1))));
  if (curve.points % 2) block.u16(0);
  return block.bytes();
}

const xyzTag = (values: readonly number[]): Uint8Array =>
  new Block()
    .text('XYZ ')
    .u32(0)
    .s15(...values)
    .bytes();

/** A display profile of three primaries and a curve (ICC.1:2022, 8.4.3); `off` shifts each colorant, as writers round. */
function matrixProfile(space: Space, curve: Curve, off = 0): Uint8Array {
  const matrix = multiply(adapt(space.white, D50), toXyz(space)).map((value) => value + off);
  const column = (at: number) => xyzTag([0, 3, 6].map((row) => must(matrix[row + at])));
  const tone = curveTag(curve);
  const tags: [string, Uint8Array][] = [
    ['wtpt', xyzTag([0.9642, 1, 0.8249])],
    ['rXYZ', column(0)],
    ['gXYZ', column(1)],
    ['bXYZ', column(2)],
    ['rTRC', tone],
    ['gTRC', tone],
    ['bTRC', tone],
  ];
  const start = 128 + 4 + 12 * tags.length;
  const table = new Block().u32(tags.length);
  let at = start;
  for (const [name, bytes] of tags) {
    table.text(name).u32(at, bytes.length);
    at += bytes.length;
  }
  const head = new Block().u32(at).text('none').u32(0x02400000).text('mntrRGB XYZ ').u16(2026, 1, 1, 0, 0, 0);
  head.text('acsp').u32(0, 0, 0, 0, 0, 0, 0).s15(0.9642, 1, 0.8249);
  const before = head.bytes();
  const out = new Uint8Array(at);
  out.set(before);
  out.set(table.bytes(), 128);
  let place = start;
  for (const [, bytes] of tags) {
    out.set(bytes, place);
    place += bytes.length;
  }
  return out;
}

const answer = (icc: Uint8Array): Promise<string> =>
  checkColorSpace(icc).then(
    () => 'the same',
    (error: unknown) => (error instanceof Problem ? error.code : String(error)),
  );

describe('the profile that is embedded', () => {
  const random = seeded(41);
  const shifted = ([x, y]: readonly [number, number], by: number): [number, number] => [
    x + by * (random() - 0.5),
    y + by * (random() - 0.5),
  ];

  test('of another space or curve is refused, in 50 of 50', async () => {
    const others = [spaces.p3, spaces.rec2020, spaces.prophoto];
    for (let i = 0; i < 50; i++) {
      const space = must([...others, spaces.srgb][i % 4]);
      const gamma = space.name === 'srgb' ? must([1, 1.8, 2.6][i % 3]) : 1.8 + 0.6 * random();
      const wide: Space = { ...space, red: shifted(space.red, 0.02), green: shifted(space.green, 0.02) };
      expect(await answer(matrixProfile(wide, { gamma })), `try ${i}, ${space.title}`).toBe('chart-color-space');
    }
  });

  test('of sRGB is taken, however its writer rounds and samples, in 50 of 50', async () => {
    for (let i = 0; i < 50; i++) {
      const points = 256 + Math.floor(3800 * random());
      const curve = { points, of: decodeSrgb };
      expect(await answer(matrixProfile(spaces.srgb, curve, (random() - 0.5) / 1000)), `try ${i}`).toBe('the same');
    }
  });

  test('that a common library writes is known for what it is', async () => {
    const picture = sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } });
    const embedded = async (name: string) => {
      const { icc } = await sharp(await picture.clone().withIccProfile(name).png().toBuffer()).metadata();
      return answer(new Uint8Array(must(icc)));
    };
    expect([await embedded('srgb'), await embedded('p3')]).toEqual(['the same', 'chart-color-space']);
  });
});
