import { describe, expect, test } from 'vitest';
import { fromFunction } from '../look/look';
import { residual } from '../look/residual';
import { sampler } from '../look/sample';
import { seeded } from '../random';
import { applyPreset, evaluateOf, type PresetEffect } from './apply';
import { bake, bakeResidual } from './bake';
import { compile } from './render';
import { faded, pale, settingsAtRandom, warm } from './testing';

const random = seeded(3);
const picture = Uint8ClampedArray.from({ length: 4 * 900 }, () => Math.floor(random() * 256));
/** Turns every channel round. */
const negative = fromFunction(2, 'Negative', (values) => {
  for (let c = 0; c < 3; c++) values[c] = 1 - values[c]!;
});
const plain = (settings: PresetEffect['settings']): PresetEffect => ({ settings, look: null });
const applied = (effect: PresetEffect, strength = 1): Uint8ClampedArray => {
  const out = new Uint8ClampedArray(picture.length);
  applyPreset(effect, strength, picture, out);
  return out;
};

describe('a preset over pixels', () => {
  test.each([warm, pale, faded, settingsAtRandom(random)].map((one) => [one]))(
    'each is what its settings give for its color, rounded once: %#',
    (settings) => {
      const got = applied(plain(settings));
      const evaluate = compile(settings);
      const out = new Float64Array(3);
      for (let i = 0; i < picture.length; i += 4) {
        evaluate(picture[i]! / 255, picture[i + 1]! / 255, picture[i + 2]! / 255, out, 0);
        for (let c = 0; c < 3; c++)
          expect(got[i + c]).toBe(Math.min(255, Math.max(0, Math.floor(out[c]! * 255 + 0.5))));
        expect(got[i + 3]).toBe(picture[i + 3]);
      }
    },
  );
  test('in the place of its own source, and at strengths: none is as it was, half is halfway', () => {
    const own = picture.slice();
    applyPreset(plain(warm), 1, own, own);
    expect(own).toEqual(applied(plain(warm)));
    expect(applied(plain(warm), 0)).toEqual(picture);
    const half = applied(plain(warm), 0.5);
    const whole = applied(plain(warm), 1);
    for (let i = 0; i < picture.length; i++)
      if (whole[i]! > 0 && whole[i]! < 255)
        expect(Math.abs(half[i]! - (picture[i]! + whole[i]!) / 2)).toBeLessThanOrEqual(1);
  });
  test('the look that it calls lies behind its settings, at its strength', () => {
    const effect = { settings: { level: 1 }, look: { look: negative, strength: 0.25 } };
    const evaluate = evaluateOf(effect);
    const level = compile({ level: 1 });
    const out = new Float64Array(3);
    const lifted = new Float64Array(3);
    evaluate(0.2, 0.3, 0.4, out, 0);
    level(0.2, 0.3, 0.4, lifted, 0);
    for (let c = 0; c < 3; c++) expect(out[c]).toBeCloseTo(lifted[c]! + 0.25 * (1 - 2 * lifted[c]!), 6);
    expect(applied(effect)).not.toEqual(applied(plain({ level: 1 })));
  });
});

describe('a table of a preset that calls a look', () => {
  const settings = { level: 0.5, look: { name: 'Negative', strength: 25 } };
  const called = { look: negative, strength: 0.25 };
  test('holds the look where it is at hand, and says that it does not where it is not', () => {
    const made = bake(settings, 33, '', { called });
    expect(made.left).toEqual([]);
    expect(residual(evaluateOf(made.effect), sampler(made.look)).meanDeltaE).toBe(bakeResidual(made).meanDeltaE);
    expect(bakeResidual(made).meanDeltaE).toBeLessThan(0.1);
    expect(bake(settings, 17, '').left.map(({ setting }) => setting)).toEqual(['look']);
  });
  test('leaves it out where it is not wanted', () => {
    const made = bake(settings, 17, '', { called, wanted: ['level'] });
    expect(made.left).toEqual([{ setting: 'look', class: 'reference', reason: 'was not chosen' }]);
    expect(made.effect.look).toBeNull();
  });
});
