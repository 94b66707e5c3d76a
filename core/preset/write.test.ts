import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { parseDescriptor, type Descriptor } from '../editor/descriptor';
import { refusalOf as problem } from '../testing-refusal';
import { seeded } from '../random';
import { readPreset } from '../recognise';
import type { Settings } from './kinds';
import { oneWayEntries } from './mapping-check';
import { back, faultOfRule, through } from './number-rule';
import { marlstonePreset, oxbowPreset, settingsAtRandom } from './testing';
import { writePreset, type Language, type WrittenPreset } from './write';

const descriptors = [oxbow2, marlstone3, marlstone4, tessel7].map((one) => parseDescriptor(one));
const [oxbow, , marlstone, tessel] = descriptors as [Descriptor, Descriptor, Descriptor, Descriptor];
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const bytes = (content: string) => new TextEncoder().encode(content);

const write = (to: Descriptor, settings: Settings, original?: Uint8Array): WrittenPreset =>
  writePreset(
    to.presets as Language,
    settings,
    { title: 'Dawn & Dusk', headings: ['Night', 'Stage'] },
    to.title,
    original,
  );

describe('numbers both ways', () => {
  test.each([
    [{ scale: 0.01, offset: 1 }, 1.37],
    [{ scale: -0.3 }, 12.4],
    [{ scale: 1 / 255 }, 0.2],
    [{ scale: 0.01, log2: true }, 1.5],
    [{ exp2: true }, 1.62],
    [
      {
        table: [
          [-50, 0.6],
          [0, 1],
          [50, 1.7],
        ] as [number, number][],
      },
      1.35,
    ],
    [
      {
        table: [
          [0, 9],
          [10, 4],
          [20, 1],
        ] as [number, number][],
      },
      5.5,
    ],
  ])('%j gives %d again', (rule, value) => {
    expect(back(rule, value)!.reads).toBeCloseTo(value, 8);
    expect(through(rule, back(rule, value)!.property)).toBe(back(rule, value)!.reads);
  });
  test('is written as short as it is read the same', () => {
    expect(back({ scale: 0.00392156862745098 }, 0.2)!.property).toBe(51);
    expect(back({ scale: 0.01, offset: 1 }, 1.16)!.property).toBe(16);
  });
  test('is held to the range and to whole multiples, and says what it is read as then', () => {
    expect(back({ scale: 0.01, range: [-500, 500], multipleOf: 1 }, 6.2)).toEqual({ property: 500, reads: 5 });
    expect(back({ scale: 0.01, multipleOf: 5 }, 0.333)).toEqual({ property: 35, reads: 0.35 });
  });
  test('cannot be turned round where several values give the same', () => {
    expect(faultOfRule({ scale: 0 })).toMatch(/scale of 0/);
    expect(
      faultOfRule({
        table: [
          [0, 1],
          [1, 1],
        ],
      }),
    ).toMatch(/same value twice/);
    expect(
      faultOfRule({
        table: [
          [0, 1],
          [0, 2],
        ],
      }),
    ).toMatch(/do not rise/);
    expect(back({ exp2: true }, -1)).toBeNull();
  });
});

describe('presets written and read again', () => {
  test.each(descriptors.map((one) => [one.title, one] as const))(
    '%s: 200 presets say the same when they are written twice',
    (_title, to) => {
      const random = seeded(7);
      for (let i = 0; i < 200; i++) {
        const first = write(to, settingsAtRandom(random));
        const second = write(to, first.read.settings);
        expect(second.left).toEqual([]);
        expect(second.changed).toEqual([]);
        expect(second.read.settings).toEqual(first.read.settings);
        expect(text(second.bytes)).toBe(text(first.bytes));
      }
    },
  );
  test.each(descriptors.map((one) => [one.title, one] as const))(
    '%s: is known again, with title and headings',
    (_t, to) => {
      const { bytes: written } = write(to, { level: 0.5, chroma: 1.1 });
      const found = readPreset('x', written, descriptors);
      expect(found.format).toBe(`${to.editor}@${to.version}`);
      expect(found.title).toBe('Dawn & Dusk');
      expect(found.headings).toEqual(['Night', 'Stage']);
      expect(found.read.settings).toEqual({ level: 0.5, chroma: 1.1 });
      expect(found.read.unknown).toEqual({});
    },
  );
  test.each(descriptors.map((one) => [one.title, one] as const))(
    '%s: a title of line breaks, zeros, signs of markup and an emoji breaks no file',
    (_t, to) => {
      const title = 'Late\n[light]\namount=400\u0000 <b>"&\ud800 \u{1f3ad}';
      const made = writePreset(to.presets as Language, { level: 0.5 }, { title, headings: ['A/B > C'] }, to.title);
      expect(made.read.settings).toEqual({ level: 0.5 });
      expect(made.read.name).toBe('Late [light] amount=400\ufffd <b>"&\ufffd \u{1f3ad}');
      expect(made.read.headings).toHaveLength(1);
    },
  );
  test('what a language has no place for is left with the reason, and nothing else changes', () => {
    const { left, read } = write(marlstone, {
      matrix: [1, 0, 0, 0, 1, 0, 0, 0.1, 0.9],
      hueSectors: [{ center: 40, width: 60, turn: 4, chroma: 1, lightness: 0 }],
      level: 1,
    });
    expect(left.map(({ setting }) => setting)).toEqual(['matrix', 'hueSectors']);
    expect(left[0]!.reason).toBe('it has no such setting');
    expect(left[1]!.reason).toMatch(/center is always 20, not 40/);
    expect(read.settings).toEqual({ level: 1 });
  });
  test('a property that is held to a range or rounded is told with what it reads', () => {
    expect(write(tessel, { level: 6.4 }).changed).toEqual([{ setting: 'level', asked: 6.4, reads: 5 }]);
    expect(write(tessel, { level: 0.333 }).changed).toEqual([{ setting: 'level', asked: 0.333, reads: 0.33 }]);
  });
  test('monochrome is a step, a word, or what no editor mixes', () => {
    expect(write(oxbow, { monochrome: { sectors: [] } }).read.settings).toEqual({ monochrome: { sectors: [] } });
    expect(write(tessel, { monochrome: { sectors: [] } }).read.settings).toEqual({ monochrome: { sectors: [] } });
    const mix = { sectors: [{ center: 20, width: 110, lightness: 0.06 }] };
    expect(write(marlstone, { monochrome: mix }).read.settings).toEqual({ monochrome: mix });
    expect(write(tessel, { monochrome: mix }).left).toEqual([
      { setting: 'monochrome', reason: expect.stringMatching(/no word of ink/) as string },
    ]);
  });
});

