import fc from 'fast-check';
import { describe as group, expect, test } from 'vitest';
import { temperatureOf, uvOfXy, xyOfTemperature } from '../color/robertson';
import { planckian } from '../color/temperature';
import { Problem } from '../problem';
import { writeIfds } from '../tiff/write';
import { naturalSpline } from './curve';
import { describe, profileOf, readDcp, setNumbers, writeDcp } from './dcp';
import { edit, merge, split } from './edit';
import { renderer, STAGES } from './render';
import { independent, made, wave } from './testing';
import { anchor, neutralOf, whitePoint } from './white';

group('a camera profile', () => {
  test.each([true, false])('is written and read without a change, little-endian: %s', (little) => {
    const profile = made(little);
    const bytes = writeDcp(profile);
    const back = readDcp(bytes);
    expect(back.little).toBe(little);
    expect(describe(back)).toEqual(describe(profile));
    expect(writeDcp(back)).toEqual(bytes);
    expect(describe(back)['Tag 61234']).toEqual([9, 8, 7, 6, 5]);
    expect(describe(back).ProfileName).toBe('Alder Standard');
  });
  const points = fc.array(
    fc.tuple(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
    ),
    { minLength: 20, maxLength: 20 },
  );
  test.each([
    [{}],
    [{ forward: false }],
    [{ dual: false }],
    [{ values: 4, srgb: true }],
    [{ forward: false, dual: false, values: 3 }],
  ])('renders as a second implementation does, to 1e-4: %j', (part) => {
    const profile = readDcp(writeDcp(made(true, part)));
    const plain = profileOf(profile);
    for (const neutral of [
      [0.52, 1, 0.61],
      [0.72, 1, 0.42],
      [0.5, 1, 0.75],
    ])
      for (const stages of [
        [],
        ['hue-sat'],
        ['hue-sat', 'exposure'],
        ['hue-sat', 'exposure', 'look'],
        [...STAGES],
        ['curve'],
        ['exposure', 'curve'],
      ] as (readonly (typeof STAGES)[number][])[]) {
        const run = renderer(plain, neutral, stages);
        fc.assert(
          fc.property(points, (list) => {
            const values = Float64Array.from(list.flat());
            run(values);
            list.forEach((rgb, i) =>
              independent(profile, neutral, rgb, stages).forEach((x, c) =>
                expect(Math.abs(values[i * 3 + c]! - x)).toBeLessThan(1e-4),
              ),
            );
          }),
          { numRuns: 3 },
        );
      }
  });
  test('a neutral comes out as equal values on every rung, and every rung but the last keeps white', () => {
    const profile = profileOf(made());
    for (const numbers of [
      [0.5, 1, 0.7],
      [0.8, 1, 0.4],
    ]) {
      const values = Float64Array.from(numbers.map((x) => x * 0.4));
      renderer(profile, numbers, [])(values);
      expect(values[0]).toBeCloseTo(0.4, 3);
      expect(values[1]).toBeCloseTo(values[0]!, 3);
      expect(values[2]).toBeCloseTo(values[0]!, 3);
    }
  });
  test('hue is continuous where it wraps around', () => {
    const profile = profileOf(made());
    const run = renderer(profile, [0.5, 1, 0.7]);
    const near = (e: number): Float64Array => {
      const values = Float64Array.from([0.4, 0.2 + e, 0.2]);
      run(values);
      return values;
    };
    near(1e-6).forEach((x, i) => expect(Math.abs(x - near(-1e-6)[i]!)).toBeLessThan(1e-4));
  });
  test.each([
    [50721, 10, [1, 2, 3, 1, 2, 3, 1, 2, 3], 'dcp-singular'],
    [50938, 11, [1, 2, 3], 'dcp-table'],
    [50937, 4, [0, 0, 0], 'dcp-table'],
    [50940, 11, [0, 0, 0.5, 0.5, 0.2, 1], 'dcp-curve'],
    [50721, 12, [NaN, 0, 0, 0, 1, 0, 0, 0, 1], 'dcp-matrix'],
    [50982, 11, wave(8, 4, 6, 1).map((v, i) => (i === 9 ? Infinity : v)), 'dcp-table'],
  ] as const)('with tag %d broken is refused with place and remedy', (tag, type, values, code) => {
    const profile = made(true, { dual: false, forward: false });
    setNumbers(profile, tag, type, values);
    try {
      renderer(profileOf(readDcp(writeDcp(profile))), [0.5, 1, 0.6]);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Problem);
      expect((error as Problem).code).toBe(code);
      expect((error as Problem).where).not.toBe('');
    }
  });
  test('a directory that lies about its place is refused', () => {
    const bytes = writeIfds(0x4352, true, { tags: [...made().tags.values()] });
    new DataView(bytes.buffer).setUint32(4, 0x7fffffff, true);
    expect(() => readDcp(bytes)).toThrow(Problem);
  });
});

