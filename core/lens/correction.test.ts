import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { must } from '../must';
import { between } from './between';
import { calibrations, type CalibratedLens, type Sample } from './calibrated';
import { correctionOf, type Correction, type CorrectionFound, type PhotoTaken } from './correction';
import { evaluated, modelOf } from './models';
import { radiusOf, rises, tabulated } from './radial';
import { farthestMove, unbent, zoomToFill } from './warp';

const FORTH = 'unit="half-diagonal" direction="ideal-to-distorted"';
const BACK = 'unit="half-diagonal" direction="distorted-to-ideal"';

function lensOf(inner: string, crop = '1'): CalibratedLens {
  const text = `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="1"><lens maker="Perrin" model="24-70 mm" mount="Alder" crop="${crop}">${inner}</lens></lens-database>`;
  return must(calibrations(new TextEncoder().encode(text)).lenses[0]);
}
const distortion = (samples: string, how = FORTH, model = 'odd3') =>
  `<series quantity="distortion" model="${model}" ${how}>${samples}</series>`;
const taken: PhotoTaken = { crop: 1, focal: 24, aperture: 8, distance: null };
const barrel = '<sample focal="24" k1="-0.03"/>';

function known(found: CorrectionFound): Correction {
  if (found.is !== 'known') throw new Error(found.why);
  return found.correction;
}
const why = (found: CorrectionFound): string => (found.is === 'unknown' ? found.why : 'known');

describe('models', () => {
  const at = (name: string, k: Record<string, number>, r: number): number =>
    evaluated(must(modelOf('distortion', name)), k)(r);
  test('are what their papers say, worked out by hand', () => {
    expect(at('odd3', { k1: -0.1 }, 0.5)).toBeCloseTo(0.4875, 12);
    expect(at('odd5', { k1: 0.2, k2: 0.4 }, 0.5)).toBeCloseTo(0.5 + 0.025 + 0.0125, 12);
    expect(at('division', { k1: 0.2 }, 1)).toBeCloseTo(1 / 1.2, 12);
    expect(at('dng-warp', { k0: 1.1, k1: -0.2, k2: 0.3, k3: 0.4 }, 1)).toBeCloseTo(1.6, 12);
    expect(evaluated(must(modelOf('vignetting', 'even')), { k1: -0.5, k2: 0.1 })(0.5)).toBeCloseTo(0.88125, 12);
  });
  test('of one quantity are no models of another, nor is what every object has', () => {
    expect([modelOf('vignetting', 'odd3'), modelOf('distortion', 'even'), modelOf('distortion', 'toString')]).toEqual([
      null,
      null,
      null,
    ]);
  });
});

describe('functions of the radius', () => {
  test('turned round and applied again lead back', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -0.2, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (k, r) => {
          const f = (x: number) => x * (1 + k * x * x);
          expect(f(must(radiusOf(f, f(r), 1.2)))).toBeCloseTo(f(r), 10);
          expect(tabulated(f, 1.5)(r)).toBeCloseTo(f(r), 6);
        },
      ),
    ));
  test('that turn back within the picture are told', () => {
    expect([rises((r) => r * (1 - 0.3 * r * r), 1), rises((r) => r * (1 - 0.4 * r * r), 1)]).toEqual([true, false]);
    expect(radiusOf((r) => r / 2, 2, 1)).toBeNull();
  });
});

describe('between measurements', () => {
  const sample = (focal: number, aperture: number | null = null, distance: number | null = null): Sample => ({
    focal,
    aperture,
    distance,
    k: {},
  });
  const of = (samples: Sample[], settings: Partial<PhotoTaken>) => {
    const found = between(samples, { focal: null, aperture: null, distance: null, ...settings });
    if (found.is === 'not found') return found.why;
    return found.weighted.map((one) => [one.sample.focal, one.sample.aperture, Number(one.weight.toFixed(6))]);
  };
  test('a focal length counts by its logarithm, and is not looked for past the outermost', () => {
    expect(of([sample(70), sample(35), sample(24)], { focal: 35 })).toEqual([[35, null, 1]]);
    expect(of([sample(25), sample(100)], { focal: 50 })).toEqual([
      [25, null, 0.5],
      [100, null, 0.5],
    ]);
    expect(of([sample(24), sample(70)], { focal: 20 })).toBe(
      'it was measured from 24 mm to 70 mm, and the photo was taken at 20 mm',
    );
    expect(of([sample(50)], {})).toEqual([[50, null, 1]]);
    expect(of([sample(24), sample(70)], {})).toBe('the photo does not say its focal length');
  });
  test('the outermost aperture stands for those past it; two axes at once count together', () => {
    const four = [sample(24, 4), sample(24, 8), sample(96, 4), sample(96, 8)];
    expect(of(four, { focal: 24, aperture: 22 })).toEqual([[24, 8, 1]]);
    const both = of(four, { focal: 48, aperture: 4 * Math.SQRT2 });
    expect(both).toEqual(four.map((one) => [one.focal, one.aperture, 0.25]));
    expect(of(four, { focal: 24 })).toBe('the photo does not say its aperture');
  });
  test('what is not said of the distance is far away; what was measured twice counts once', () => {
    const near = [sample(50, null, 0.5), sample(50, null, 10)];
    expect(between(near, { focal: 50, aperture: null, distance: null })).toMatchObject({
      weighted: [{ sample: { distance: 10 }, weight: 1 }],
    });
    expect(of([sample(50), sample(50)], { focal: 50 })).toEqual([
      [50, null, 0.5],
      [50, null, 0.5],
    ]);
    expect(of([], { focal: 50 })).toBe('nothing was measured');
  });
});

