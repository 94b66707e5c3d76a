import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Problem } from '../problem';
import { refusalOf as problem } from '../testing-refusal';
import { applyPlain, applyTo, prepare } from './apply';
import { kernel } from './kernel/kernel';
import { readCube, writeCube, writeCubeBytes } from './cube';
import { writeClf } from './clf-write';
import { fromFunction, identity, type Look } from './look';
import { halton, haltonPoints, isSame, residual } from './residual';
import { reexpress, resample } from './resample';
import { sampler } from './sample';
import { selvedge, threads } from './selvedge';

const bytes = (s: string): Uint8Array => new TextEncoder().encode(s);
const bent = (size: number): Look =>
  fromFunction(size, 'Bent', (values) => {
    const [r, g, b] = values as unknown as [number, number, number];
    values[0] = r ** 1.3 * 0.9 + 0.05 * g;
    values[1] = Math.sin(g * 1.4) * 0.9 + 0.02 * b;
    values[2] = b ** 0.8 - 0.1 * r * g;
  });

/** Written anew for this test, in doubles, straight from the definitions: corner weights by barycentric coordinates. */
function reference(look: Look, point: number[], tetra: boolean): number[] {
  const n = look.size;
  const at = (r: number, g: number, b: number, c: number) => look.table[(r + g * n + b * n * n) * 3 + c]!;
  const place = point.map((v, c) => {
    const lo = look.domain.min[c]!;
    const hi = look.domain.max[c]!;
    return ((Math.min(hi, Math.max(lo, v)) - lo) / (hi - lo)) * (n - 1);
  });
  const cell = place.map((v) => Math.min(n - 2, Math.floor(v)));
  const fraction = place.map((v, c) => v - cell[c]!);
  return [0, 1, 2].map((c) => {
    let sum = 0;
    if (!tetra) {
      for (let k = 0; k < 8; k++) {
        const dimensions = [k & 1, (k >> 1) & 1, k >> 2];
        sum +=
          dimensions.reduce((w, on, a) => w * (on ? fraction[a]! : 1 - fraction[a]!), 1) *
          at(cell[0]! + dimensions[0]!, cell[1]! + dimensions[1]!, cell[2]! + dimensions[2]!, c);
      }
      return sum;
    }
    const order = [0, 1, 2].sort((a, b) => fraction[b]! - fraction[a]!);
    const corner = [...cell];
    let before = 1;
    for (let k = 0; k <= 3; k++) {
      const next = k < 3 ? fraction[order[k]!]! : 0;
      sum += (before - next) * at(corner[0]!, corner[1]!, corner[2]!, c);
      if (k < 3) corner[order[k]!]!++;
      before = next;
    }
    return sum;
  });
}

describe('sampling', () => {
  const unit = fc.double({ min: -0.3, max: 1.3, noNaN: true });
  test.each([
    ['tetrahedral', true],
    ['trilinear', false],
  ] as const)('%s agrees with an independent implementation to 1e-5', (name, tetra) => {
    for (const look of [
      bent(2),
      bent(5),
      bent(17),
      { ...bent(9), domain: { min: [-0.2, 0, 0.1], max: [1.1, 2, 0.9] } },
    ]) {
      const evaluate = sampler(look, name);
      const out = new Float64Array(3);
      fc.assert(
        fc.property(unit, unit, unit, (r, g, b) => {
          evaluate(r, g, b, out, 0);
          reference(look, [r, g, b], tetra).forEach((v, c) => expect(Math.abs(out[c]! - v)).toBeLessThan(1e-5));
        }),
        { numRuns: 400 },
      );
    }
  });
  test('a neutral color stays neutral in a table that keeps neutrals', () => {
    const look = fromFunction(9, '', (values) => {
      const y = (values[0]! + values[1]! + values[2]!) / 3;
      values.fill(y ** 1.2);
    });
    const evaluate = sampler(look);
    const out = new Float64Array(3);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (v) => {
        evaluate(v, v, v, out, 0);
        expect(out[0]).toBe(out[1]);
        expect(out[1]).toBe(out[2]);
      }),
    );
  });
  test('strength 0 is the identity, 100 as made, and between them a straight line', () => {
    const look = bent(7);
    const out = new Float64Array(9);
    fc.assert(
      fc.property(unit, unit, unit, fc.double({ min: 0, max: 4, noNaN: true }), (r, g, b, s) => {
        sampler(look, 'tetrahedral', 0)(r, g, b, out, 0);
        sampler(look)(r, g, b, out, 3);
        sampler(look, 'tetrahedral', s)(r, g, b, out, 6);
        [r, g, b].forEach((v, c) => {
          const x = Math.min(1, Math.max(0, v));
          expect(out[c]! === x).toBe(true);
          expect(out[6 + c]).toBeCloseTo(x + s * (out[3 + c]! - x), 10);
        });
      }),
    );
  });
  test('1D tables are read straight between their entries, and clamped at their ends', () => {
    const look: Look = {
      format: 'cube',
      kind: '1d',
      size: 3,
      table: new Float32Array([0, 0, 1, 0.25, 0.5, 0.5, 1, 1, 0]),
      title: '',
      domain: { min: [0, 0, 0], max: [1, 1, 1] },
      comments: [],
      warnings: [],
    };
    const out = new Float64Array(3);
    sampler(look)(0.25, 0.25, 0.25, out, 0);
    expect([...out]).toEqual([0.125, 0.25, 0.75]);
    sampler(look)(-1, 2, 2, out, 0);
    expect([...out]).toEqual([0, 1, 0]);
  });
});

