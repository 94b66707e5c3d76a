import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { must } from '../must';
import { refusalOf } from '../testing-refusal';
import { calibrations } from './calibrated';
import { convertDatabase, toldSample } from './convert';
import { fit, fitted, type Fitted } from './fit';
import { evaluated, modelOf } from './models';
import { movement } from './movement';

const of = (name: string, k: Record<string, number>) => evaluated(must(modelOf('distortion', name)), k);
const FORTH = 'ideal-to-distorted';
const BACK = 'distorted-to-ideal';

function database(series: string, more = ''): Uint8Array {
  const text = `<?xml version="1.0"?>
<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="1">
  <!-- by the bureau -->
  <lens maker="Perrin" model="24-70 mm f/4" mount="Alder" crop="1"${more}>
    <alias>PX 24-70/4</alias>
    ${series}
  </lens>
</lens-database>`;
  return new TextEncoder().encode(text);
}
const series = (samples: string, { model = 'odd3', direction = FORTH, unit = 'half-diagonal' } = {}) =>
  `<series quantity="distortion" model="${model}" unit="${unit}" direction="${direction}">${samples}</series>`;
const light =
  '<series quantity="vignetting" model="even" unit="half-diagonal" direction="ideal-to-distorted"><sample focal="24" k1="-0.5"/></series>';
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

describe('fitting', () => {
  test.each(fitted)('%s by itself gives its own coefficients', (name) =>
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -0.08, max: 0.08, noNaN: true }), { minLength: 4, maxLength: 4 }),
        (four) => {
          const { coefficients } = must(modelOf('distortion', name));
          const k = Object.fromEntries(coefficients.map((one, n) => [one, (one === 'k0' ? 1 : 0) + must(four[n])]));
          const found = fit(name, of(name, k));
          expect(found.most).toBeLessThan(1e-9);
          for (const one of coefficients) expect(found.k[one]).toBeCloseTo(must(k[one]), 6);
        },
      ),
    ),
  );
  test('is the best there is: no other coefficients come nearer', () => {
    const wanted = of('odd5', { k1: -0.06, k2: 0.03 });
    const square = (k: Record<string, number>, name: Fitted): number =>
      Array.from({ length: 513 }, (_, n) => (of(name, k)(n / 512) - wanted(n / 512)) ** 2).reduce((a, b) => a + b, 0);
    for (const name of ['odd3', 'division'] as const) {
      const { k } = fit(name, wanted);
      for (const one of Object.keys(k))
        for (const step of [-1e-5, 1e-5])
          expect(square({ ...k, [one]: must(k[one]) + step }, name)).toBeGreaterThan(square(k, name));
    }
  });
  test('tells what is left', () => {
    const found = fit('odd3', of('odd5', { k1: -0.06, k2: 0.03 }));
    expect(found.most).toBeGreaterThan(1e-4);
    expect(found.mean).toBeLessThan(found.most);
  });
});

