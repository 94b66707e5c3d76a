import { describe, expect, test } from 'vitest';
import { tolerance } from '../../look/fingerprint';
import { EarlierEntries } from './earlier';
import { HeldIndex } from './held-index';
import { rules } from './rules';
import { titleRules } from './title-rules';
import { nothing, type Distance, type Held, type Incoming } from './types';

const print = (value: number) => new Int16Array(192).fill(value);
/** Fingerprints of one value, this far apart in ΔE00. */
const distance = (one: Int16Array, other: Int16Array): Distance => {
  const apart = Math.abs((one[0] ?? 0) - (other[0] ?? 0)) / 100;
  return { mean: apart, p95: apart, max: apart };
};

const common = {
  kind: 'look',
  format: 'cube',
  headings: [] as string[],
  content: null,
  internalId: '',
  fingerprint: null,
  outside: '',
  settings: null,
};
const incoming = (more: Partial<Incoming> = {}): Incoming => ({
  ...common,
  id: 1,
  path: 'Ash.cube',
  title: 'Ash',
  sha: 'new',
  ...more,
});
const held = (more: Partial<Held> = {}): Held => ({
  ...common,
  itemId: 'item',
  versionId: 'version',
  title: 'Umber',
  aliases: [],
  fileName: 'umber.cube',
  sha: 'held',
  variant: '',
  newest: true,
  ...more,
});
const preset = { kind: 'preset', format: 'marlstone@4' };
const settings = Object.fromEntries(['a', 'b', 'c', 'd', 'e', 'f'].map((key) => [key, 1])) as never;

/** The rule that decides, and what it proposes. */
function found(file: Incoming, holds: Held[] = [], before: Incoming[] = []) {
  const earlier = new EarlierEntries([...before, file], tolerance);
  for (const one of before) earlier.add(one, nothing);
  const context = { held: new HeldIndex(holds), earlier, distance, tolerance };
  for (const rule of rules) {
    const proposal = rule.find(file, context);
    if (proposal) return { rule: rule.id, proposal };
  }
  return null;
}
function decided(...given: Parameters<typeof found>) {
  const one = found(...given);
  return one && { rule: one.rule, outcome: one.proposal.outcome };
}

describe('by what a file is told', () => {
  test.each<[string, string, Incoming, Held[], Incoming[]]>([
    ['the same bytes as something held', 'duplicate', incoming({ sha: 'x' }), [held({ sha: 'x' })], []],
    [
      'the same bytes as another file of the arrival',
      'duplicate',
      incoming({ sha: 'x' }),
      [],
      [incoming({ id: 2, sha: 'x', path: 'b.cube', title: 'Other' })],
    ],
    ['the same content as something held', 'duplicate', incoming({ content: 'c' }), [held({ content: 'c' })], []],
    [
      'the same content as something held',
      'variant',
      incoming({ ...preset, content: 'c' }),
      [held({ kind: 'preset', format: 'oxbow@2', content: 'c' })],
      [],
    ],
    [
      'the same content as another file of the arrival',
      'duplicate',
      incoming({ content: 'c' }),
      [],
      [incoming({ id: 2, sha: 'y', path: 'b.clf', title: 'Other', content: 'c' })],
    ],
    ['the same identity inside', 'version', incoming({ internalId: 'i' }), [held({ internalId: 'i' })], []],
    ['the same title as something held', 'version', incoming(), [held({ title: 'Ash' })], []],
    ['the same title as something held', 'version', incoming(), [held({ aliases: ['ash'] })], []],
    ['the same file name, under another title', 'version', incoming({ path: 'x/Umber.cube' }), [held()], []],
    [
      'the same effect as something held',
      'duplicate',
      incoming({ fingerprint: print(0) }),
      [held({ fingerprint: print(0) })],
      [],
    ],
    [
      'most of its settings are the same, under a like name',
      'version',
      incoming({ ...preset, title: 'Kiln Dusk warm', settings }),
      [held({ ...preset, title: 'Kiln Dusk cool', settings })],
      [],
    ],
    [
      'the same design as another file of the arrival',
      'variant',
      incoming({ title: 'Ash (JPEG)', path: 'Ash (JPEG).cube' }),
      [],
      [incoming({ id: 2, sha: 'y' })],
    ],
    [
      'the same effect as another file of the arrival',
      'duplicate',
      incoming({ fingerprint: print(0) }),
      [],
      [incoming({ id: 2, sha: 'y', path: 'b.cube', title: 'Other', fingerprint: print(0) })],
    ],
  ])('%s: %s', (rule, outcome, file, holds, before) => expect(decided(file, holds, before)).toEqual({ rule, outcome }));

  test('what is like nothing is new', () =>
    expect(decided(incoming(), [held()], [incoming({ id: 2, sha: 'y', path: 'b.cube', title: 'Other' })])).toBeNull());

  test('rules bear names of their own', () => {
    const names = [...rules, ...titleRules].map((rule) => rule.id);
    expect(new Set(names).size).toBe(names.length);
  });
});