describe('the correction of a photo', () => {
  test('says where each color lies, and how much light came', () => {
    const fringe = `<series quantity="lateral chromatic aberration" channel="red" model="odd3" ${FORTH}><sample focal="24" k0="1.001"/></series>`;
    const light = `<series quantity="vignetting" model="even" ${FORTH}><sample focal="24" aperture="8" k1="-0.5"/></series>`;
    const found = correctionOf(lensOf(distortion(barrel) + fringe + light), taken);
    const { red, green, blue, light: part } = known(found);
    expect([green(1), red(1), blue(1), part(1)].map((v) => v.toFixed(6))).toEqual([
      '0.970000',
      '0.970970',
      '0.970000',
      '0.500000',
    ]);
    expect(found).toMatchObject({
      done: ['distortion', 'lateral chromatic aberration of red', 'vignetting'],
      left: [],
    });
  });
  test('is the same, whichever way round the database has it', () => {
    const forth = known(correctionOf(lensOf(distortion('<sample focal="24" k1="0.05"/>', FORTH, 'odd3')), taken));
    const back = known(correctionOf(lensOf(distortion('<sample focal="24" k1="0.05"/>', BACK, 'odd3')), taken));
    for (const r of [0.1, 0.5, 0.9, 1]) expect(back.green(forth.green(r))).toBeCloseTo(r, 5);
    // what turns back far outside the picture is of no concern within it
    const pincushion = known(correctionOf(lensOf(distortion('<sample focal="24" k1="-0.1"/>', BACK)), taken));
    expect(pincushion.green(0.9)).toBeCloseTo(1, 5);
  });
  test('on a smaller sensor is that of the middle', () => {
    const whole = known(correctionOf(lensOf(distortion(barrel)), taken));
    const middle = known(correctionOf(lensOf(distortion(barrel)), { ...taken, crop: 2 }));
    expect(middle.green(1)).toBeCloseTo(whole.green(0.5) * 2, 6);
  });
  test.each<[string, string, Partial<PhotoTaken>, string | undefined, string]>([
    ['a larger sensor', distortion(barrel), { crop: 0.79 }, undefined, 'smaller sensor'],
    ['a sensor of unknown size', distortion(barrel), { crop: null }, undefined, 'not known'],
    ['a measurement on an unknown sensor', distortion(barrel), {}, '', 'does not say how large'],
    ['a focal length past the outermost', distortion(barrel), { focal: 23 }, undefined, 'measured at 24 mm'],
    ['a model of nobody', distortion(barrel, FORTH, 'moon'), {}, undefined, 'model “moon” is not known'],
    ['another unit', distortion(barrel, FORTH.replace('half-diagonal', 'mm')), {}, undefined, 'unit “mm”'],
    ['no direction', distortion(barrel, 'unit="half-diagonal"'), {}, undefined, 'direction “” is not known'],
    ['a figure that is none', distortion('<sample focal="24" k1="much"/>'), {}, undefined, 'no number'],
    ['what folds over', distortion('<sample focal="24" k1="-0.6"/>'), {}, undefined, 'one place twice'],
    [
      'what folds over, the other way round',
      distortion('<sample focal="24" k1="-0.6"/>', BACK),
      {},
      undefined,
      'one place twice',
    ],
    [
      'light that ends',
      `<series quantity="vignetting" model="even" ${FORTH}><sample focal="24" k1="-4" k2="3"/></series>`,
      {},
      undefined,
      'without light',
    ],
    ['a lens without measurement', '', {}, undefined, 'without any measurement'],
  ])('refuses %s, and says so', (_, inner, more, crop, words) => {
    expect(why(correctionOf(lensOf(inner, crop), { ...taken, ...more }))).toContain(words);
  });
  test('leaves a quantity that it cannot tell, and says which', () => {
    const light = `<series quantity="vignetting" model="even" ${FORTH}><sample focal="24" aperture="4" k1="-0.5"/><sample focal="24" aperture="8" k1="-0.2"/></series>`;
    const found = correctionOf(lensOf(distortion(barrel) + light), { ...taken, aperture: null });
    expect(found).toMatchObject({
      done: ['distortion'],
      left: ['vignetting (the photo does not say its aperture)'],
    });
    expect(known(found).light(1)).toBe(1);
  });
});