describe('a database in another model', () => {
  test('says the same; what it does not concern stays as it is written', () => {
    const bytes = database(series('<sample focal="24" k1="-0.031"/><sample focal="70" k1="0.011"/>') + light);
    const { bytes: made, samples } = convertDatabase(bytes, 'dng-warp', null);
    expect(samples.map((one) => toldSample(one, 3600))).toEqual([
      expect.objectContaining({ lens: 'Perrin 24-70 mm f/4', focal: 24, maxPixels: expect.closeTo(0, 6) as number }),
      expect.objectContaining({ focal: 70, meanPixels: expect.closeTo(0, 6) as number }),
    ]);
    const lens = must(calibrations(made).lenses[0]);
    expect(lens.series[0]).toMatchObject({ model: 'dng-warp', direction: FORTH, unit: 'half-diagonal' });
    expect(must(lens.series[0]?.samples[0]).k).toEqual({
      k0: expect.closeTo(1, 9) as number,
      k1: expect.closeTo(-0.031, 9) as number,
      k2: expect.closeTo(0, 9) as number,
      k3: expect.closeTo(0, 9) as number,
    });
    expect(lens.series[1]).toEqual(must(calibrations(bytes).lenses[0]).series[1]);
    expect(text(made)).toContain('<!-- by the bureau -->');
    expect(text(made)).toContain('<alias>PX 24-70/4</alias>');
    expect(must(movement(lens, must(calibrations(bytes).lenses[0]))).most).toBeLessThan(1e-8);
  });
  test('and in the other direction leads to the same places, to what the model can say', () => {
    const bytes = database(series('<sample focal="24" k1="-0.031"/>'));
    const { bytes: made, samples } = convertDatabase(bytes, 'dng-warp', 'to-ideal');
    const lens = must(calibrations(made).lenses[0]);
    expect(lens.series[0]?.direction).toBe(BACK);
    const told = toldSample(must(samples[0]), 3600);
    expect(told.maxPixels).toBeLessThan(0.05);
    // the way there and back is off by what was told, a little more where the way is steep
    const moved = must(movement(lens, must(calibrations(bytes).lenses[0])));
    expect(moved.most * 3600).toBeLessThan(must(told.maxPixels) * 1.2 + 1e-3);
  });
  test.each([
    ['another model', series('<sample focal="24" k1="1"/>', { model: 'mustache' }), 'its model “mustache”'],
    ['another unit', series('<sample focal="24" k1="1"/>', { unit: 'mm' }), 'its unit “mm”'],
    ['another direction', series('<sample focal="24" k1="1"/>', { direction: 'up' }), 'its direction “up”'],
    ['no number', series('<sample focal="24" k1="x"/>'), 'no number'],
    ['folds over', series('<sample focal="24" k1="-0.9"/>'), 'one place twice'],
  ])('leaves a series alone that says %s, and its other samples with it', (_, one, why) => {
    const whole = one.replace('</series>', '<sample focal="35" k1="0.01"/></series>');
    const bytes = database(whole);
    const { bytes: made, samples } = convertDatabase(bytes, 'division', null);
    expect(toldSample(must(samples[0]), 1)).toMatchObject({
      maxPixels: null,
      left: expect.stringContaining(why) as string,
    });
    expect(toldSample(must(samples[1]), 1)).toMatchObject({ maxPixels: null });
    expect(calibrations(made)).toEqual(calibrations(bytes));
  });
  test('leaves a color to its own model where the other has no scale', () => {
    const red = series('<sample focal="24" k0="1.0008"/>').replace(
      'quantity="distortion"',
      'quantity="lateral chromatic aberration" channel="red"',
    );
    const { samples } = convertDatabase(database(red), 'division', null);
    expect(toldSample(must(samples[0]), 1)).toMatchObject({
      channel: 'red',
      left: expect.stringContaining('larger') as string,
    });
    expect(convertDatabase(database(red), 'odd5', null).samples[0]?.came).toMatchObject({
      k: { k0: expect.closeTo(1.0008, 9) as number },
    });
  });
  test('is refused where there is nothing to convert', () => {
    expect(refusalOf(() => convertDatabase(database(light), 'odd3', null)).code).toBe('lens-nothing-to-convert');
  });
});

describe('two calibrations of one lens', () => {
  const lens = (inner: string, crop = '1') =>
    must(calibrations(new TextEncoder().encode(text(database(inner)).replace('crop="1"', `crop="${crop}"`))).lenses[0]);
  test('differ by what the corner is moved by, and by light in EV', () => {
    const moved = must(
      movement(
        lens(series('<sample focal="24" k1="-0.03"/>') + light),
        lens(series('<sample focal="24" k1="-0.05"/>') + light.replace('-0.5', '-0.75')),
      ),
    );
    expect(moved.most).toBeCloseTo(0.02, 6);
    expect(moved.light).toBeCloseTo(1, 6);
  });
  test('of many settings are compared at the outermost and some between', () => {
    const zoom = (wide: number, long: number) => {
      const focals = Array.from({ length: 40 }, (_, n) => 24 + n);
      const ends: Record<number, number> = { 0: wide, 39: long };
      return lens(series(focals.map((focal, n) => `<sample focal="${focal}" k1="${ends[n] ?? 0}"/>`).join('')));
    };
    expect(must(movement(zoom(0.01, 0), zoom(0, 0))).most).toBeCloseTo(0.01, 6);
    expect(must(movement(zoom(0, 0.02), zoom(0, 0))).most).toBeCloseTo(0.02, 6);
  });
  test('are compared on the smaller sensor, and at settings that both know', () => {
    const wide = lens(series('<sample focal="24" k1="-0.03"/>'));
    const moved = must(movement(wide, lens(series('<sample focal="24" k1="-0.03"/>'), '1.5')));
    // one corner lies at 2/3 of the other's: its k1 counts 4/9 there
    expect(moved.most).toBeCloseTo(0.03 - (0.03 * 4) / 9, 6);
    expect(movement(wide, lens(series('<sample focal="35" k1="-0.03"/>')))).toBeNull();
    expect(movement(wide, lens(''))).toBeNull();
  });
});
