/** Presets in every language, developed by the stand-in editors' own mathematics: they share no code with the core. */
import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { adjust, type Adjustments } from '@/standins/editors/adjust';
import type { Color } from '@/standins/editors/color';
import { presetIn } from '@/standins/editors/marlstone/steps';
import { runIn } from '@/standins/editors/oxbow/run';
import { adjustmentsIn, type Entry } from '@/standins/editors/tessel/shards';
import { parseDescriptor } from '../editor/descriptor';
import { seeded } from '../random';
import { readPreset } from '../recognise';
import type { Settings } from './kinds';
import { compile } from './render';
import { settingsAtRandom } from './testing';
import { writePreset, type Language } from './write';

const languages = {
  'Marlstone 3': [marlstone3, (text: string) => presetIn(text, 3).adjustments],
  'Marlstone 4': [marlstone4, (text: string) => presetIn(text, 4).adjustments],
  'Oxbow 2': [oxbow2, (text: string) => runIn(text).adjustments],
  'Tessel 7': [tessel7, (text: string) => adjustmentsIn(JSON.parse(text) as Entry)],
} satisfies Record<string, [unknown, (text: string) => Adjustments]>;
type Name = keyof typeof languages;
const names = Object.keys(languages) as Name[];

/** What a preset in a language of an editor says in our settings, and in the editor's. */
function bothOf(name: Name, settings: Settings): { ours: Settings; theirs: Adjustments } {
  const [descriptor, read] = languages[name];
  const { presets, title } = parseDescriptor(descriptor);
  const { bytes } = writePreset(presets as Language, settings, { title: 'Dusk', headings: [] }, title);
  const ours = readPreset('a preset', bytes, [parseDescriptor(descriptor)]).facts.settings as Settings;
  return { ours, theirs: read(new TextDecoder().decode(bytes)) };
}

/** A hundredth of a step of eight bits. */
const NEAR = 4e-5;

/** The largest difference in code values over colors on a grid, with some that lie beyond its ends. */
function farthest(ours: Settings, theirs: Adjustments): number {
  const evaluate = compile(ours);
  const develop = adjust(theirs);
  const grid = [-0.05, 0, 0.02, 0.2, 0.45, 0.7, 1, 1.05];
  let most = 0;
  for (const r of grid)
    for (const g of grid)
      for (const b of grid) {
        const mine = new Float64Array(3);
        evaluate(r, g, b, mine, 0);
        const other: Color = [r, g, b];
        develop(other);
        for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(mine[c]! - other[c]!));
      }
  return most;
}

describe.each(names)('presets of %s', (name) => {
  test('come to the same colors by our mathematics and by the editor’s', () => {
    const random = seeded(2026);
    const used = new Set<string>();
    for (let n = 0; n < 60; n++) {
      const { ours, theirs } = bothOf(name, settingsAtRandom(random));
      Object.keys(ours).forEach((id) => used.add(id));
      expect(farthest(ours, theirs), JSON.stringify(ours)).toBeLessThan(NEAR);
    }
    expect(used.size).toBeGreaterThan(14);
  });

  test('lose their color by hue in both', () => {
    const plates: Settings[] = [
      { monochrome: { sectors: [] } },
      { monochrome: { sectors: [{ center: 20, width: 110, lightness: 0.12 }] } },
    ];
    for (const settings of plates) {
      const { ours, theirs } = bothOf(name, { ...settings, contrast: 1.2 });
      // Tessel knows no weights by hue
      expect(!!ours.monochrome).toBe(name !== 'Tessel 7' || settings === plates[0]);
      expect(farthest(ours, theirs)).toBeLessThan(NEAR);
    }
  });

  test('one setting more shows', () => {
    const { ours, theirs } = bothOf(name, { level: 0.4 });
    expect(farthest({ ...ours, chroma: 1.1 }, theirs)).toBeGreaterThan(0.01);
  });
});
