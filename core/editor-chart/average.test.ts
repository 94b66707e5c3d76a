/** Readings that are averaged, and the steps that a chart goes with. */
import { describe, expect, test } from 'vitest';
import { fromFunction, identity } from '../look/look';
import { Problem } from '../problem';
import { averageOf } from './average';
import { stepsOf, type ChartMade } from './steps';

const lighter = (by: number) =>
  fromFunction(5, 'Lighter', (color) => {
    color.forEach((value, channel) => {
      color[channel] = Math.min(1, value + by);
    });
  });

describe('several readings', () => {
  test('are averaged entry by entry, and their spread is told', () => {
    const { look, spread } = averageOf([identity(5), lighter(0.1)], 'Both');
    // the darkest entry is 0 in the one and 0.1 in the other
    expect(look.table[0]).toBeCloseTo(0.05, 6);
    expect(look.title).toBe('Both');
    expect(spread!.mean).toBeGreaterThan(0.5);
    expect(spread!.max).toBeGreaterThan(spread!.mean);
  });
  test('that are the same have no spread, and a single one is itself', () => {
    expect(averageOf([identity(5), identity(5)], 'Same').spread!.max).toBeLessThan(1e-9);
    const one = averageOf([lighter(0.1)], 'One');
    expect(one.spread).toBeNull();
    expect([...one.look.table]).toEqual([...lighter(0.1).table]);
  });
  test.each([
    ['none', []],
    ['of different sizes', [identity(5), identity(9)]],
  ])('%s cannot be averaged', (_, looks) => {
    expect(() => averageOf(looks, 'x')).toThrow(Problem);
  });
});

describe('the steps', () => {
  const chart: ChartMade = {
    fileName: 'Velour.tif',
    kind: '16 bits',
    width: 3296,
    height: 3200,
    editor: 'Fenwick 5',
    what: 'Velour',
    profile: null,
  };
  test('name the editor, what is put on, and the size of the export', () => {
    const words = stepsOf(chart).map(({ title, text }) => `${title}: ${text}`);
    expect(words[1]).toMatch(/Fenwick 5.*sRGB of 16 bits/);
    expect(words.some((one) => one.startsWith('Put on Velour'))).toBe(true);
    expect(words.filter((one) => one.includes('3,296 × 3,200'))).toHaveLength(2);
  });
  test('of camera data name the profile', () => {
    const [, opened] = stepsOf({ ...chart, kind: 'camera data', profile: 'Alder Standard' });
    expect(opened!.text).toContain('Choose the camera profile Alder Standard');
  });
});
