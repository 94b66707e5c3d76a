import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { editorKey, parseDescriptor, type Descriptor } from '../editor/descriptor';
import { residual } from '../look/residual';
import { seeded } from '../random';
import { readPreset } from '../recognise';
import { split, type ClassOverrides } from './bake';
import { convertPreset, type PresetConversion } from './convert';
import { monotoneCurve } from './curve';
import type { Settings } from './kinds';
import { compile } from './render';
import { pointsAlong } from './substitutes';
import { oxbowPreset, settingsAtRandom } from './testing';

const descriptors = [oxbow2, marlstone3, marlstone4, tessel7].map((one) => parseDescriptor(one));
const [, , marlstone, tessel] = descriptors as [Descriptor, Descriptor, Descriptor, Descriptor];

const convert = (settings: Settings, to: Descriptor, classes: ClassOverrides = {}): PresetConversion =>
  convertPreset({ settings, classes, about: { title: 'T' }, language: 'etagere@1', unknown: {} }, to);
/** An editor that can only do what these entries say. */
const limited = (entries: object[]): Descriptor =>
  parseDescriptor({ ...oxbow2, title: 'Lantern', presets: { ...oxbow2.presets, mapping: { ignore: ['.'], entries } } });

describe('a preset in another language', () => {
  test.each(descriptors.flatMap((from) => descriptors.map((to) => [from.title, to.title, from, to] as const)))(
    '%s to %s: every setting is carried, approximated with a figure or left with a reason, once',
    (_from, _to, from, to) => {
      const random = seeded(11);
      for (let i = 0; i < 3; i++) {
        const source = convert(settingsAtRandom(random), from);
        const { settings, classes } = source.written.read;
        const made = convertPreset({ settings, classes, about: {}, language: editorKey(from), unknown: {} }, to);
        const told = [
          ...made.carried,
          ...made.approximated.map((one) => one.setting),
          ...made.left.map((one) => one.setting),
        ];
        expect(told.sort()).toEqual(Object.keys(settings).sort());
        for (const setting of made.carried) expect(made.written.read.settings[setting]).toEqual(settings[setting]);
        expect(made.left.every(({ reason }) => reason.length > 10)).toBe(true);
        const both = residual(compile(split(settings).kept), compile(split(made.written.read.settings).kept));
        expect(made.rendering.maxDeltaE).toBe(both.maxDeltaE);
        // what is carried whole is the same picture
        if (!made.approximated.length && !made.left.length) expect(both.maxDeltaE).toBeLessThan(1e-6);
      }
    },
  );
  test('the file is the other editor’s, and nothing of it is left unknown there', () => {
    const bytes = new TextEncoder().encode(
      oxbowPreset('<rdf:li run:step="lamp" run:stops="0.5" run:odd="1"/><rdf:li run:step="rescue" run:pale="-0.4"/>', {
        title: 'Wardrobe Check',
        headings: ['Autumn'],
      }),
    );
    const { read, title } = readPreset('x', bytes, descriptors);
    const about = { title, headings: read.headings };
    const made = convertPreset({ ...read, about, language: 'oxbow@2', bytes }, marlstone);
    const again = readPreset('x', made.written.bytes, descriptors);
    expect(again.format).toBe('marlstone@4');
    expect(again.title).toBe('Wardrobe Check');
    expect(again.headings).toEqual(['Autumn']);
    expect(made.left).toEqual([
      { setting: 'highlightRecovery', reason: 'Marlstone 4 has no such setting' },
      { setting: 'lamp.odd', reason: 'is in no mapping, and stays in the preset that was converted' },
    ]);
  });
  test('an older language becomes the newer one of the same editor, exactly', () => {
    const settings = { level: 0.5, contrast: 1.2, tintDark: { hue: 40, amount: 0.03 }, haze: 12 };
    const made = convertPreset(
      { settings, classes: { haze: { class: 'local' } }, about: {}, language: 'marlstone@3', unknown: {} },
      marlstone,
    );
    expect(made.carried.sort()).toEqual(Object.keys(settings).sort());
    expect(made.rendering.maxDeltaE).toBe(0);
  });
  test('a setting that the two editors do in different ways is no exact one', () => {
    const { approximated } = convert({ haze: 10 }, marlstone, { haze: { class: 'point' } });
    expect(approximated).toEqual([
      {
        setting: 'haze',
        figure: null,
        meanDeltaE: null,
        reason: expect.stringMatching(/^point here, local in Marlstone 4/) as string,
      },
    ]);
  });
  test('a value beyond what the editor takes is approximated, with how far off that is', () => {
    const [one] = convert({ level: 5.5 }, tessel).approximated;
    expect(one).toMatchObject({ setting: 'level', reason: 'Tessel 7 takes 5, the nearest that it has to 5.5' });
    expect(one!.figure).toBeGreaterThan(1);
  });
  test('an editor without a preset language is refused with what to do', () => {
    expect(() => convert({ level: 1 }, parseDescriptor(perrinAlder))).toThrow(/no preset language/);
  });
});

