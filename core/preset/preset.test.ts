import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor } from '../editor/descriptor';
import { readPreset } from '../recognise';
import { refusalOf as problem } from '../testing-refusal';
import { bake, bakeResidual, split } from './bake';
import { monotoneCurve } from './curve';
import type { Settings } from './kinds';
import { compile } from './render';
import { allSettings, faults, isNeutral } from './settings';
import { readSteps } from './container';
import { marlstonePreset, oxbowPreset } from './testing';

const descriptors = [oxbow2, marlstone3].map((d) => parseDescriptor(d));
const bytes = (s: string): Uint8Array => new TextEncoder().encode(s);
const run = (settings: Settings, point: [number, number, number]): number[] => {
  const out = new Float64Array(3);
  compile(settings)(...point, out, 0);
  return [...out];
};
const unit = fc.double({ min: 0, max: 1, noNaN: true });

describe('the renderer', () => {
  test('settings at their neutral values change nothing', () => {
    const neutral = Object.fromEntries(allSettings.map((d) => [d.id, structuredClone(d.neutral)]));
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        run(neutral, [r, g, b]).forEach((v, c) => expect(v).toBeCloseTo([r, g, b][c]!, 9));
      }),
    );
  });
  test('every definition accepts its neutral value, and refuses nonsense', () => {
    for (const setting of allSettings) {
      expect(setting.check(structuredClone(setting.neutral)), setting.id).toBeNull();
      expect(setting.check({ x: Number.NaN }), setting.id).not.toBeNull();
      expect(isNeutral(setting.id, setting.neutral)).toBe(true);
    }
    expect(faults({ level: 99, nothing: 1 }).map((f) => f.setting)).toEqual(['level', 'nothing']);
  });
  test('level 1 doubles the light', () => {
    // by hand: sRGB 0.5 is linear 0.21404, doubled 0.42808, encoded 0.68584
    expect(run({ level: 1 }, [0.5, 0.5, 0.5])[0]).toBeCloseTo(0.68584, 4);
  });
  test('contrast leaves its pivot, and a monochrome mix leaves no color', () => {
    expect(run({ contrast: 1.7 }, [0.46135613, 0.46135613, 0.46135613])[1]).toBeCloseTo(0.46135613, 6);
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        const [x, y, z] = run({ monochrome: { sectors: [{ center: 30, width: 90, lightness: 0.1 }] } }, [r, g, b]);
        expect(Math.abs(x! - y!)).toBeLessThan(2e-3);
        expect(Math.abs(y! - z!)).toBeLessThan(2e-3);
      }),
    );
  });
  test('warmth raises red against blue, tint shift lowers green', () => {
    const [r, , b] = run({ warmth: 40 }, [0.5, 0.5, 0.5]);
    expect(r!).toBeGreaterThan(b! + 0.05);
    const [x, y, z] = run({ tintShift: 40 }, [0.5, 0.5, 0.5]);
    expect(y!).toBeLessThan(Math.min(x!, z!));
  });
  test('the order in which settings are given does not matter', () => {
    const settings = {
      chroma: 1.3,
      level: 0.4,
      curve: [
        [0, 0.1],
        [1, 0.9],
      ],
      warmth: 20,
    };
    const back = Object.fromEntries(Object.entries(settings).reverse());
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        expect(run(settings, [r, g, b])).toEqual(run(back, [r, g, b]));
      }),
    );
  });
  test('slope, offset and power act once, in the order of the CDL', () => {
    expect(run({ slope: [2, 1, 1], offset: [0.1, 0, 0], power: [2, 1, 1] }, [0.3, 0.3, 0.3])[0]).toBeCloseTo(
      (0.3 * 2 + 0.1) ** 2,
      9,
    );
    expect(run({ power: [2, 2, 2] }, [0.5, 0.5, 0.5])[2]).toBeCloseTo(0.25, 9);
  });
  test('monotone points give a monotone curve', () => {
    const points = fc
      .uniqueArray(fc.integer({ min: 0, max: 1000 }), { minLength: 2, maxLength: 8 })
      .chain((xs) =>
        fc.tuple(
          fc.constant(xs.sort((a, b) => a - b)),
          fc.array(fc.integer({ min: 0, max: 300 }), { minLength: xs.length, maxLength: xs.length }),
        ),
      );
    fc.assert(
      fc.property(points, ([xs, steps]) => {
        let y = 0;
        const curve = monotoneCurve(xs.map((x, i) => [x / 1000, (y += steps[i]! / 1000)]));
        for (let x = -0.2, last = -Infinity; x <= 1.2; x += 0.01) {
          const v = curve(x);
          expect(v).toBeGreaterThanOrEqual(last - 1e-12);
          last = v;
        }
      }),
    );
  });
});

