import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mergeLists } from './ordered-lists';

const list = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });

describe('lists merged three ways', () => {
  test('what only one side has changed is that side’s list', () => {
    fc.assert(
      fc.property(list, list, (base, changed) => {
        expect(mergeLists(base, changed, base).entries).toEqual(changed);
        expect(mergeLists(base, base, changed).entries).toEqual(changed);
        expect(mergeLists(base, changed, changed).entries).toEqual(changed);
      }),
    );
  });

  test('an entry stands in the result where both have it, or one has added it; and once', () => {
    fc.assert(
      fc.property(list, list, list, (base, ours, theirs) => {
        const { entries } = mergeLists(base, ours, theirs);
        const expected = [...'abcdefgh'].filter((one) =>
          base.includes(one) ? ours.includes(one) && theirs.includes(one) : ours.includes(one) || theirs.includes(one),
        );
        expect(entries.toSorted()).toEqual(expected);
      }),
    );
  });

  test('written once, the result asks for nothing more, and what was said of it is said again', () => {
    fc.assert(
      fc.property(list, list, list, (base, ours, theirs) => {
        const first = mergeLists(base, ours, theirs);
        const again = mergeLists(ours, ours, first.entries);
        expect(again.entries).toEqual(first.entries);
        expect(again.theirs).toEqual(first.entries.filter((one) => !ours.includes(one)));
        expect(again.takenOff).toEqual(ours.filter((one) => !first.entries.includes(one)));
        expect([again.added, again.removed]).toEqual([[], []]);
      }),
    );
  });

  test('both have added, taken off and moved: nobody’s own is lost, and their order stays', () => {
    expect(mergeLists(['a', 'b', 'c', 'd'], ['b', 'a', 'c', 'new'], ['c', 'b', 'own', 'a', 'd'])).toEqual({
      entries: ['c', 'new', 'b', 'own', 'a'],
      added: ['new'],
      removed: ['d'],
      theirs: ['own'],
      takenOff: [],
      order: 'theirs',
    });
  });

  test('a list that we never wrote keeps its order, and gets ours where they stand with us', () => {
    expect(mergeLists([], ['a', 'x', 'b'], ['b', 'own', 'a'])).toMatchObject({
      entries: ['b', 'own', 'a', 'x'],
      added: ['x'],
      theirs: ['own'],
      order: 'same',
    });
  });

  test('what they took off stays off, and is told', () => {
    expect(mergeLists(['a', 'b'], ['a', 'b', 'c'], ['b'])).toMatchObject({
      entries: ['b', 'c'],
      added: ['c'],
      takenOff: ['a'],
    });
  });

  test('two spellings of one entry are one, in theirs; an entry that stands twice stands once', () => {
    const fold = (entry: string): string => entry.toLowerCase();
    expect(mergeLists(['Slate.cube'], ['slate.cube', 'Gypsum.cube'], ['SLATE.cube', 'SLATE.cube'], fold)).toMatchObject(
      { entries: ['SLATE.cube', 'Gypsum.cube'], added: ['Gypsum.cube'], theirs: [], takenOff: [] },
    );
  });
});
