import { describe, expect, test } from 'vitest';
import { editableOf, fieldWord, itemChangeSchema, itemFieldNames, itemFields, type EditableItem } from './fields';

const check = (change: Record<string, unknown>): unknown =>
  itemChangeSchema.validateSync(change, { abortEarly: false });
const refusal = (change: Record<string, unknown>): string[] => {
  try {
    check(change);
    return [];
  } catch (error) {
    return (error as { errors: string[] }).errors;
  }
};

describe('what can be said of an item', () => {
  test.each([
    [{ title: '  ' }],
    [{ title: 'x'.repeat(201) }],
    [{ headings: ['a', 'b', 'c', 'd', 'e'] }],
    [{ tags: ['x'.repeat(61)] }],
    [{ position: -1 }],
    [{ position: 1.5 }],
    [{ strength_most: 401 }],
    [{ origin: 'found' }],
    [{ licence_id: 'the usual one' }],
    [{ scope: { input: 'film' } }],
  ])('%j is refused', (change) => expect(refusal(change)).not.toEqual([]));

  test('an item needs a title, and says so', () => expect(refusal({ title: '' })).toContain('An item needs a title.'));

  test('what is left open is allowed', () =>
    expect(refusal({ licence_id: null, scope: { input: null, result: 'monochrome' }, tags: [] })).toEqual([]));

  test('what is no field is left out', () => expect(check({ status: 'approved' })).toEqual({}));

  test('each field has a word of its own', () => {
    const words = itemFieldNames.map((name) => itemFields[name].word);
    expect(new Set(words).size).toBe(words.length);
    expect(fieldWord('web_statement')).toBe('web statement');
    expect(fieldWord('archived_at')).toBe('archived at');
  });

  test('of a row, only what can be said of an item is taken', () => {
    const row = { title: 'Ward Linen', id: 'x', revision: 4 } as unknown as EditableItem;
    expect(Object.keys(editableOf(row))).toEqual(itemFieldNames);
    expect(editableOf(row).title).toBe('Ward Linen');
  });
});
