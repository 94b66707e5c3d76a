import { describe, expect, test } from 'vitest';
import { decodeSrgb, encodeSrgb } from '../color/transfer';
import { evaluateOf } from '../preset/apply';
import { bake, bakeResidual } from '../preset/bake';
import type { Settings } from '../preset/kinds';
import { readCube, writeCubeBytes } from './cube';
import { reexpress } from './resample';
import { sampler } from './sample';
import { domainUpTo, reachOf, reachWords, WHITE_EV } from './tonal-range';

const settings: Settings = { level: -0.6, contrast: 1.1, chroma: 0.7 };
/** sRGB code value of a light so many stops above middle gray. */
const at = (stops: number): number => encodeSrgb(0.18 * 2 ** stops);
const color = (evaluate: ReturnType<typeof sampler>, r: number, g: number, b: number): number[] => {
  const out = new Float64Array(3);
  evaluate(r, g, b, out, 0);
  return [...out];
};

describe('the tonal range of a look', () => {
  test('reaches to display white, 2.5 stops above middle gray, or as far as is said', () => {
    expect(domainUpTo(null)).toEqual({ min: [0, 0, 0], max: [1, 1, 1] });
    expect(reachOf(domainUpTo(null))).toBeCloseTo(WHITE_EV, 6);
    for (const stops of [3, 4.5, 6]) expect(reachOf(domainUpTo(stops))).toBeCloseTo(stops, 6);
    expect(reachWords(domainUpTo(null))).toBe('from black to +2.5 EV around middle gray, display white');
    expect(reachWords(domainUpTo(4))).toBe('from black to +4 EV around middle gray');
  });

  test('is in its file, and colors beyond white are what the preset makes of them', () => {
    const baked = bake(settings, 33, 'Far', { above: 4 });
    const look = readCube(writeCubeBytes(baked.look));
    expect(reachOf(look.domain)).toBeCloseTo(4, 3);
    const direct = color(evaluateOf(baked.effect), at(3.5), at(3), at(2.8));
    color(sampler(look), at(3.5), at(3), at(2.8)).forEach((value, c) => expect(value).toBeCloseTo(direct[c] ?? NaN, 2));
    expect(bakeResidual(baked).meanDeltaE).toBeLessThan(0.2);
    const near = color(sampler(bake(settings, 33, 'Near').look), at(3.5), at(3), at(2.8));
    expect(Math.abs((near[0] ?? 0) - (direct[0] ?? 0))).toBeGreaterThan(0.2);
  });

  test('an editor that works in a log range gets what the look says of light above white', () => {
    const target = { primaries: 'srgb', transfer: { log: { below: -9, above: 4 } } } as const;
    const shaped = (stops: number): number => (stops + 9) / 13;
    const direct = color(evaluateOf(bake(settings, 5, '').effect), at(3.7), at(3.7), at(3.7));
    const wanted = decodeSrgb(direct[0] ?? NaN);
    const lightOf = (above: number | null): number => {
      const { look } = reexpress(bake(settings, 33, 'x', { above }).look, target, 33);
      const [out = NaN] = color(sampler(look), shaped(3.7), shaped(3.7), shaped(3.7));
      return 0.18 * 2 ** (out * 13 - 9);
    };
    const [far, near] = [4, null].map((above) => Math.abs(lightOf(above) / wanted - 1));
    expect(far).toBeLessThan(0.02);
    expect(near).toBeGreaterThan(0.07);
  });

  test('what takes display values gets a table of those alone', () => {
    const { look, residual } = reexpress(
      bake(settings, 33, 'Far', { above: 5 }).look,
      { primaries: 'srgb', transfer: 'srgb' },
      33,
    );
    expect(look.domain).toEqual({ min: [0, 0, 0], max: [1, 1, 1] });
    expect(residual.maxDeltaE).toBeLessThan(1);
  });
});
