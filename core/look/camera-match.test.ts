import { describe, expect, test } from 'vitest';
import { encodeSrgb } from '../color/transfer';
import { refusalOf as problem } from '../testing-refusal';
import { seeded } from '../random';
import { matchCameras, sharedPatches, type MatchPatch, type MatchPicture } from './camera-match';

const random = seeded(8);
const color = (): [number, number, number] => [0, 1, 2].map(() => 0.1 + 0.7 * random()) as [number, number, number];

/** What another camera makes of a color: a matrix, and a little that no matrix does. */
function seenBy([r, g, b]: readonly [number, number, number], bend = 0): [number, number, number] {
  const linear = [r, g, b].map((value) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4));
  const [x, y, z] = linear as [number, number, number];
  return [
    encodeSrgb(0.86 * x + 0.1 * y + 0.04 * z + bend * Math.sqrt(x * y)),
    encodeSrgb(0.05 * x + 0.9 * y - 0.02 * z),
    encodeSrgb(0.02 * x + 0.12 * y + 0.8 * z - bend * Math.sqrt(y * z)),
  ];
}
const patches = (count: number, bend = 0): MatchPatch[] =>
  Array.from({ length: count }, (_, index) => {
    const from = color();
    return { name: `${index}`, from, to: seenBy(from, bend) };
  });

describe('a match of two cameras', () => {
  test('undoes a matrix nearly, and a bend with roots; colors between the patches too', () => {
    for (const bend of [0, 0.06]) {
      const made = matchCameras(patches(60, bend));
      expect(made.before.mean).toBeGreaterThan(3);
      expect(made.after.mean).toBeLessThan(0.6);
      const out = new Float64Array(3);
      for (let i = 0; i < 50; i++) {
        const from = color();
        made.evaluate(from[0], from[1], from[2], out, 0);
        seenBy(from, bend).forEach((value, c) => expect(Math.abs(out[c]! - value)).toBeLessThan(0.02));
      }
    }
  });
  test('is a matrix alone where there are few patches', () => {
    const made = matchCameras(patches(14));
    expect(made.after.mean).toBeLessThan(made.before.mean / 4);
  });
  test('stays right when the exposure changes: what is twice as bright becomes twice as bright', () => {
    const { evaluate } = matchCameras(patches(60, 0.05));
    const [half, whole] = [new Float64Array(3), new Float64Array(3)];
    evaluate(encodeSrgb(0.1), encodeSrgb(0.2), encodeSrgb(0.15), half, 0);
    evaluate(encodeSrgb(0.2), encodeSrgb(0.4), encodeSrgb(0.3), whole, 0);
    const back = (value: number) => ((value + 0.055) / 1.055) ** 2.4;
    for (let c = 0; c < 3; c++) expect(back(whole[c]!) / back(half[c]!)).toBeCloseTo(2, 3);
  });
  test('leaves out patches that fit nothing, and says which', () => {
    const all = patches(40);
    all[7] = { ...all[7]!, to: [0.9, 0.1, 0.1] };
    const made = matchCameras(all);
    expect(made.patches.filter(({ used }) => !used).map(({ name }) => name)).toEqual(['7']);
    expect(made.after.mean).toBeLessThan(0.6);
  });
  test('is refused below twelve patches, counting neither black nor clipped ones', () => {
    expect(problem(() => matchCameras(patches(11)))).toMatchObject({ code: 'match-patches' });
    const clipped = patches(6).map((one) => ({ ...one, to: [1, 1, 1] as const }));
    expect(problem(() => matchCameras([...patches(8), ...clipped])).message).toMatch(/^Only 8 patches/);
  });
});

describe('patches that two frames share', () => {
  /** Squares of one color each, 10 pixels wide. */
  function squares(colors: (column: number, row: number) => readonly number[]): MatchPicture {
    const [width, height] = [300, 200];
    const data = new Uint8Array(width * height * 3);
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i += 3)
        colors(Math.floor(x / 10), Math.floor(y / 10)).forEach((value, c) => (data[i + c] = Math.round(255 * value)));
    return { width, height, channels: 3, data };
  }
  test('are their even cells, and none where one of them is uneven', () => {
    const colors = Array.from({ length: 600 }, () => color());
    const at = (column: number, row: number) => colors[row * 30 + column]!;
    const one = squares(at);
    const other = squares((column, row) => seenBy(at(column, row)));
    for (let i = 0; i < 10 * 300 * 3; i++) other.data[i] = (i % 2) * 255; // the first row of cells is noise
    const shared = sharedPatches(one, other);
    expect(shared).toHaveLength(570);
    expect(matchCameras(shared).after.mean).toBeLessThan(0.8);
  });
  test('frames of other shapes share none', () => {
    const one = squares(() => [0.5, 0.5, 0.5]);
    expect(problem(() => sharedPatches(one, { ...one, width: 200, height: 300 })).code).toBe('match-shape');
  });
});