describe('what stands in for a setting', () => {
  test('tone that acts on channels alone becomes a curve that follows it', () => {
    const settings = { contrast: 1.3, toe: -20, shoulder: 15, blackPoint: 0.02 };
    const curveOnly = limited([{ step: 'line', attribute: 'through', to: 'curve', as: 'points' }]);
    const { approximated, written, rendering } = convert(settings, curveOnly);
    expect(approximated.map(({ setting }) => setting).sort()).toEqual(Object.keys(settings).sort());
    expect(Object.keys(written.read.settings)).toEqual(['curve']);
    expect(rendering.maxDeltaE).toBeLessThan(0.5);
    expect(approximated[0]!.figure).toBe(rendering.maxDeltaE);
  });
  test('what differs by channel becomes a curve for each, or is left where there is none', () => {
    const settings = { slope: [1.1, 1, 0.9], offset: [0.01, 0, -0.01] };
    const { approximated, written, rendering } = convert(settings, marlstone);
    expect(approximated.map(({ setting }) => setting).sort()).toEqual(['offset', 'slope']);
    expect(Object.keys(written.read.settings).sort()).toEqual(['curveBlue', 'curveGreen', 'curveRed']);
    expect(rendering.maxDeltaE).toBeLessThan(0.5);
    const one = limited([{ step: 'line', attribute: 'through', to: 'curve', as: 'points' }]);
    expect(
      convert(settings, one)
        .left.map(({ setting }) => setting)
        .sort(),
    ).toEqual(['offset', 'slope']);
  });
  test('all that follows what is folded is folded with it, so that the order stays', () => {
    const noToe = limited([
      { step: 'a', attribute: 'contrast', to: 'contrast' },
      { step: 'a', attribute: 'head', to: 'shoulder' },
      { step: 'line', attribute: 'through', to: 'curve', as: 'points' },
    ]);
    const { carried, approximated } = convert(
      {
        contrast: 1.2,
        toe: 30,
        shoulder: 20,
        curve: [
          [0, 0.1],
          [1, 0.9],
        ],
      },
      noToe,
    );
    expect(carried).toEqual(['contrast']);
    expect(approximated.map(({ setting }) => setting).sort()).toEqual(['curve', 'shoulder', 'toe']);
  });
  test('warmth becomes a matrix without any loss', () => {
    const matrixOnly = limited([{ step: 'a', attribute: 'm', to: 'matrix', as: 'numbers' }]);
    const { approximated, rendering } = convert({ warmth: 30, tintShift: -8 }, matrixOnly);
    expect(approximated.map(({ setting }) => setting)).toEqual(['warmth', 'tintShift']);
    expect(rendering.maxDeltaE).toBeLessThan(1e-4);
  });
  test('sectors that a language has elsewhere are fitted to its own; those that it has are the same', () => {
    const near = convert({ hueSectors: [{ center: 32, width: 90, turn: 6, chroma: 1.3, lightness: 0.01 }] }, marlstone);
    const [one] = near.approximated;
    expect(one!.reason).toMatch(/sectors at 20°, 75°, 170°, 255° alone/);
    const untouched = residual(compile({}), compile({ hueSectors: near.written.read.settings.hueSectors as never }));
    expect(one!.meanDeltaE!).toBeLessThan(0.5 * untouched.meanDeltaE);
    const same = convert({ hueSectors: [{ center: 75, width: 80, turn: 6, chroma: 1.3, lightness: 0.01 }] }, marlstone);
    expect(same.carried).toEqual(['hueSectors']);
  });
  test('gray is mixed by what sectors there are, or plainly, or by chroma', () => {
    const mix = { sectors: [{ center: 40, width: 100, lightness: 0.05 }] };
    expect(convert({ monochrome: mix }, marlstone).approximated[0]!.reason).toMatch(/mixes gray at 20°, 255° alone/);
    expect(convert({ monochrome: mix }, tessel).written.read.settings).toEqual({ monochrome: { sectors: [] } });
    const chroma = limited([{ step: 'a', attribute: 'c', to: 'chroma' }]);
    expect(convert({ monochrome: mix, chroma: 1.2 }, chroma).written.read.settings).toEqual({ chroma: 0 });
  });
  test('points follow any rising function closely, and stop when they are near', () => {
    const follow = (x: number) => x ** 2.2;
    const curve = monotoneCurve(pointsAlong(follow));
    for (let x = 0; x <= 1; x += 0.001) expect(Math.abs(curve(x) - follow(x))).toBeLessThan(0.0008);
    expect(pointsAlong((x) => x)).toHaveLength(5);
  });
});
