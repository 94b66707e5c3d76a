import { describe, expect, test } from 'vitest';
import { compile } from '../preset/render';
import { faded, pale, warm } from '../preset/testing';
import { fromFunction, identity, readProgram, sampler } from '.';
import { haldSamples, writeHaldPng, writeHaldTiff } from './hald-file';
import { inspect } from './inspect';
import { encodingOf } from './encoding';

const of = (change: (v: Float64Array) => void, size = 33) => {
  const look = fromFunction(size, 'x', change);
  return inspect(sampler(look), look.table);
};
const codes = (f: (v: Float64Array) => void, size?: number) => of(f, size).findings.map((x) => x.code);
const each = (curve: (x: number) => number) => (values: Float64Array) => {
  for (let c = 0; c < 3; c++) values[c] = curve(values[c]!);
};

describe('inspection', () => {
  test('a look that changes nothing is good, with nothing found', () => {
    expect(of(() => {})).toMatchObject({ verdict: 'good', findings: [] });
    expect(of(() => {}).figures.hueSwing).toBeLessThan(0.01);
  });
  test('a gentle curve is good', () =>
    expect(of(each((x) => x + 0.08 * Math.sin(2 * Math.PI * x) * -1))).toMatchObject({ verdict: 'good' }));
  test('steps are bands', () => {
    const inspection = of(each((x) => Math.round(x * 10) / 10));
    expect(inspection.findings.map((x) => x.code)).toContain('banding');
    expect(inspection.verdict).toBe('poor');
  });
  test('a table of eight bits is no band', () =>
    expect(
      codes(
        each((x) => Math.round(255 * x ** 1.2) / 255),
        64,
      ),
    ).not.toContain('banding'));
  test('gain clips highlights, and says what share', () => {
    const inspection = of(each((x) => Math.min(1, x * 1.25)));
    expect(inspection.findings.map((x) => x.code)).toEqual(['clipped-highlights']);
    expect(inspection.figures.clippedHighlights).toBeLessThan(22);
    expect(inspection.figures.clippedHighlights).toBeGreaterThan(17);
  });
  test('a lifted threshold clips shadows and crushes them', () =>
    expect(codes(each((x) => Math.max(0, (x - 0.15) / 0.85)))).toEqual(
      expect.arrayContaining(['clipped-shadows', 'crushed-shadows']),
    ));
  test('a dip in the grays is not monotone', () => {
    const inspection = of(each((x) => x + 0.15 * Math.sin(3 * Math.PI * x)));
    expect(inspection.findings.map((x) => x.code)).toContain('non-monotone-neutral');
    expect(inspection.figures.largestFall).toBeGreaterThan(2);
  });
  test('warm grays are a tint, and no more than a caution', () => {
    const inspection = of((values) => {
      values[2]! *= 0.93;
    });
    expect(inspection.findings).toEqual([expect.objectContaining({ code: 'neutral-tint', severity: 'caution' })]);
  });
  test('channels that change places turn hues', () => {
    const inspection = of((values) => {
      const [a, b, c] = values;
      values[0] = b!;
      values[1] = c!;
      values[2] = a!;
    });
    expect(inspection.findings.map((x) => x.code)).toContain('hue-swing');
    expect(inspection.figures.hueSwing).toBeGreaterThan(90);
  });
  test('a table turned inside out folds', () => {
    const inspection = of((values) => {
      const t = values[0]!;
      values[0] = values[1]!;
      values[1] = t;
    });
    expect(inspection.findings.map((x) => x.code)).toContain('fold');
    expect(inspection.figures.folds).toBeGreaterThan(90);
  });
  test('entries beyond full scale are told', () =>
    expect(
      codes((values) => {
        values[0]! *= 1.1;
      }),
    ).toContain('out-of-range'));
  test('a monochrome look has no hue to turn and does not fold', () => {
    const inspection = of((values) => {
      const y = 0.3 * values[0]! + 0.6 * values[1]! + 0.1 * values[2]!;
      values.fill(y);
    });
    expect(inspection.verdict).toBe('good');
    expect(inspection.figures.skinTurn).toBeNull();
  });
  test.each([
    ['warm', warm],
    ['pale', pale],
    ['faded', faded],
  ])('a look that is meant so is not poor: %s', (_, settings) =>
    expect(inspect(compile(settings)).verdict).not.toBe('poor'),
  );
});

describe('Hald images', () => {
  const look = fromFunction(
    16,
    'Kiln',
    each((x) => x ** 1.4),
  );
  test.each([
    ['PNG', writeHaldPng],
    ['TIFF', writeHaldTiff],
  ] as const)('as %s of 16 bits comes back within a rounding', (_n, write) => {
    const program = readProgram(write(look));
    expect(program).toMatchObject({ format: 'hald', size: 16 });
    program.look!.table.forEach((v, i) => expect(Math.abs(v - look.table[i]!)).toBeLessThan(1 / 65535));
    expect(readProgram(write(program.look!)).look!.table).toEqual(program.look!.table);
  });
  test('only squares of sizes make one', () => {
    expect(() => haldSamples(identity(33))).toThrow(/Hald/);
    expect(haldSamples(identity(64)).side).toBe(512);
  });
});

test('an encoding and back is where it began', () => {
  for (const name of ['p3', 'rec2020-linear', 'prophoto', 'srgb-linear']) {
    const encoding = encodingOf(name)!;
    const values = Float64Array.from([0.2, 0.7, 0.4]);
    encoding.fromSrgb(values, 0);
    encoding.toSrgb(values, 0);
    [0.2, 0.7, 0.4].forEach((x, i) => expect(values[i]).toBeCloseTo(x, 9));
  }
});
