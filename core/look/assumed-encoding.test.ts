import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decodeSrgb, encodeSrgb } from '../color/transfer';
import { identity } from './look';
import { isPlain, evaluateUnder, encodingOfText, otherEncodings, encodingText, tableUnder } from './assumed-encoding';
import { sampler, type Evaluate } from './sample';

const at = (evaluate: Evaluate, color: readonly number[]): number[] => {
  const out = new Float64Array(3);
  evaluate(color[0]!, color[1]!, color[2]!, out, 0);
  return [...out];
};
const arbitrary = fc.double({ min: 0, max: 1, noNaN: true });

describe('a look read in another encoding', () => {
  test('nothing is nothing, however it is read, for what the encoding holds', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...otherEncodings.filter((e) => !e.output)),
        fc.tuple(arbitrary, arbitrary, arbitrary),
        (encoding, triple) => {
          at(
            evaluateUnder((r, g, b, out, i) => {
              out[i] = r;
              out[i + 1] = g;
              out[i + 2] = b;
            }, encoding),
            triple,
          ).forEach((x, i) => expect(x).toBeCloseTo(triple[i]!, 6));
        },
      ),
    ));
  test('half the light, said in linear values, is half the light', () => {
    const half: Evaluate = (r, g, b, out, i) => {
      out[i] = r / 2;
      out[i + 1] = g / 2;
      out[i + 2] = b / 2;
    };
    for (const primaries of ['sRGB', 'Rec. 2020', 'ProPhoto'] as const)
      at(evaluateUnder(half, { primaries, transfer: 'linear', range: 'full' }), [0.7, 0.5, 0.2]).forEach((x, i) =>
        expect(decodeSrgb(x)).toBeCloseTo(decodeSrgb([0.7, 0.5, 0.2][i]!) / 2, 6),
      );
  });
  test('what it gives may be another thing than what it takes: a table from linear light to display values is nothing at all', () => {
    const develops: Evaluate = (r, g, b, out, i) => {
      out[i] = encodeSrgb(r);
      out[i + 1] = encodeSrgb(g);
      out[i + 2] = encodeSrgb(b);
    };
    const encoding = encodingOfText('sRGB, linear, full → sRGB, sRGB, full')!;
    at(evaluateUnder(develops, encoding), [0.7, 0.3, 0.1]).forEach((x, i) =>
      expect(x).toBeCloseTo([0.7, 0.3, 0.1][i]!, 6),
    );
    const legal = evaluateUnder(
      (r, g, b, out, i) => {
        out[i] = 16 / 255 + (219 / 255) * r;
        out[i + 1] = 16 / 255 + (219 / 255) * g;
        out[i + 2] = 16 / 255 + (219 / 255) * b;
      },
      {
        primaries: 'sRGB',
        transfer: 'sRGB',
        range: 'full',
        output: { primaries: 'sRGB', transfer: 'sRGB', range: 'legal' },
      },
    );
    at(legal, [0.2, 0.5, 1]).forEach((x, i) => expect(x).toBeCloseTo([0.2, 0.5, 1][i]!, 6));
    expect(
      isPlain({
        primaries: 'sRGB',
        transfer: 'sRGB',
        range: 'full',
        output: { primaries: 'sRGB', transfer: 'linear', range: 'full' },
      }),
    ).toBe(false);
  });
  test('a swap of red and blue in another space is none in sRGB', () => {
    const swap: Evaluate = (r, g, b, out, i) => {
      out[i] = b;
      out[i + 1] = g;
      out[i + 2] = r;
    };
    const plain = at(swap, [0.8, 0.4, 0.2]);
    const wide = at(evaluateUnder(swap, { primaries: 'Rec. 2020', transfer: 'sRGB', range: 'full' }), [0.8, 0.4, 0.2]);
    expect(Math.abs(plain[0]! - wide[0]!) + Math.abs(plain[2]! - wide[2]!)).toBeGreaterThan(0.02);
  });
  test('legal range: black is at 16, white at 235', () => {
    const seen: number[] = [];
    const evaluate = evaluateUnder(
      (r, g, b, out, i) => {
        seen.push(r);
        out[i] = r;
        out[i + 1] = g;
        out[i + 2] = b;
      },
      { primaries: 'sRGB', transfer: 'sRGB', range: 'legal' },
    );
    at(evaluate, [0, 0, 0]);
    at(evaluate, [1, 1, 1]);
    expect(seen.map((v) => v * 255)).toEqual([expect.closeTo(16, 9), expect.closeTo(235, 6)]);
  });
  test('as a table it is what it is as a function, near enough to see no difference', () => {
    const look = { ...identity(17), table: identity(17).table.map((v) => v ** 1.3) };
    for (const encoding of otherEncodings) {
      const evaluate = evaluateUnder(sampler(look), encoding);
      const under = sampler(tableUnder(look, encoding));
      for (const values of [
        [0.2, 0.4, 0.6],
        [0.9, 0.8, 0.1],
        [0.5, 0.5, 0.5],
      ])
        at(under, values).forEach((x, i) => expect(Math.abs(x - at(evaluate, values)[i]!)).toBeLessThan(0.02));
    }
    expect(tableUnder(look, otherEncodings[0]!)).toBe(look);
    expect(encodeSrgb(0.5)).toBeGreaterThan(0.7);
  });
  test('its words come back; nonsense is none', () => {
    for (const e of otherEncodings) expect(encodingOfText(encodingText(e))).toEqual(e);
    for (const text of [
      '',
      'sRGB',
      'sRGB, sRGB',
      'x, linear, full',
      'constructor, linear, full',
      'sRGB, toString, full',
      'sRGB, linear, half',
      'sRGB, linear, full → ',
      'sRGB, linear, full → sRGB, linear',
      'sRGB, sRGB, full → sRGB, sRGB, full → sRGB, sRGB, full',
    ])
      expect(encodingOfText(text)).toBeNull();
    expect(isPlain(otherEncodings[0]!)).toBe(true);
  });
});
