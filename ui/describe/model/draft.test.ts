import { describe, expect, test } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import {
  checked,
  cleaned,
  editorIdFrom,
  emptyDescriptor,
  fromText,
  isDrawable,
  sizeFrom,
  sizeWords,
  transferName,
  transferNamed,
  wayOf,
  withoutPlace,
  withPlace,
  withPlaceAt,
  withPlaceCalled,
  withTaking,
  withTakingAs,
} from './draft';

const oxbow = oxbow2 as unknown as Descriptor;

describe('a descriptor in the form', () => {
  test.each([oxbow2, marlstone4, tessel7] as unknown as Descriptor[])('comes out as it went in: $title', (known) => {
    expect(cleaned(known)).toEqual(known);
    expect(checked(known)).toMatchObject({ problem: null });
    expect(isDrawable(known)).toBe(true);
  });

  test('of a new editor is filled in, and is whole then', () => {
    expect(checked(emptyDescriptor()).problem?.code).toBe('descriptor-invalid');
    let draft: Descriptor = {
      ...emptyDescriptor(),
      title: 'Trestle 2',
      editor: editorIdFrom('Trestle 2'),
      version: '2',
    };
    draft = withPlace(draft);
    draft = withPlaceCalled(draft, 'place', 'looks');
    draft = withPlaceAt(draft, 'looks', { linux: ' {home}/Trestle/Looks ', macos: '' });
    draft = withTaking(draft);
    expect(draft.accepts[0]).toMatchObject({ kind: 'look', place: 'looks' });
    const { descriptor } = checked(draft);
    expect(descriptor).toMatchObject({ editor: 'trestle', places: { looks: { linux: '{home}/Trestle/Looks' } } });
    expect(must(descriptor).places.looks).not.toHaveProperty('macos');
  });

  test('says what is wrong with a path, and where', () => {
    const { problem } = checked(withPlaceAt(oxbow, 'looks', { linux: '{home}/../other' }));
    expect(problem).toMatchObject({ code: 'descriptor-invalid' });
    expect(problem?.message).toContain('looks');
  });

  test('keeps what goes into a place when that gets another name, and no two of one name', () => {
    const called = withPlaceCalled(oxbow, 'looks', 'tables');
    expect(called.accepts.filter(({ place }) => place === 'tables')).toHaveLength(1);
    expect(Object.keys(called.places)[0]).toBe('tables');
    expect(withPlaceCalled(oxbow, 'looks', 'presets')).toBe(oxbow);
    expect(Object.keys(withPlace(withPlace(emptyDescriptor())).places)).toEqual(['place', 'place-2']);
    expect(withoutPlace(oxbow, 'lenses').places).not.toHaveProperty('lenses');
  });

  test('loses lines that were left empty', () => {
    const [look] = oxbow.accepts;
    const draft = {
      ...withTakingAs(oxbow, 0, { ...must(look), import: ['Confirm it.', ' ', ''], formats: [''] }),
      cameras: ['Perrin Alder', ''],
    };
    expect(cleaned(draft).accepts[0]).toEqual({ ...must(look), import: ['Confirm it.'] });
    expect(cleaned(draft).cameras).toEqual(['Perrin Alder']);
  });
});

describe('what is typed', () => {
  test.each([
    ['33', { exact: 33 }],
    ['2 to 48', { min: 2, max: 48 }],
    ['2–65, best 33', { min: 2, max: 65, prefer: 33 }],
  ])('points %s', (text, rule) => {
    expect(sizeFrom(text)).toEqual(rule);
    expect(sizeFrom(sizeWords(rule))).toEqual(rule);
  });
  test('points that are none are told by the check, and not guessed', () => {
    expect(sizeFrom('many')).toEqual({});
    const [look] = oxbow.accepts;
    const table = { ...must(must(look).writer.table), size: sizeFrom('300') };
    expect(checked(withTakingAs(oxbow, 0, { ...must(look), writer: { table } })).problem).not.toBeNull();
  });
  test('a short name is made of letters', () => {
    expect(['Oxbow Table 2', '2 Trestles', 'Ünd 3.1', '***'].map(editorIdFrom)).toEqual([
      'oxbow-table',
      'trestles',
      'nd',
      '',
    ]);
  });
  test('a curve by its name', () => {
    for (const name of ['srgb', 'linear', 'log'] as const) expect(transferName(transferNamed(name))).toBe(name);
    expect([{ asIs: true }, { entry: { asIs: true as const } }].map(wayOf)).toEqual([
      'as it is',
      'by a form of its own',
    ]);
  });
  test('JSON that is none, or no object, is said to be so; what the form cannot draw stays JSON', () => {
    expect(fromText('{')).toHaveProperty('fault');
    expect(fromText('[]')).toHaveProperty('fault');
    const read = fromText('{"places": 3}');
    expect('draft' in read && isDrawable(read.draft)).toBe(false);
  });
});