describe('the 8-bit kernel', () => {
  test.each<[Look, number]>([
    [bent(33), 1],
    [bent(17), 0.5],
    [bent(5), 2.5],
    [{ ...bent(9), domain: { min: [0.1, 0, 0], max: [0.9, 1, 1.5] } }, 1],
  ])('gives what the sampler gives, rounded half up, and keeps alpha, %#', (look, s) => {
    const src = new Uint8ClampedArray(4096 * 4).map((_, i) => (Math.imul(i + 7, 2654435761) >>> 13) & 255);
    const out = new Uint8ClampedArray(src.length);
    const evaluate = sampler(look, 'tetrahedral', s);
    const values = new Float64Array(3);
    applyTo(prepare(look, s), src, out);
    let off = 0;
    for (let i = 0; i < src.length; i += 4) {
      // inside the domain, where folding strength into the table is exact
      const inside = [0, 1, 2].every(
        (c) => src[i + c]! / 255 >= look.domain.min[c]! && src[i + c]! / 255 <= look.domain.max[c]!,
      );
      evaluate(src[i]! / 255, src[i + 1]! / 255, src[i + 2]! / 255, values, 0);
      expect(out[i + 3]).toBe(src[i + 3]);
      if (inside || s === 1)
        for (let c = 0; c < 3; c++) {
          const want = Math.floor(Math.min(1, Math.max(0, values[c]!)) * 255 + 0.5);
          expect(Math.abs(out[i + c]! - want)).toBeLessThanOrEqual(1);
          if (out[i + c] !== want) off++;
        }
    }
    expect(off).toBeLessThan(src.length * 0.001); // single precision against double at the rounding edge
  });
  test('in WebAssembly it is what it is in plain steps, but for ties of rounding, whatever the number of pixels', () => {
    expect(kernel()).not.toBeNull();
    for (const [size, count, strength] of [
      [33, 70001, 1],
      [2, 5, 1],
      [65, 4096, 4],
      [17, 1, 0.3],
    ] as const) {
      const prepared = prepare(bent(size), strength);
      const src = new Uint8ClampedArray(count * 4).map((_, i) => (Math.imul(i + 3, 2654435761) >>> 11) & 255);
      const pixels = new Uint8ClampedArray(src.length);
      const drawn = new Uint8ClampedArray(src.length);
      applyPlain(prepared, src, pixels);
      expect(kernel()!.apply(prepared, src, drawn)).toBe(true);
      let off = 0;
      for (let i = 0; i < pixels.length; i++)
        if (pixels[i] !== drawn[i]) {
          off++;
          expect(Math.abs(pixels[i]! - drawn[i]!)).toBe(1);
          expect(i % 4).not.toBe(3);
        }
      expect(off).toBeLessThanOrEqual(pixels.length * 0.001);
      const inPlace = src.slice();
      kernel()!.apply(prepared, inPlace, inPlace);
      expect(inPlace).toEqual(drawn);
    }
    // more tables than it keeps, used in turns, small and large: each is still its own
    const many = Array.from({ length: 20 }, (_, i) => prepare(bent(i % 5 === 4 ? 41 : 9 + (i % 4) * 8), 0.2 + i * 0.1));
    const src = new Uint8ClampedArray(4000).map((_, i) => (i * 71) & 255);
    for (let round = 0; round < 3; round++)
      for (const prepared of round === 1 ? [...many].reverse() : many) {
        const pixels = new Uint8ClampedArray(4000);
        const out = new Uint8ClampedArray(4000);
        applyPlain(prepared, src, pixels);
        kernel()!.apply(prepared, src, out);
        expect(out).toEqual(pixels);
      }
    expect(kernel()!.apply({ ...prepare(bent(2)), size: 200 }, new Uint8Array(4), new Uint8ClampedArray(4))).toBe(
      false,
    );
  });
  test('the identity leaves every picture alone', () => {
    const src = new Uint8ClampedArray(1024).map((_, i) => (i * 37) & 255);
    const out = new Uint8ClampedArray(1024);
    applyTo(prepare(identity(33)), src, out);
    expect(out).toEqual(src);
  });
});

