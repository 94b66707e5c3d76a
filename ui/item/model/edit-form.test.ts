import { describe, expect, test } from 'vitest';
import type { EditableItem } from '@/core/item/fields';
import { changedSince, formOf, itemOf, seenWith, valueWords } from './edit-form';

const item: EditableItem = {
  title: 'Ward Linen',
  short_title: '',
  sort_title: '',
  position: 3,
  headings: ['Kiln', 'Blue'],
  tags: ['costume', 'tungsten'],
  description: '',
  intention: '',
  cameras: [],
  scope: { input: 'camera data', result: null },
  lenses: [],
  origin: 'house',
  licence_id: null,
  supplier: '',
  source: {},
  creator: '',
  rights: '',
  web_statement: '',
  contact: '',
  strength_least: 0,
  strength_usual: 100,
  strength_most: 150,
  notes: '',
};
const seen = { revision: 4, base: { ...item } };
const nothing: ReadonlySet<string> = new Set();

describe('an item while it is edited', () => {
  test('is the same when nothing was typed', () => {
    expect(itemOf(formOf(item))).toEqual(item);
    expect(changedSince(itemOf(formOf(item)), seen, [], nothing)).toEqual({});
  });

  test('lists are typed as text', () => {
    const form = { ...formOf(item), headings: 'Kiln /  Green / ', tags: 'costume,, lamp' };
    expect(changedSince(itemOf(form), seen, [], nothing)).toEqual({
      headings: ['Kiln', 'Green'],
      tags: ['costume', 'lamp'],
    });
  });

  test('a choice of “any” or “none noted” is nothing', () => {
    const form = { ...formOf(item), licence_id: '', scope: { input: '', result: 'color' } };
    expect(itemOf(form)).toMatchObject({ licence_id: null, scope: { input: null, result: 'color' } });
  });
});

describe('when another person changed it meanwhile', () => {
  const conflicts = [{ field: 'title', base: 'Ward Linen', mine: 'Ward Linen II', theirs: 'Linen, ward' }];
  const mine = { ...item, title: 'Ward Linen II', notes: 'for the museum' };
  const now = seenWith(seen, 5, conflicts);

  test('both are seen, and one’s own is sent where it is kept', () => {
    expect(now).toMatchObject({ revision: 5, base: { title: 'Linen, ward', position: 3 } });
    expect(changedSince(mine, now, conflicts, nothing)).toEqual({ title: 'Ward Linen II', notes: 'for the museum' });
  });

  test('theirs is sent where that is chosen', () =>
    expect(changedSince(mine, now, conflicts, new Set(['title']))).toEqual({
      title: 'Linen, ward',
      notes: 'for the museum',
    }));
});

test('a value to choose is said in words', () => {
  expect(valueWords([])).toBe('nothing');
  expect(valueWords(['Kiln', 'Blue'])).toBe('Kiln / Blue');
  expect(valueWords({ input: null, result: null })).toBe('any');
  expect(valueWords({ input: 'camera data', result: null })).toBe('camera data');
});
