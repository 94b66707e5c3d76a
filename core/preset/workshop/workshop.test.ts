import { describe, expect, it } from 'vitest';
import { parseDescriptor, type Descriptor } from '../../editor/descriptor';
import { readPreset } from '../../recognise/presets';
import { must } from '../../must';
import { checkSample } from './check';
import { entryFor, editorIdOf, meaningOf, newDescriptor, withMeaning } from './describe';
import { containerOf, emptyPresetOf, formOf, marksOf, readSamples, type Sample } from './samples';
import { suggestionsFor } from './suggest';
import { surveyOf, type Property } from './survey';
import { writePreset } from '../write';

const sample = (name: string, text: string): Sample => ({ name, bytes: new TextEncoder().encode(text) });

const plainText = [
  sample('dawn.hy', 'wrote=Halyard 1\nname=Dawn\nexposure=35\nshadows=-20\ncurve=0,0 96,110 255,255\nflavour=warm\n'),
  sample('dusk.hy', 'wrote=Halyard 1\nname=Dusk\nexposure=-50\nsaturation=130\nflavour=cool\n'),
];
const xml = [
  sample(
    'dawn.xml',
    '<rig made-by="Halyard"><tone exposure="0.5"/><line on="red" through="0:0;255:240"/><line on="blue" through="0:8;255:255"/></rig>',
  ),
  sample('dusk.xml', '<rig made-by="Halyard"><tone exposure="-0.25"/><line on="red" through="0:4;255:255"/></rig>'),
];

const survey = (samples: readonly Sample[]): Property[] => surveyOf(readSamples(samples).map(({ doc }) => doc));
const propertyIn = (samples: readonly Sample[], key: string): Property =>
  must(survey(samples).find((property) => property.key === key));

describe('a survey of samples', () => {
  it('tells type, range and use of every property', () => {
    expect(survey(plainText).map(({ key, type, samples }) => [key, type, samples])).toEqual([
      ['wrote', 'word', 2],
      ['name', 'word', 2],
      ['exposure', 'number', 2],
      ['shadows', 'number', 1],
      ['curve', 'points', 1],
      ['flavour', 'word', 2],
      ['saturation', 'number', 1],
    ]);
    expect(propertyIn(plainText, 'exposure')).toMatchObject({ low: -50, high: 35, whole: true });
    expect(propertyIn(plainText, 'curve')).toMatchObject({ separators: { point: ' ', pair: ',' }, high: 255 });
    expect(propertyIn(plainText, 'flavour').words).toEqual(['cool', 'warm']);
  });

  it('tells steps of one name apart by the word that differs', () => {
    expect(survey(xml).map(({ key, samples }) => [key, samples])).toEqual([
      ['rig.made-by', 2],
      ['tone.exposure', 2],
      ['line[on=red].through', 2],
      ['line[on=blue].through', 1],
    ]);
  });

  it('knows a list of numbers, and a text that is none of all', () => {
    const [list, long] = survey([sample('a.json', '{"gain":[1,1.1,0.9],"story":"' + 'long '.repeat(30) + '"}')]);
    expect(list).toMatchObject({ type: 'numbers', low: 0.9, high: 1.1 });
    expect(long).toMatchObject({ type: 'text', low: null });
  });
});

describe('samples', () => {
  it('are of one container, known by how they begin', () => {
    expect([containerOf(must(plainText[0]).bytes), containerOf(must(xml[0]).bytes)]).toEqual(['ini', 'xml']);
    expect(containerOf(new TextEncoder().encode(' {"a":1}'))).toBe('json');
    expect(() => readSamples([...plainText, ...xml])).toThrow(/they are not of one language/);
  });

  it('are marked by what they say alike, the version before all else', () => {
    const marks = (samples: readonly Sample[]) => marksOf(readSamples(samples).map(({ doc }) => doc));
    expect(marks(plainText)).toEqual([{ section: '.', key: 'wrote', value: 'Halyard 1' }]);
    expect(marks(xml)).toEqual([
      { section: 'rig', key: 'made-by', value: 'Halyard' },
      { section: 'line', key: 'on', value: 'red' },
      { section: 'rig' },
      { section: 'tone' },
      { section: 'line' },
    ]);
  });

  it('of XMP are marked by their namespace, and written into their sequence', () => {
    const packet = sample(
      'a.xmp',
      '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:h="https://halyard.example/1/"><h:rigging><rdf:Seq><rdf:li h:step="tone" h:exposure="1"/></rdf:Seq></h:rigging></rdf:Description></rdf:RDF>',
    );
    const [read] = readSamples([packet]);
    expect(marksOf([must(read).doc])[0]).toEqual({ namespace: 'https://halyard.example/1/' });
    expect(formOf(packet, 'xmp')).toEqual({ sequence: 'rigging', namespace: 'https://halyard.example/1/' });
  });
});