describe('a photo without what its lens did', () => {
  /** A smooth scene: waves across and down, of linear light. */
  const scene = (x: number, y: number, channel: number): number =>
    30000 + 9000 * Math.sin(x * 9 + channel) * Math.cos(y * 7 - channel);
  const [width, height] = [180, 120];
  const half = Math.hypot(width, height) / 2;

  /** What the lens makes of the scene: each place of the photo shows what the ideal picture has at the radius that lies there. */
  function photographed({ red, green, blue, light }: Correction) {
    const data = new Uint16Array(width * height * 3);
    for (let y = 0, at = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        for (let channel = 0; channel < 3; channel++, at++) {
          const [dx, dy] = [(x - (width - 1) / 2) / half, (y - (height - 1) / 2) / half];
          const r = Math.hypot(dx, dy);
          const ideal = must(radiusOf(must([red, green, blue][channel]), r, 2));
          const factor = r > 0 ? ideal / r : 1;
          data[at] = Math.round(scene(dx * factor, dy * factor, channel) * light(r));
        }
    return { data, width, height };
  }
  const inner = [
    distortion(barrel),
    `<series quantity="lateral chromatic aberration" channel="red" model="odd3" ${FORTH}><sample focal="24" k0="1.004"/></series>`,
    `<series quantity="lateral chromatic aberration" channel="blue" model="odd3" ${FORTH}><sample focal="24" k0="0.997"/></series>`,
    `<series quantity="vignetting" model="even" ${FORTH}><sample focal="24" aperture="8" k1="-0.3" k2="-0.1"/></series>`,
  ].join('');

  test('is the scene again, only larger or smaller', () => {
    const correction = known(correctionOf(lensOf(inner), taken));
    const photo = photographed(correction);
    const zoom = zoomToFill(correction, width, height);
    const ideal = Uint16Array.from(photo.data, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % width, Math.floor(i / 3 / width)];
      return scene((zoom * (x - (width - 1) / 2)) / half, (zoom * (y - (height - 1) / 2)) / half, i % 3);
    });
    // past the middles of the outermost pixels nobody knows how the scene goes on
    const isWithin = (i: number): boolean => {
      const [x, y] = [Math.floor(i / 3) % width, Math.floor(i / 3 / width)];
      return x > 0 && x < width - 1 && y > 0 && y < height - 1;
    };
    const off = (data: Uint16Array) =>
      Math.max(...data.map((value, i) => (isWithin(i) ? Math.abs(value - must(ideal[i])) : 0)));
    expect(off(photo.data)).toBeGreaterThan(10000);
    expect(off(unbent(photo, correction).data)).toBeLessThan(20);
  });
  test('is filled to its edges, and not smaller than that needs', () => {
    const correction = known(correctionOf(lensOf(inner), taken));
    const zoom = zoomToFill(correction, width, height);
    const widest = (r: number) => Math.max(correction.red(r), correction.green(r), correction.blue(r));
    const edges = Array.from({ length: 500 }, (_, n) => 120 / (2 * half) + (1 - 120 / (2 * half)) * (n / 499));
    const past = edges.map((edge) => widest(zoom * edge) - edge);
    expect(Math.max(...past)).toBeLessThan(1e-4);
    expect(Math.max(...past)).toBeGreaterThan(-1e-4);
    expect(farthestMove(correction, zoom)).toBeGreaterThan(0.01);
  });
  test('of a lens that does nothing is the photo, to the last bit', () => {
    const nothing = known(correctionOf(lensOf(distortion('<sample focal="24"/>')), taken));
    const photo = photographed(nothing);
    expect(unbent(photo, nothing)).toEqual(photo);
  });
});