group('white', () => {
  test('the temperature of a black body is its own, within 0.2 %', () => {
    for (const k of [2000, 2856, 4000, 5000, 6504, 9000]) {
      const [u, v] = planckian(k);
      const white = temperatureOf([(3 * u) / (2 * u - 8 * v + 4), (2 * v) / (2 * u - 8 * v + 4)]);
      expect(Math.abs(white.kelvin / k - 1)).toBeLessThan(0.002);
      expect(Math.abs(white.tint)).toBeLessThan(0.6);
    }
  });
  test('temperature and tint give their chromaticity and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2100, max: 40000, noNaN: true }),
        fc.double({ min: -60, max: 60, noNaN: true }),
        (k, tint) => {
          const white = temperatureOf(xyOfTemperature(k, tint));
          expect(Math.abs(white.kelvin / k - 1)).toBeLessThan(0.004);
          expect(white.tint).toBeCloseTo(tint, 0);
        },
      ),
    );
  });
  test('magenta whites have a positive tint', () => {
    const [, v] = uvOfXy(xyOfTemperature(5000, 30));
    expect(v).toBeLessThan(uvOfXy(xyOfTemperature(5000, 0))[1]);
  });
  test('a neutral made from a temperature says that temperature', () => {
    const profile = profileOf(made());
    for (const k of [2500, 3200, 4800, 6500, 8000]) {
      const white = whitePoint(profile, neutralOf(profile, k, 5));
      expect(Math.abs(white.kelvin - k)).toBeLessThan(k * 0.01);
      expect(white.tint).toBeCloseTo(5, 0);
      expect(white.reachable).toBe(true);
    }
  });
  test.each([
    [[1, 0.32, 0.3], 3200],
    [[0.9, 0.4, 1], 5000],
    [[1, 0.5, 0.08], 6500],
  ] as [number[], number][])(
    'an infrared neutral %j that no temperature reaches is anchored at %d K, and renders neutral',
    (neutral, kelvin) => {
      const profile = made();
      expect(whitePoint(profileOf(profile), neutral).reachable).toBe(false);
      const anchored = profileOf(readDcp(writeDcp(anchor(profile, neutral, kelvin))));
      const white = whitePoint(anchored, neutral);
      const values = Float64Array.from(neutral.map((x) => x * 0.5));
      expect(Math.abs(white.kelvin - kelvin)).toBeLessThan(5);
      expect(Math.abs(white.tint)).toBeLessThan(0.5);
      expect(white.reachable).toBe(true);
      renderer(anchored, neutral, [])(values);
      expect(values[0]).toBeCloseTo(values[1]!, 3);
      expect(values[2]).toBeCloseTo(values[1]!, 3);
    },
  );
});

group('derived profiles', () => {
  test('an edit changes what it names and nothing else', () => {
    const profile = made();
    const edited = edit(profile, { name: 'Fir', curve: 'linear', drop: ['look'] });
    const before = describe(profile);
    const after = describe(edited);
    expect(after).toMatchObject({
      ProfileName: 'Fir',
      ProfileToneCurve: [0, 0, 1, 1],
      UniqueCameraModel: 'Perrin Alder',
    });
    for (const text of ['ProfileLookTableDims', 'ProfileLookTableData']) {
      expect(before[text]).toBeDefined();
      expect(after[text]).toBeUndefined();
    }
    expect(after['Tag 61234']).toEqual(before['Tag 61234']);
    expect(after.ColorMatrix1).toEqual(before.ColorMatrix1);
    expect(describe(edit(profile, { curve: 'editor' })).ProfileToneCurve).toBeUndefined();
  });
  test('split and merged again, it renders as before', () => {
    const profile = made();
    const again = merge(split(profile, 0), split(profile, 1));
    const values = Float64Array.from([0.3, 0.4, 0.2]);
    const rendered = values.slice();
    renderer(profileOf(profile), [0.6, 1, 0.6])(values);
    renderer(profileOf(again), [0.6, 1, 0.6])(rendered);
    expect([...rendered]).toEqual([...values]);
    expect(() => merge(profile, profile)).toThrow(Problem);
  });
  test('the spline goes through its points and bends nowhere at its ends', () => {
    const pts: [number, number][] = [
      [0, 0],
      [0.2, 0.1],
      [0.6, 0.8],
      [1, 1],
    ];
    const spline = naturalSpline(pts);
    pts.forEach(([x, y]) => expect(spline(x)).toBeCloseTo(y, 12));
    const step = 1e-3;
    expect(Math.abs(spline(2 * step) - 2 * spline(step) + spline(0)) / step ** 2).toBeLessThan(0.2);
  });
});
