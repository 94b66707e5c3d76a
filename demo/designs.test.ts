import { describe, expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { inspect } from '@/core/look/inspect';
import { compile } from '@/core/preset/render';
import { readPreset } from '@/core/recognise';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { houseLooks, marlstonePresets, oxbowPresets } from './designs';
import { marlstoneOf, oxbowOf } from './files';

const descriptors = [oxbow2, marlstone3].map((one) => parseDescriptor(one));
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('the demo’s designs', () => {
  test('every preset of the demo is read in its own language, with nothing left unknown', () => {
    for (const oxbowPreset of oxbowPresets) {
      const recognised = readPreset('x.xmp', bytes(oxbowOf(oxbowPreset)), descriptors);
      expect([recognised.format, recognised.title, recognised.headings, recognised.read.unknown]).toEqual([
        'oxbow@2',
        oxbowPreset.title,
        oxbowPreset.headings,
        {},
      ]);
    }
    for (const marlstonePreset of marlstonePresets) {
      const recognised = readPreset('x', bytes(marlstoneOf(marlstonePreset)), descriptors);
      expect([recognised.format, recognised.title, recognised.read.unknown]).toEqual([
        'marlstone@3',
        marlstonePreset.title,
        {},
      ]);
      expect(recognised.headings.join('/')).toBe(marlstonePreset.drawer);
    }
  });
  test.each(houseLooks.map((design) => [design.title, design] as const))('the house look %s is not poor', (_, design) =>
    expect(inspect(compile(design.settings)).verdict).not.toBe('poor'),
  );
});