describe('bake', () => {
  test('33 points of a smooth preset: mean ΔE00 ≤ 0.1, max ≤ 1.0', () => {
    const residual = bakeResidual(
      bake({ level: 0.3, contrast: 1.1, warmth: 15, chroma: 1.08, tintDark: { hue: 250, amount: 0.02 } }, 33, ''),
    );
    expect(residual.meanDeltaE).toBeLessThanOrEqual(0.1);
    expect(residual.maxDeltaE).toBeLessThanOrEqual(1);
    expect(residual.maxDeltaE).toBeGreaterThan(0);
  });
  test('a finer table is nearer to the rendering', () => {
    const settings = { contrast: 1.4, chroma: 1.2 };
    expect(bakeResidual(bake(settings, 65, '')).meanDeltaE).toBeLessThan(
      bakeResidual(bake(settings, 17, '')).meanDeltaE,
    );
  });
  test('what a table cannot carry is left out with its class and reason, what is neutral is not mentioned', () => {
    const { kept, left } = split({
      level: 0.5,
      grain: 20,
      vignette: -1,
      whiteTemperature: 4000,
      chroma: 1,
      rotation: 2,
      look: { name: 'X', strength: 50 },
    });
    expect(Object.keys(kept)).toEqual(['level']);
    expect(left.map((l) => [l.setting, l.class])).toEqual([
      ['whiteTemperature', 'raw'],
      ['grain', 'local'],
      ['vignette', 'position'],
      ['rotation', 'geometry'],
      ['look', 'reference'],
    ]);
    expect(left.every((l) => l.reason.length > 10)).toBe(true);
  });
  test('a mapping’s class counts before the default one, and what was not chosen is said', () => {
    const { left } = split({ level: 1, chroma: 1.2 }, { level: { class: 'local', reason: 'by neighbours there' } }, []);
    expect(left).toEqual([
      { setting: 'level', class: 'local', reason: 'by neighbours there' },
      { setting: 'chroma', class: 'point', reason: 'was not chosen' },
    ]);
  });
});

describe('containers and mappings', () => {
  test('scales, signs, tables, logarithms, points and lists come out in our units', () => {
    const oxbow = readPreset(
      'x',
      bytes(
        oxbowPreset(`
          <rdf:li run:step="spread" run:by="1" run:about="20"/>
          <rdf:li run:step="cast" run:mired="10" run:leaf="6"/>
          <rdf:li run:step="line" run:on="red" run:through="0,0 51,102 255,255"/>
          <rdf:li run:step="petal" run:at="40" run:span="60" run:rich="-50"/>
          <rdf:li run:step="table" run:name="Amber" run:share="0.25"/>
          <rdf:li run:step="lamp" run:stops="0.5" run:odd="kept"/>`),
      ),
      descriptors,
    ).read;
    expect(oxbow.settings).toMatchObject({
      contrast: 2,
      contrastPivot: 0.2,
      warmth: 10,
      tintShift: -6,
      curveRed: [
        [0, 0],
        [0.2, 0.4],
        [1, 1],
      ],
      hueSectors: [{ center: 40, width: 60, turn: 0, chroma: 0.5, lightness: 0 }],
      look: { name: 'Amber', strength: 25 },
    });
    expect(oxbow.references).toEqual([{ kind: 'look', name: 'Amber', strength: 25 }]);
    expect(oxbow.unknown).toEqual({ 'lamp.odd': 'kept' });
    const marlstone = readPreset(
      'x',
      bytes(
        marlstonePreset('[light]\namount=200\nsnap=25\ndeepen=30\n\n[surface]\nclear=12', { headings: ['A', 'B'] }),
      ),
      descriptors,
    ).read;
    expect(marlstone.settings).toMatchObject({ level: 1, contrast: 1.35, toe: -30, haze: 12 });
    expect(marlstone.classes.haze).toEqual({
      class: 'local',
      reason: 'Marlstone clears haze by the brightness of the surroundings',
    });
  });
  test('steps written as elements are read like steps written as attributes', () => {
    const xml = oxbowPreset(
      '<rdf:li rdf:parseType="Resource"><run:step>lamp</run:step><run:stops>0.5</run:stops></rdf:li>',
    );
    expect(readPreset('x', bytes(xml), descriptors).read.settings).toEqual({ level: 0.5 });
  });
  test.each([
    [
      'entities',
      '<!DOCTYPE x [<!ENTITY a "aaaa">]><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">&a;</rdf:RDF>',
      'xml-doctype',
    ],
    ['an unknown entity', '<a>&b;</a>', 'xml-entity'],
    ['torn XML', '<a><b></a>', 'xml-malformed'],
    ['a deep nest', '<a>'.repeat(60) + '</a>'.repeat(60), 'xml-depth'],
  ])('refuses %s', (_n, text, code) => {
    const told = problem(() => readSteps('xmp', bytes(text)));
    expect(told.code).toBe(code);
    expect(told.where).toMatch(/line \d+/);
  });
  test('refuses a value that is no number, and one out of range, with its line', () => {
    expect(
      problem(() => readPreset('x', bytes('[marlstone]\nedition=3\n[light]\namount=much\n'), descriptors)),
    ).toMatchObject({ code: 'preset-number', where: 'line 3' });
    expect(
      problem(() => readPreset('x', bytes('[marlstone]\nedition=3\n[light]\ndeepen=900\n'), descriptors)),
    ).toMatchObject({ code: 'preset-value', where: 'line 3' });
    expect(problem(() => readSteps('ini', bytes('[a]\nno equals sign\n')))).toMatchObject({
      code: 'ini-line',
      where: 'line 2',
    });
    expect(problem(() => readPreset('x', bytes('[other]\na=1\n'), descriptors)).code).toBe('preset-language');
  });
  test('a descriptor with faults gets a sentence for each', () => {
    const bad = {
      ...oxbow2,
      version: 'two',
      sees: 'never',
      places: { looks: { linux: '/etc/passwd', mac: '{home}/x' } },
    };
    const told = problem(() => parseDescriptor(bad));
    expect(told.message.split(/(?<=\.) /).length).toBeGreaterThanOrEqual(4);
    expect(problem(() => parseDescriptor({ ...oxbow2, places: { looks: { linux: '{home}/../x' } } })).message).toMatch(
      /steps out/i,
    );
  });
});