describe('suggestions', () => {
  const first = (samples: readonly Sample[], key: string) => suggestionsFor(propertyIn(samples, key))[0];

  it('come from the name, with the scale from the range', () => {
    expect(first(plainText, 'exposure')).toMatchObject({ to: 'level', rule: { scale: 0.05, multipleOf: 1 } });
    expect(first(xml, 'tone.exposure')).toMatchObject({ to: 'level', rule: { scale: 5 } });
    expect(first(plainText, 'curve')).toMatchObject({
      to: 'curve',
      rule: { as: 'points', separators: { point: ' ', pair: ',' } },
    });
    expect(first(plainText, 'curve')?.rule.scale).toBeCloseTo(1 / 255, 9);
    expect(first(xml, 'line[on=red].through')?.to).toBe('curveRed');
  });

  it('say nothing where neither name nor type fits', () => {
    expect(suggestionsFor(propertyIn(plainText, 'flavour'))).toEqual([]);
  });

  it('take numbers about a factor’s neutral value for the factor itself', () => {
    expect(first([sample('a.hy', 'saturation=1.2\n'), sample('b.hy', 'saturation=0.8\n')], 'saturation')).toEqual({
      to: 'chroma',
      rule: {},
      why: 'its name says “saturation”, 0.8 to 1.2 in the samples',
    });
  });
});

const said = {
  title: 'Halyard',
  version: '1',
  extension: '.hy',
  folders: { linux: '{home}/Halyard/Presets' },
  recognise: { section: '.', key: 'wrote', value: 'Halyard 1' },
};

/** Halyard with what a person maps of the plain samples. */
function described(): Descriptor {
  let descriptor = newDescriptor(said, 'ini', undefined);
  const set = (key: string, meaning: Parameters<typeof withMeaning>[2]) => {
    descriptor = withMeaning(descriptor, propertyIn(plainText, key), meaning);
  };
  set('name', { is: 'title' });
  for (const [key, to] of [
    ['exposure', 'level'],
    ['shadows', 'toe'],
    ['curve', 'curve'],
  ] as const) {
    const property = propertyIn(plainText, key);
    const { rule } = must(suggestionsFor(property).find((one) => one.to === to));
    set(key, { is: 'setting', entry: entryFor(property, to, rule) });
  }
  return descriptor;
}
const languageOf = (descriptor: Descriptor) => must(descriptor.presets);

describe('a descriptor from the workshop', () => {
  it('keeps the rules of descriptors, and reads the samples', () => {
    const descriptor = parseDescriptor(described());
    expect(editorIdOf('Halyard Pro 2')).toBe('halyard-pro-2');
    const { read } = readPreset('dawn.hy', must(plainText[0]).bytes, [descriptor]);
    expect(read).toMatchObject({
      name: 'Dawn',
      settings: { level: 1.75, toe: -20 },
      unknown: { wrote: 'Halyard 1', flavour: 'warm' },
    });
  });

  it('writes what it reads, into an empty preset that was made of a sample', () => {
    const descriptor = described();
    const language = languageOf(descriptor);
    const template = emptyPresetOf(must(plainText[0]), language, 'Halyard');
    expect(template).toContain('wrote=Halyard 1');
    expect(template).not.toContain('exposure');
    const checked = plainText.map((one) => checkSample({ ...language, template }, one, 'Halyard'));
    expect(checked.map(({ changed, left, problem }) => [changed, left, problem])).toEqual([
      [[], [], null],
      [[], [], null],
    ]);
    expect(checked.map(({ read }) => Object.keys(read?.unknown ?? {}))).toEqual([
      ['wrote', 'flavour'],
      ['wrote', 'saturation', 'flavour'],
    ]);
  });

  it('says what a property stands for, and forgets what it stood for before', () => {
    const exposure = propertyIn(plainText, 'exposure');
    const before = described();
    expect(meaningOf(before, exposure)).toMatchObject({ is: 'setting', entry: { to: 'level' } });
    const after = withMeaning(before, exposure, { is: 'setting', entry: entryFor(exposure, 'contrast', {}) });
    expect(languageOf(after).mapping.entries.map(({ to }) => to)).toEqual(['contrast', 'toe', 'curve']);
    expect(meaningOf(withMeaning(after, exposure, { is: 'unknown' }), exposure)).toEqual({ is: 'unknown' });
    expect(meaningOf(after, propertyIn(plainText, 'name'))).toEqual({ is: 'title' });
    expect(meaningOf(after, propertyIn(plainText, 'wrote'))).toEqual({ is: 'mark' });
  });

  it('tells of a sample that it cannot read, and of a mapping that cannot be turned round', () => {
    const language = languageOf(described());
    const [broken] = [sample('broken.hy', 'wrote=Halyard 1\nexposure=bright\n')].map((one) =>
      checkSample(language, one, 'Halyard'),
    );
    expect(broken).toMatchObject({ read: null, problem: { code: 'preset-number' } });
    const exposure = propertyIn(plainText, 'exposure');
    const flat = withMeaning(described(), exposure, {
      is: 'setting',
      entry: entryFor(exposure, 'level', {
        table: [
          [-100, 1],
          [100, 1],
        ],
      }),
    });
    const template = 'wrote=Halyard 1\n';
    const { left } = checkSample({ ...languageOf(flat), template }, must(plainText[0]), 'Halyard');
    expect(left[0]?.setting).toBe('level');
    expect(left[0]?.reason).toMatch(/cannot be turned round/);
  });

  it('keeps the other entries of a property when the one that is shown is changed', () => {
    const two = newDescriptor(said, 'ini', undefined);
    const exposure = propertyIn(plainText, 'exposure');
    const entries = [entryFor(exposure, 'level', {}), entryFor(exposure, 'contrast', {})];
    const both = { ...two, presets: { ...languageOf(two), mapping: { entries } } };
    const changed = withMeaning(both, exposure, { is: 'setting', entry: entryFor(exposure, 'level', { scale: 2 }) });
    expect(languageOf(changed).mapping.entries.map(({ to, scale }) => [to, scale])).toEqual([
      ['level', 2],
      ['contrast', undefined],
    ]);
    expect(meaningOf(withMeaning(both, exposure, { is: 'unknown' }), exposure)).toMatchObject({
      entry: { to: 'contrast' },
    });
  });
});

