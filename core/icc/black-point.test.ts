/** Black point compensation is on or off as asked, whatever the version of a profile. */
import { describe, expect, test } from 'vitest';
import { deltaE2000 } from '../color/difference';
import { haltonPoints } from '../look/residual';
import { once, type Intent, type Side } from './transform';
import { decodeLab16, encodeLab16, writeTableProfile } from './write';

const points = haltonPoints(200);

/** A paper on which black is as light as L* 24: what is compensated for, if it is. */
function labOf(r: number, g: number, b: number): [number, number, number] {
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [24 + 70 * luma, 40 * (r - g) * luma, 40 * (g - b) * luma];
}
const paper = writeTableProfile({
  class: 'scnr',
  space: 'RGB ',
  pcs: 'Lab ',
  description: 'Paper',
  copyright: '',
  created: new Date('2026-01-01T00:00:00Z'),
  grid: 33,
  f: (row) => {
    for (let i = 0; i < row.length; i += 3)
      row.set(encodeLab16(...labOf(row[i] ?? 0, row[i + 1] ?? 0, row[i + 2] ?? 0)), i);
  },
});
/** In version 4 perceptual black is what the standard says, in version 2 it is looked for in the table. */
const older = paper.slice();
older.set([2, 0x40], 8);

/** The table itself, between its points as it is meant to run. */
const table = Float64Array.from({ length: points.length }, (_, i) => {
  const at = i - (i % 3);
  return labOf(points[at] ?? 0, points[at + 1] ?? 0, points[at + 2] ?? 0)[i % 3] ?? 0;
});
const worst = (one: ArrayLike<number>, other: ArrayLike<number>): number => {
  let most = 0;
  for (let i = 0; i < one.length; i += 3)
    most = Math.max(most, deltaE2000(one[i]!, one[i + 1]!, one[i + 2]!, other[i]!, other[i + 1]!, other[i + 2]!));
  return most;
};
const toLab = (profile: Uint8Array, intent: Intent, on: boolean) => once(profile, 'lab', points, intent, on);

describe('towards Lab', () => {
  test.each<Intent>(['perceptual', 'relative', 'saturation'])('off leaves the table as it is: %s', async (intent) => {
    expect(worst(await toLab(paper, intent, false), table)).toBeLessThan(0.15);
    expect(worst(await toLab(older, intent, false), table)).toBeLessThan(0.15);
  });

  test('on brings black down, most where the profile says where its black is', async () => {
    expect(worst(await toLab(paper, 'perceptual', true), table)).toBeGreaterThan(0.5);
    expect(worst(await toLab(older, 'perceptual', true), table)).toBeGreaterThan(5);
  });
});

test('a neutral of the table is where it should be', () => {
  const [l] = decodeLab16(...encodeLab16(24, 0, 0));
  expect(l).toBeCloseTo(24, 6);
});

describe('towards other spaces', () => {
  test.each<[string, Side]>([
    ['sRGB', 'srgb'],
    ['XYZ', 'xyz'],
  ])('off is what the table’s own colors are there: %s', async (_, to) => {
    const through = await once(older, to, points, 'perceptual', false);
    const own = await once('lab', to, table, 'relative');
    expect(Math.max(...through.map((v, i) => Math.abs(v - own[i]!)))).toBeLessThan(0.004);
    const compensated = await once(older, to, points, 'perceptual', true);
    expect(Math.max(...through.map((v, i) => Math.abs(v - compensated[i]!)))).toBeGreaterThan(0.02);
  });

  test('Lab of version 2 loses nothing of what lies within it', async () => {
    expect(worst(await once('lab', 'lab', table, 'perceptual', false), table)).toBeLessThan(0.01);
  });
});
