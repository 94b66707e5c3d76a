import { converter } from 'culori';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { houseLooks } from '@/demo/designs';
import { labOfSrgb } from '../color/lab';
import { deltaE2000 } from '../color/difference';
import { compile } from '../preset/render';
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
const c = fc.double({ min: 0, max: 1, noNaN: true });
const f = compile(houseLooks[0]!.settings);

describe('ICC transforms', () => {
  test('sRGB to Lab agrees with an independent library, ΔE00 ≤ 0.05', async () => {
    const lab = converter('lab'); // relative to D50
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(c, c, c), { minLength: 50, maxLength: 50 }), async (list) => {
        const out = await once('srgb', 'lab', list.flat());
        list.forEach(([r, g, b], i) => {
          const w = lab({ mode: 'rgb', r, g, b }) as unknown as { l: number; a: number; b: number };
          expect(deltaE2000(out[i * 3]!, out[i * 3 + 1]!, out[i * 3 + 2]!, w.l, w.a, w.b)).toBeLessThan(0.05);
        });
      }),
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
      (b: Uint8Array) => {
        const o = b.slice();
        const at = new TextDecoder('latin1').decode(o).indexOf('A2B0');
        o.set([0x58, 0x58, 0x58, 0x58], at);
        return o;
      },
    ],
    [
      'with a table of another kind',
      (b: Uint8Array) => {
        const o = b.slice();
        const at = new TextDecoder('latin1').decode(o).indexOf('mft2');
        o.set([0x6d, 0x66, 0x74, 0x39], at);
        return o;
      },
    ],
  ] as [string, (b: Uint8Array) => Uint8Array][])(
    'a profile %s is refused with place and remedy',
    async (_name, harm) => {
      const { bytes } = await toDeviceLink(f, { title: 'Kiln', created, grid: 5 });
      const e = await readAnyLook(harm(bytes)).catch((x: unknown) => x);
      expect(e).toBeInstanceOf(Problem);
      expect((e as Problem).remedy).not.toBe('');
      expect((await evaluateIcc(bytes, [0.5, 0.5, 0.5])).length).toBe(3); // and the library still works
    },
  );
});

describe('looks as ICC profiles', () => {
  test('a device link is the look, to the error it says', async () => {
    const { bytes, residual } = await toDeviceLink(f, { title: 'Amber kiln', created });
    const h = iccHeader(bytes);
    const p = await readAnyLook(bytes);
    expect(h).toMatchObject({ class: 'link', space: 'RGB', pcs: 'RGB', description: 'Amber kiln', version: '4.3' });
    expect(residual.meanDeltaE).toBeLessThan(0.1);
    expect(p).toMatchObject({ kind: 'icc', title: 'Amber kiln' });
    const a = new Float64Array(3);
    const b = new Float64Array(3);
    const l = new Float64Array(6);
    for (const [r, g, bl] of [
      [0.2, 0.4, 0.6],
      [0.9, 0.5, 0.1],
    ] as const) {
      f(r, g, bl, a, 0);
      sampler(p.look!)(r, g, bl, b, 0);
      labOfSrgb(a[0]!, a[1]!, a[2]!, l, 0);
      labOfSrgb(b[0]!, b[1]!, b[2]!, l, 3);
      expect(deltaE2000(l[0]!, l[1]!, l[2]!, l[3]!, l[4]!, l[5]!)).toBeLessThan(0.5);
    }
    expect((await toDeviceLink(f, { title: 'Amber kiln', created })).bytes).toEqual(bytes);
  });
  test('an abstract profile is the look within sRGB, and the finer its table the nearer', async () => {
    const coarse = await toAbstract(f, { title: 'A', created, grid: 9 });
    const fine = await toAbstract(f, { title: 'A', created, grid: 33 });
    expect(iccHeader(fine.bytes)).toMatchObject({ class: 'abstract', space: 'Lab', pcs: 'Lab' });
    expect(fine.residual.meanDeltaE).toBeLessThan(coarse.residual.meanDeltaE);
    expect(fine.residual.meanDeltaE).toBeLessThan(1);
  });
  test('strength acts on the whole', async () => {
    const { bytes } = await toDeviceLink(f, { title: 'A', created, grid: 17 });
    const full = await evaluateIcc(bytes, [0.3, 0.5, 0.7]);
    const half = await evaluateIcc(bytes, [0.3, 0.5, 0.7], 0.5);
    [0.3, 0.5, 0.7].forEach((x, i) => expect(half[i]).toBeCloseTo(x + (full[i]! - x) / 2, 6));
  });
  test('a camera profile becomes an input profile that renders as it does', async () => {
    const d: Dcp = { little: true, tags: new Map() };
    setNumbers(d, 50721, 10, [0.9, -0.3, -0.05, -0.35, 1.15, 0.22, -0.02, 0.12, 0.62]);
    setNumbers(d, 50778, 3, [21]);
    setNumbers(d, 50940, 11, [0, 0, 0.2, 0.3, 1, 1]);
    const { bytes, residual } = await toInputProfile(profileOf(d), 5000, { title: 'Alder at 5000 K', created });
    expect(iccHeader(bytes)).toMatchObject({ class: 'input', space: 'RGB', pcs: 'XYZ' });
    expect(residual.meanDeltaE).toBeLessThan(0.5);
    expect(residual.p95DeltaE).toBeGreaterThan(0);
    const white = await once(bytes, 'lab', [1, 1, 1]);
    expect(white[0]).toBeCloseTo(100, 0);
    expect(Math.hypot(white[1]!, white[2]!)).toBeLessThan(1);
  });
});
