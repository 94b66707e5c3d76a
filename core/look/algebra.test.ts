import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compile } from '../preset/render';
import { warm as warmSettings } from '../preset/testing';
import { blend, compose, invertLook } from './algebra';
import { fromFunction, sampler } from '.';

const arbitrary = fc.double({ min: 0, max: 1, noNaN: true });
const curve = sampler(
  fromFunction(17, 'c', (values) => {
    for (let i = 0; i < 3; i++) values[i] = values[i]! ** 1.4;
  }),
);
const warm = sampler(
  fromFunction(17, 'w', (values) => {
    const [r, g, b] = values;
    values[0] = 0.9 * r! + 0.08 * g!;
    values[1] = 0.03 * r! + 0.92 * g!;
    values[2] = 0.85 * b!;
  }),
);
const at = (evaluate: typeof curve, point: readonly [number, number, number]): number[] => {
  const out = new Float64Array(3);
  evaluate(...point, out, 0);
  return [...out];
};

describe('looks combined', () => {
  test('one after another is the second of the first', () => {
    fc.assert(
      fc.property(fc.tuple(arbitrary, arbitrary, arbitrary), (point) => {
        expect(at(compose(curve, warm), point)).toEqual(at(warm, at(curve, point) as [number, number, number]));
      }),
    );
  });
  test('composition is associative', () => {
    fc.assert(
      fc.property(fc.tuple(arbitrary, arbitrary, arbitrary), (point) => {
        expect(at(compose(compose(curve, warm), curve), point)).toEqual(
          at(compose(curve, compose(warm, curve)), point),
        );
      }),
    );
  });
  test('mixed none is the first, whole is the second, half lies between', () => {
    fc.assert(
      fc.property(fc.tuple(arbitrary, arbitrary, arbitrary), (point) => {
        const curved = at(curve, point);
        const warmed = at(warm, point);
        at(blend(curve, warm, 0), point).forEach((v, i) => expect(v).toBeCloseTo(curved[i]!, 12));
        at(blend(curve, warm, 1), point).forEach((v, i) => expect(v).toBeCloseTo(warmed[i]!, 12));
        at(blend(curve, warm, 0.5), point).forEach((v, i) => expect(v).toBeCloseTo((curved[i]! + warmed[i]!) / 2, 12));
      }),
    );
  });
});
describe('looks undone', () => {
  test('what keeps colors apart is undone to a tenth of a ΔE00 on average', () => {
    const evaluate = compose(curve, warm);
    const inv = invertLook(evaluate, 'back', 17);
    const back = sampler(inv.look);
    expect(inv.residual.meanDeltaE).toBeLessThan(0.1);
    const p = [0.4, 0.5, 0.3] as const;
    at(compose(evaluate, back), p).forEach((v, i) => expect(v).toBeCloseTo(p[i]!, 1));
  });
  test('what makes all gray cannot be undone, and says so', () => {
    const mono = (r: number, g: number, b: number, out: Float64Array | Float32Array, i: number) => {
      out[i] = out[i + 1] = out[i + 2] = 0.3 * r + 0.6 * g + 0.1 * b;
    };
    const inv = invertLook(mono, 'x', 9);
    expect(inv.residual.meanDeltaE).toBeGreaterThan(10);
    expect(inv.unreached).toBeGreaterThan(50);
  });
  test('a look that clips is undone but for what it clipped', () => {
    const inv = invertLook(compile(warmSettings), 'x', 9);
    expect(inv.residual.meanDeltaE).toBeLessThan(2);
    expect(inv.look.table.every((v) => v >= 0 && v <= 1)).toBe(true);
  });
});