describe('properties that no mapping knows', () => {
  test('ride along when the language stays the same, in XMP with what stands around them', () => {
    const original = bytes(
      oxbowPreset(
        '<rdf:li run:step="lamp" run:stops="0.5" run:odd="kept"/>\n<rdf:li run:step="stranger" run:x="1"/>\n<rdf:li run:step="dye" run:rich="4"/>',
      ),
    );
    const { bytes: written, read } = write(oxbow, { level: 1 }, original);
    expect(read.settings).toEqual({ level: 1 });
    expect(read.unknown).toEqual({ 'lamp.odd': 'kept', 'stranger.x': '1' });
    expect(text(written)).not.toContain('dye');
    expect(text(written)).toContain('run:stops="1"');
  });
  test('and in INI, with its comments', () => {
    const original = bytes(marlstonePreset('; by hand\n[light]\namount=141\nodd=3\n\n[room]\nwall=red'));
    const { bytes: written, read } = write(descriptors[1]!, { chroma: 1.2 }, original);
    expect(read.unknown).toEqual({ 'light.odd': '3', 'room.wall': 'red' });
    expect(read.settings).toEqual({ chroma: 1.2 });
    expect(text(written)).toContain('; by hand');
    expect(text(written)).toContain('; Marlstone preset');
  });
});

/** A language that no stand-in speaks, as a studio may describe one. */
const described = (presets: object): Language => parseDescriptor({ ...oxbow2, presets }).presets as Language;