describe('.cube', () => {
  test('what is written reads back the same, and writes the same bytes again', () => {
    const round = fc.record({
      size: fc.integer({ min: 2, max: 6 }),
      seed: fc.integer(),
      title: fc.string({ maxLength: 30 }).map((s) => s.replace(/["\r\n]/g, '').trim()),
    });
    fc.assert(
      fc.property(round, ({ size, seed, title }) => {
        const table = new Float32Array(size ** 3 * 3).map(
          (_, i) => ((Math.imul(i ^ seed, 2654435761) >>> 8) / 2 ** 24) * 3 - 1,
        );
        const look: Look = { ...identity(size), title, table };
        const text = writeCube(look);
        const back = readCube(bytes(text));
        expect(back.size).toBe(size);
        expect(back.title).toBe(title);
        back.table.forEach((v, i) => expect(Math.abs(v - table[i]!)).toBeLessThanOrEqual(1.3e-7));
        expect(writeCube(back)).toBe(text);
      }),
    );
  });
  test('reads titles, domains, comments, 1D tables, tabs, CRLF and exponents', () => {
    const look = readCube(
      bytes(
        '# made by hand\r\nTITLE "Two  words"\r\nLUT_1D_SIZE 2\r\nDOMAIN_MIN -0.5 0 0\r\nDOMAIN_MAX 1 2 1\r\n\r\n1e-3\t0\t0\r\n1 1 .5\r\n',
      ),
    );
    expect(look).toMatchObject({
      kind: '1d',
      size: 2,
      title: 'Two  words',
      domain: { min: [-0.5, 0, 0], max: [1, 2, 1] },
      comments: ['made by hand'],
    });
    expect([...look.table].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.001, 0, 0, 1, 1, 0.5]);
  });
  test('a keyword that is none of the format’s is passed over with a warning', () => {
    expect(readCube(bytes('LUT_3D_SIZE 2\nODD_WORD 3\n' + '0 0 0\n'.repeat(8))).warnings).toMatchObject([
      { code: 'cube-keyword', where: 'line 2' },
    ]);
  });
  const rows = '0 0 0\n'.repeat(8);
  test.each([
    ['a missing row', `LUT_3D_SIZE 2\n${'0 0 0\n'.repeat(7)}`, 'cube-rows-missing', 'line 8'],
    ['a surplus row', `LUT_3D_SIZE 2\n${rows}1 1 1\n`, 'cube-rows-surplus', 'line 10'],
    ['a NaN in a row', `LUT_3D_SIZE 2\n0 nan 0\n`, 'cube-number', 'line 2'],
    ['a NaN at the beginning', 'LUT_3D_SIZE 2\nnan 0 0\n', 'cube-number', 'line 2'],
    ['infinity', 'LUT_3D_SIZE 2\n0 1e999 0\n', 'cube-number', 'line 2'],
    ['size 0', 'LUT_3D_SIZE 0\n', 'cube-size', 'line 1'],
    ['size 1000', 'LUT_3D_SIZE 1000\n', 'cube-size', 'line 1'],
    ['no size', '', 'cube-no-size', 'line 1'],
    ['numbers first', '0 0 0\n', 'cube-no-size', 'line 1'],
    ['two sizes', 'LUT_3D_SIZE 2\nLUT_1D_SIZE 2\n', 'cube-size-twice', 'line 2'],
    ['four numbers', 'LUT_3D_SIZE 2\n0 0 0 0\n', 'cube-row', 'line 2'],
    ['an empty domain', `LUT_3D_SIZE 2\nDOMAIN_MIN 1 0 0\n${rows}`, 'cube-domain', 'line 10'],
    ['prose', 'this is a letter\n', 'cube-row', 'line 1'],
  ])('refuses %s, with its line and a remedy', (_name, text, code, where) => {
    const told = problem(() => readCube(bytes(text)));
    expect(told).toMatchObject({ code, where });
    expect(told.remedy.length).toBeGreaterThan(10);
  });
  test('refuses UTF-16 and binary content', () => {
    expect(problem(() => readCube(new Uint8Array([0xff, 0xfe, 76, 0, 85, 0])))).toMatchObject({ code: 'text-utf16' });
    expect(problem(() => readCube(new Uint8Array([76, 0, 85, 0, 84, 0])))).toMatchObject({ code: 'text-utf16' });
    expect(problem(() => readCube(new Uint8Array([1, 2, 3, 4, 5, 0, 7])))).toMatchObject({ code: 'text-binary' });
  });
  test('whatever bytes come, it answers with a look or a problem', () =>
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        try {
          readCube(bytes);
        } catch (error) {
          expect(error).toBeInstanceOf(Problem);
        }
      }),
    ));
});