describe('steps that a mapping tells apart already', () => {
  it('are told apart in a survey too, where no sample shows two of them', () => {
    const samples = [
      sample('a.xml', '<rig><line on="red" through="0:0;255:240"/></rig>'),
      sample('b.xml', '<rig><line on="blue" through="0:8;255:255"/></rig>'),
    ];
    const docs = readSamples(samples).map(({ doc }) => doc);
    const entries = ['red', 'blue'].map((on) => ({ step: 'line', when: { on }, attribute: 'through', to: 'curve' }));
    expect(surveyOf(docs).map(({ key }) => key)).toEqual(['line.on', 'line.through']);
    expect(surveyOf(docs, entries).map(({ key }) => key)).toEqual(['line[on=red].through', 'line[on=blue].through']);
  });

  it('and lists of any length have a lowest and a highest number', () => {
    const long = Array.from({ length: 200_000 }, (_, n) => n).join(' ');
    expect(propertyIn([sample('a.ini', `row=${long}\n`)], 'row')).toMatchObject({ low: 0, high: 199_999 });
  });
});

describe('a packet of another kind', () => {
  const packet = (title: string, steps: string) =>
    sample(
      `${title}.xmp`,
      `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:other="https://other.example/" xmlns:h="https://halyard.example/1/" other:seen="yes">
        <dc:creator><rdf:Seq><rdf:li>Odile Wren</rdf:li></rdf:Seq></dc:creator>
        <h:rigging><rdf:Seq>${steps}</rdf:Seq></h:rigging>
      </rdf:Description></rdf:RDF>`,
    );
  const step = (name: string, value: number) =>
    `<rdf:li rdf:parseType="Resource"><h:op>${name}</h:op><h:amount>${value}</h:amount></rdf:li>`;
  const samples = [packet('one', step('exposure', 0.5) + step('grain', 20)), packet('two', step('exposure', -1))];

  it('is read by what it shows: its sequence, the property that names its steps, and elements', () => {
    expect(formOf(must(samples[0]), 'xmp')).toEqual({
      sequence: 'rigging',
      step: 'op',
      properties: 'elements',
      namespace: 'https://halyard.example/1/',
    });
    expect(survey(samples).map(({ key }) => key)).toContain('exposure.amount');
  });

  it('is written as it was: into its own sequence, under its own names', () => {
    const form = formOf(must(samples[0]), 'xmp');
    const recognise = { namespace: 'https://halyard.example/1/' };
    const exposure = propertyIn(samples, 'exposure.amount');
    const meaning = { is: 'setting' as const, entry: entryFor(exposure, 'level', {}) };
    const descriptor = withMeaning(newDescriptor({ ...said, recognise }, 'xmp', form), exposure, meaning);
    const template = emptyPresetOf(must(samples[1]), languageOf(descriptor), 'Halyard');
    const language = { ...languageOf(descriptor), template };
    const checked = checkSample(language, must(samples[0]), 'Halyard');
    expect(checked).toMatchObject({ read: { settings: { level: 0.5 } }, changed: [], left: [], problem: null });
    const { bytes } = writePreset(language, { level: 2 }, {}, 'Halyard');
    const text = new TextDecoder().decode(bytes);
    expect(text).toMatch(/<h:op>exposure<\/h:op>\s*<h:amount>2<\/h:amount>/);
    expect(text).toContain('<rdf:li>Odile Wren</rdf:li>');
  });
});
