import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import { trestle } from '../testing/trestle';
import {
  checked,
  cleaned,
  editorIdFrom,
  emptyDescriptor,
  fromText,
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
import { isDrawable } from './drawable';

describe('a descriptor in the form', () => {
  test('comes out as it went in, with what the form does not draw', () => {
    expect(cleaned(trestle)).toEqual(trestle);
    expect(checked(trestle)).toMatchObject({ problem: null });
    expect(isDrawable(trestle)).toBe(true);
  });

  test('of a new editor is filled in, and is whole then', () => {
    expect(checked(emptyDescriptor()).problem?.code).toBe('descriptor-invalid');
    let draft: Descriptor = {
      ...emptyDescriptor(),
      title: 'Easel 2',
      editor: editorIdFrom('Easel 2'),
      version: '2',
    };
    draft = withPlace(draft);
    draft = withPlaceCalled(draft, 'place', 'looks');
    draft = withPlaceAt(draft, 'looks', { linux: ' {home}/Easel/Looks ', macos: '' });
    draft = withTaking(draft);
    expect(draft.accepts[0]).toMatchObject({ kind: 'look', place: 'looks' });
    const { descriptor } = checked(draft);
    expect(descriptor).toMatchObject({ editor: 'easel', places: { looks: { linux: '{home}/Easel/Looks' } } });
    expect(must(descriptor).places.looks).not.toHaveProperty('macos');
  });

  test('says what is wrong with a path, and where', () => {
    const { problem } = checked(withPlaceAt(trestle, 'looks', { linux: '{home}/../other' }));
    expect(problem).toMatchObject({ code: 'descriptor-invalid' });
    expect(problem?.message).toContain('looks');
  });

  test('keeps what goes into a place when that gets another name, and no two of one name', () => {
    const called = withPlaceCalled(trestle, 'looks', 'tables');
    expect(called.accepts.filter(({ place }) => place === 'tables')).toHaveLength(2);
    expect(Object.keys(called.places)[0]).toBe('tables');
    expect(withPlaceCalled(trestle, 'looks', 'presets')).toBe(trestle);
    expect(Object.keys(withPlace(withPlace(emptyDescriptor())).places)).toEqual(['place', 'place-2']);
    expect(withoutPlace(trestle, 'lenses').places).not.toHaveProperty('lenses');
  });

  test('loses lines that were left empty', () => {
    const [look] = trestle.accepts;
    const draft = {
      ...withTakingAs(trestle, 0, { ...must(look), import: ['Confirm it.', ' ', ''], formats: [''] }),
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
    const [look] = trestle.accepts;
    const table = { ...must(must(look).writer.table), size: sizeFrom('300') };
    expect(checked(withTakingAs(trestle, 0, { ...must(look), writer: { table } })).problem).not.toBeNull();
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

/** A JSON value with one of its leaves, or of its branches, replaced by another. */
function spoilt(value: unknown, at: number, by: unknown): unknown {
  let n = 0;
  const walk = (one: unknown): unknown => {
    if (n++ === at) return by;
    if (Array.isArray(one)) return one.map(walk);
    if (typeof one === 'object' && one !== null)
      return Object.fromEntries(Object.entries(one).map(([key, part]) => [key, walk(part)]));
    return one;
  };
  return walk(value);
}

test('whatever is typed as JSON is checked, and drawn only where it can be', () => {
  fc.assert(
    fc.property(
      fc.nat(120),
      fc.oneof(fc.jsonValue(), fc.constantFrom(-0.05, 4500, '\u0000', '😀', [null])),
      (at, by) => {
        const read = fromText(JSON.stringify(spoilt(trestle, at, by)) ?? '');
        if ('fault' in read) return;
        expect(() => checked(read.draft)).not.toThrow();
        if (isDrawable(read.draft)) expect(() => cleaned(read.draft)).not.toThrow();
      },
    ),
    { numRuns: 400 },
  );
});