describe('measuring', () => {
  test('Halton points are the published sequence', () => {
    expect([1, 2, 3, 4].map((i) => halton(i, 2))).toEqual([0.5, 0.25, 0.75, 0.125]);
    expect(halton(1, 3)).toBeCloseTo(1 / 3);
    expect(haltonPoints().length).toBe(60000);
  });
  test('a look is the same as itself in another size when it bends little, and not the same as another', () => {
    const look = bent(33);
    const resampled = resample(look, 25);
    expect(isSame(resampled.residual)).toBe(true);
    expect(resampled.residual.meanDeltaE).toBeGreaterThan(0);
    expect(isSame(residual(sampler(look), sampler(identity(33))))).toBe(false);
    expect(residual(sampler(look), sampler(look))).toMatchObject({ maxDeltaE: 0, p95DeltaE: 0, meanDeltaE: 0 });
  });
  test('the figure is largest where it says', () => {
    const look = identity(9);
    const other = identity(9);
    other.table[(4 + 4 * 9 + 4 * 81) * 3] = 1;
    const apart = residual(sampler(look), sampler(other));
    apart.worst.forEach((v) => expect(Math.abs(v - 0.5)).toBeLessThan(0.07));
  });
  test('a look re-expressed for log Rec. 2020 does there what it does here', () => {
    const soft = fromFunction(33, '', (values) => {
      for (let c = 0; c < 3; c++) values[c] = values[c]! + 0.06 * Math.sin(values[c]! * 6.283) * 0.4;
    });
    const reexpressed = reexpress(soft, { primaries: 'rec2020', transfer: { log: { below: -9, above: 4 } } }, 65);
    expect(reexpressed.residual.meanDeltaE).toBeLessThan(0.5);
    expect(residual(sampler(soft), sampler(identity(2))).meanDeltaE).toBeGreaterThan(
      reexpressed.residual.meanDeltaE * 3,
    );
    expect(reexpress(identity(33), { primaries: 'p3', transfer: 'srgb' }, 33).residual.maxDeltaE).toBeLessThan(1.5);
  });
  test('the selvedge has twelve different threads, which an identity leaves as they are', () => {
    expect(new Set(threads.map(String)).size).toBe(12);
    for (const [a, b] of selvedge(sampler(identity(33)))) expect(a).toBe(b);
    expect(selvedge(sampler(bent(33))).filter(([a, b]) => a !== b).length).toBeGreaterThan(9);
  });
});

describe('Common LUT Format', () => {
  test('writes blue fastest, and a range for a domain of its own', () => {
    const look = fromFunction(2, 'A & B', () => {});
    const xml = writeClf(look, 'x');
    expect(xml).toContain('name="A &amp; B"');
    const rows = /<Array dim="2 2 2 3">\n([\s\S]*?)\n<\/Array>/.exec(xml)![1]!.split('\n');
    expect(rows[1]).toBe('0 0 1');
    expect(rows[4]).toBe('1 0 0');
    expect(writeClf({ ...look, domain: { min: [0, 0, 0], max: [2, 2, 2] } }, 'x')).toContain(
      '<maxInValue>2</maxInValue>',
    );
  });
});

test('a title beyond the basic plane does not shift the rows', () => {
  const look = { ...identity(3), title: '𐀀𐀀 Kiln 🔥' };
  expect(Array.from(readCube(writeCubeBytes(look)).table)).toEqual(Array.from(look.table));
});