describe('what bears the title of something held', () => {
  const umber = (more: Partial<Held> = {}) => held({ title: 'Ash', ...more });

  test('is a variant where its name says what it is for', () =>
    expect(decided(incoming({ title: 'Ash (JPEG)' }), [umber()])?.outcome).toBe('variant'));

  test('is a variant in the language of another edition, and nothing to other editors', () => {
    const file = incoming({ ...preset });
    expect(decided(file, [umber({ kind: 'preset', format: 'marlstone@3' })])?.outcome).toBe('variant');
    expect(decided(file, [umber({ kind: 'preset', format: 'oxbow@2' })])).toBeNull();
  });

  test('is a copy where it does the same, a version where it does something kindred', () => {
    const file = incoming({ fingerprint: print(0) });
    expect(decided(file, [umber({ fingerprint: print(20) })])?.outcome).toBe('duplicate');
    expect(decided(file, [umber({ fingerprint: print(500) })])?.outcome).toBe('version');
  });

  test('is no version where it does something quite different, but under the same headings', () => {
    const file = incoming({ fingerprint: print(0), path: 'Kiln/Ash.cube' });
    const other = umber({ fingerprint: print(3000), fileName: 'other.cube' });
    expect(decided(file, [other])).toBeNull();
    expect(decided(file, [{ ...other, headings: ['Kiln'] }])?.outcome).toBe('version');
  });
});

describe('what continues an item that is held in several forms', () => {
  const XMP = 'in the language of marlstone 4';
  const JPEG = 'for rendered files';
  const plain = held({ kind: 'preset', format: 'marlstone@3', title: 'Ash', sha: 'plain', internalId: 'i' });
  const newer = { ...plain, format: 'marlstone@4', versionId: 'newer', sha: 'newer', variant: XMP };
  const rendered = { ...plain, versionId: 'rendered', sha: 'rendered', variant: JPEG, fileName: 'ash jpeg.ini' };
  const forms = [newer, rendered, plain];
  const told = (more: Partial<Incoming>, holds: Held[] = forms) => {
    const proposal = found(incoming({ ...preset, ...more }), holds)?.proposal;
    return [proposal?.outcome, proposal?.likeness?.mark, proposal?.versionId];
  };

  test('by its identity is the next of the form in its language, and never takes the place of the plain one', () => {
    expect(told({ internalId: 'i' })).toEqual(['variant', XMP, 'version']);
    expect(told({ internalId: 'i', format: 'marlstone@3' })).toEqual(['version', undefined, 'version']);
  });

  test('is a variant in another language too where there is none yet', () =>
    expect(told({ internalId: 'i' }, [plain])).toEqual(['variant', XMP, 'version']));

  test('by its mark is the next of the form of that mark', () =>
    expect(told({ internalId: 'i', format: 'marlstone@3', title: 'Ash (JPEG)' })).toEqual([
      'variant',
      JPEG,
      'rendered',
    ]));

  test('by its title is a version of the plain form where its name says nothing', () =>
    expect(told({ format: 'marlstone@3' })).toEqual(['version', undefined, 'version']));

  test('by its title and its mark is the next of that form', () =>
    expect(told({ format: 'marlstone@3', title: 'Ash (JPEG)' })).toEqual(['variant', JPEG, 'rendered']));

  test('by its file name is the next of the form that bears it', () =>
    expect(told({ format: 'marlstone@3', title: 'Soot', path: 'Ash JPEG.ini' })).toEqual([
      'variant',
      JPEG,
      'rendered',
    ]));

  test('with the effect of a form is a copy of that one', () => {
    const printed = forms.map((form) => ({ ...form, fingerprint: print(form.variant === JPEG ? 0 : 500) }));
    const file = { format: 'marlstone@3', title: 'Ash (JPEG)', fingerprint: print(0) };
    expect(told(file, printed)).toEqual(['duplicate', undefined, 'rendered']);
  });
});