describe('languages that a studio describes', () => {
  test('keys without sections, words, sums and signs', () => {
    const language = described({
      container: 'ini',
      recognise: { section: '.', key: 'program', value: 'lantern' },
      template: '# lantern\nprogram = lantern\ncalled =\n',
      mapping: {
        title: { step: '.', attribute: 'called' },
        entries: [
          {
            step: '.',
            to: 'level',
            sum: [
              { attribute: 'stops', multipleOf: 1 },
              { attribute: 'thirds', scale: 1 / 3 },
            ],
          },
          { step: '.', when: { side: 'warm' }, attribute: 'heat', to: 'warmth', range: [0, 80] },
          { step: '.', when: { side: 'cool' }, attribute: 'heat', to: 'warmth', scale: -1, range: [0, 80] },
          { step: '.', attribute: 'film', to: 'monochrome', names: { color: null, gray: { sectors: [] } } },
          {
            step: '.',
            attribute: 'gamma',
            to: 'contrast',
            table: [
              [0, 2],
              [10, 1],
              [20, 0.5],
            ],
          },
        ],
        ignore: ['.'],
      },
    });
    const settings = { level: -1.666666667, warmth: -24, monochrome: { sectors: [] }, contrast: 1.3 };
    const { bytes: written, read, left, changed } = writePreset(language, settings, { title: 'Dusk' }, 'Lantern');
    expect(left).toEqual([]);
    expect(changed).toEqual([]);
    expect(read.name).toBe('Dusk');
    expect(text(written)).toBe(
      '# lantern\nprogram = lantern\ncalled = Dusk\nside = cool\nheat = 24\nstops = -1\nthirds = -2\ngamma = 7\nfilm = gray\n',
    );
  });
  test('XMP with properties on the packet, structures, lists and alternatives by language', () => {
    const uri = 'https://lantern.example/ns/1/';
    const language = described({
      container: 'xmp',
      form: { properties: 'elements', namespace: uri },
      recognise: { namespace: uri },
      template: `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:la="${uri}"><la:Tone rdf:parseType="Resource"/></rdf:Description></rdf:RDF>`,
      mapping: {
        entries: [
          { step: '.', attribute: 'Light', to: 'level' },
          { step: 'Tone', attribute: 'Spread', to: 'contrast' },
          {
            step: '.',
            attribute: 'Line',
            to: 'curve',
            as: 'points',
            separators: { point: '\n', pair: ', ' },
            scale: 1 / 255,
          },
        ],
      },
    });
    const settings = {
      level: 0.5,
      contrast: 1.2,
      curve: [
        [0, 0],
        [0.2, 0.4],
        [1, 1],
      ],
    };
    const { bytes: written, read } = writePreset(
      language,
      settings,
      { title: 'Dusk', headings: ['A', 'B'] },
      'Lantern',
    );
    expect(read.settings).toEqual(settings);
    expect(read.name).toBe('Dusk');
    expect(read.headings).toEqual(['A', 'B']);
    expect(text(written)).toContain('<la:Light>0.5</la:Light>');
    expect(text(written)).toContain('<rdf:li>51, 102</rdf:li>');
    expect(text(written)).toContain('<la:Spread>1.2</la:Spread>');
  });
  test('XML whose elements hold the values, at any depth', () => {
    const language = described({
      container: 'xml',
      recognise: { section: 'lantern' },
      template: '<?xml version="1.0"?>\n<lantern><tone/></lantern>',
      mapping: {
        title: { step: 'called', attribute: 'text()' },
        entries: [
          { step: 'light', attribute: 'text()', to: 'level' },
          { step: 'tone/spread', attribute: 'text()', to: 'contrast' },
          { step: 'tone/spread', attribute: 'about', to: 'contrastPivot' },
        ],
      },
    });
    const settings = { level: 0.5, contrast: 1.2, contrastPivot: 0.2 };
    const { bytes: written, read } = writePreset(language, settings, { title: 'Dusk' }, 'Lantern');
    expect(read.settings).toEqual(settings);
    expect(read.name).toBe('Dusk');
    expect(text(written)).toContain('<spread about="0.2">1.2</spread>');
  });
  test('values that change nothing are written where a language always has them', () => {
    const language = described({
      container: 'json',
      recognise: { section: '.', key: 'lantern', value: '1' },
      template: '{ "lantern": 1 }',
      mapping: {
        defaults: 'written',
        ignore: ['.'],
        entries: [{ step: 'a', attribute: 'b', to: 'contrast', scale: 0.01, offset: 1 }],
      },
    });
    expect(JSON.parse(text(writePreset(language, {}, {}, 'Lantern').bytes))).toEqual({ lantern: 1, a: { b: 0 } });
  });
});

describe('bad descriptions', () => {
  const withEntries = (entries: object[]) => ({ ...oxbow2, presets: { ...oxbow2.presets, mapping: { entries } } });
  test('an unknown setting, and an entry that says nowhere, are refused at their place', () => {
    const unknown = problem(() => parseDescriptor(withEntries([{ step: 'lamp', attribute: 'x', to: 'sparkle' }])));
    expect(unknown.message).toMatch(/sparkle/);
    expect(unknown.where).toMatch(/entry 1 \(lamp\.x\)/);
    expect(problem(() => parseDescriptor(withEntries([{ step: 'lamp', to: 'level' }]))).message).toMatch(
      /must say one of/,
    );
  });
  test('an entry that cannot be turned round is read, told, and never written', () => {
    const language = parseDescriptor(
      withEntries([
        {
          step: 'lamp',
          attribute: 'x',
          to: 'level',
          table: [
            [0, 1],
            [1, 1],
          ],
        },
      ]),
    ).presets as Language;
    expect(oneWayEntries(language.mapping)).toEqual([
      {
        where: 'entry 1 (lamp.x)',
        message: expect.stringMatching(/cannot be turned round; it is read, but never written/) as string,
      },
    ]);
    expect(writePreset(language, { level: 1 }, {}, 'Oxbow').left).toEqual([
      { setting: 'level', reason: expect.stringMatching(/cannot be turned round/) as string },
    ]);
  });
  test('no template, or one that is no container or no empty preset, is told with its place', () => {
    const language = oxbow2.presets as unknown as Language;
    expect(problem(() => writePreset({ ...language, template: undefined }, {}, {}, 'Oxbow'))).toMatchObject({
      code: 'preset-template',
      where: 'presets.template',
    });
    expect(problem(() => writePreset({ ...language, template: '<a>' }, {}, {}, 'Oxbow')).code).toBe('xml-malformed');
    expect(problem(() => writePreset({ ...language, template: '<a/>' }, { level: 1 }, {}, 'Oxbow')).code).toBe(
      'preset-template',
    );
    const full = { ...language, template: oxbowPreset('<rdf:li run:step="dye" run:rich="9"/>') };
    expect(problem(() => writePreset(full, { level: 1 }, {}, 'Oxbow')).code).toBe('preset-write-check');
  });
});
