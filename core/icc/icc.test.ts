import { converter } from 'culori';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { labOfSrgb } from '../color/lab';
import { deltaE2000 } from '../color/difference';
import { compile } from '../preset/render';
import { warm } from '../preset/testing';
import { Problem } from '../problem';
import { sampler } from '../look';
import { icc } from '../testing';
import { profileOf } from '../camera/dcp';
import type { Dcp } from '../camera/dcp';
import { setNumbers } from '../camera/dcp';
import { toAbstract, toDeviceLink, toInputProfile } from './convert';
import { gamutOutline, hull } from './gamut';
import { iccHeader } from './header';
import { evaluateIcc, readAnyLook } from './look';
import { once } from './transform';

const created = new Date('2026-03-04T05:06:07Z');
const arbitrary = fc.double({ min: 0, max: 1, noNaN: true });
const evaluate = compile(warm);

describe('ICC transforms', () => {
  test('sRGB to Lab agrees with an independent library, ΔE00 ≤ 0.05', async () => {
    const lab = converter('lab'); // relative to D50
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(arbitrary, arbitrary, arbitrary), { minLength: 50, maxLength: 50 }),
        async (list) => {
          const out = await once('srgb', 'lab', list.flat());
          list.forEach(([r, g, b], i) => {
            const w = lab({ mode: 'rgb', r, g, b }) as unknown as { l: number; a: number; b: number };
            expect(deltaE2000(out[i * 3]!, out[i * 3 + 1]!, out[i * 3 + 2]!, w.l, w.a, w.b)).toBeLessThan(0.05);
          });
        },
      ),
      { numRuns: 5 },
    );
  });
  test('there and back is the same color; XYZ of white is D50 with Y = 1', async () => {
    const back = await once('lab', 'srgb', await once('srgb', 'lab', [0.2, 0.5, 0.9, 0, 0, 0]));
    [0.2, 0.5, 0.9, 0, 0, 0].forEach((v, i) => expect(back[i]).toBeCloseTo(v, 4));
    const xyz = await once('srgb', 'xyz', [1, 1, 1]);
    [0.9642, 1, 0.8249].forEach((v, i) => expect(xyz[i]).toBeCloseTo(v, 3));
  });
  test('the gamut of a link is none, of sRGB’s own primaries it is a hull around neutral', async () => {
    expect(
      hull([
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
        [0.5, 0.5],
      ]),
    ).toHaveLength(4);
    await expect(gamutOutline(icc('mntr'))).rejects.toBeInstanceOf(Problem);
  });
  test.each([
    ['cut', (b: Uint8Array) => b.slice(0, 400)],
    [
      'without its table',
      (bytes: Uint8Array) => {
        const out = bytes.slice();
        const at = new TextDecoder('latin1').decode(out).indexOf('A2B0');
        out.set([0x58, 0x58, 0x58, 0x58], at);
        return out;
      },
    ],
    [
      'with a table of another kind',
      (bytes: Uint8Array) => {
        const out = bytes.slice();
        const at = new TextDecoder('latin1').decode(out).indexOf('mft2');
        out.set([0x6d, 0x66, 0x74, 0x39], at);
        return out;
      },
    ],
  ] as [string, (b: Uint8Array) => Uint8Array][])(
    'a profile %s is refused with place and remedy',
    async (_name, harm) => {
      const { bytes } = await toDeviceLink(evaluate, { title: 'Kiln', created, grid: 5 });
      const error = await readAnyLook(harm(bytes)).catch((x: unknown) => x);
      expect(error).toBeInstanceOf(Problem);
      expect((error as Problem).remedy).not.toBe('');
      expect((await evaluateIcc(bytes, [0.5, 0.5, 0.5])).length).toBe(3); // and the library still works
    },
  );
});

describe('looks as ICC profiles', () => {
  test('a device link is the look, to the error it says', async () => {
    const { bytes, residual } = await toDeviceLink(evaluate, { title: 'Amber kiln', created });
    const header = iccHeader(bytes);
    const program = await readAnyLook(bytes);
    expect(header).toMatchObject({
      class: 'link',
      space: 'RGB',
      pcs: 'RGB',
      description: 'Amber kiln',
      version: '4.3',
    });
    expect(residual.meanDeltaE).toBeLessThan(0.1);
    expect(program).toMatchObject({ kind: 'icc', title: 'Amber kiln' });
    const first = new Float64Array(3);
    const second = new Float64Array(3);
    const lab = new Float64Array(6);
    for (const [r, g, bl] of [
      [0.2, 0.4, 0.6],
      [0.9, 0.5, 0.1],
    ] as const) {
      evaluate(r, g, bl, first, 0);
      sampler(program.look!)(r, g, bl, second, 0);
      labOfSrgb(first[0]!, first[1]!, first[2]!, lab, 0);
      labOfSrgb(second[0]!, second[1]!, second[2]!, lab, 3);
      expect(deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!)).toBeLessThan(0.5);
    }
    expect((await toDeviceLink(evaluate, { title: 'Amber kiln', created })).bytes).toEqual(bytes);
  });
  test('an abstract profile is the look within sRGB, and the finer its table the nearer', async () => {
    const coarse = await toAbstract(evaluate, { title: 'A', created, grid: 9 });
    const fine = await toAbstract(evaluate, { title: 'A', created, grid: 33 });
    expect(iccHeader(fine.bytes)).toMatchObject({ class: 'abstract', space: 'Lab', pcs: 'Lab' });
    expect(fine.residual.meanDeltaE).toBeLessThan(coarse.residual.meanDeltaE);
    expect(fine.residual.meanDeltaE).toBeLessThan(1);
  });
  test('strength acts on the whole', async () => {
    const { bytes } = await toDeviceLink(evaluate, { title: 'A', created, grid: 17 });
    const full = await evaluateIcc(bytes, [0.3, 0.5, 0.7]);
    const half = await evaluateIcc(bytes, [0.3, 0.5, 0.7], 0.5);
    [0.3, 0.5, 0.7].forEach((x, i) => expect(half[i]).toBeCloseTo(x + (full[i]! - x) / 2, 6));
  });
  test('a camera profile becomes an input profile that renders as it does', async () => {
    const profile: Dcp = { little: true, tags: new Map() };
    setNumbers(profile, 50721, 10, [0.9, -0.3, -0.05, -0.35, 1.15, 0.22, -0.02, 0.12, 0.62]);
    setNumbers(profile, 50778, 3, [21]);
    setNumbers(profile, 50940, 11, [0, 0, 0.2, 0.3, 1, 1]);
    const { bytes, residual } = await toInputProfile(profileOf(profile), 5000, { title: 'Alder at 5000 K', created });
    expect(iccHeader(bytes)).toMatchObject({ class: 'input', space: 'RGB', pcs: 'XYZ' });
    expect(residual.meanDeltaE).toBeLessThan(0.5);
    expect(residual.p95DeltaE).toBeGreaterThan(0);
    const white = await once(bytes, 'lab', [1, 1, 1]);
    expect(white[0]).toBeCloseTo(100, 0);
    expect(Math.hypot(white[1]!, white[2]!)).toBeLessThan(1);
  });
});
