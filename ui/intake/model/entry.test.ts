import { describe, expect, test } from 'vitest';
import {
  differenceWords,
  folderOf,
  isCorrectable,
  isUnread,
  kindOfUnread,
  kindsOfNew,
  takenWords,
  type Entry,
} from './entry';

const entry = (kind: string, outcome = 'new') => ({ kind, outcome }) as Entry;

describe('files of an arrival', () => {
  test('kinds of what is new come with the commonest first', () => {
    const rows = [entry('look'), entry('preset'), entry('preset'), entry('look', 'duplicate')];
    expect(kindsOfNew([{ group: 'new', count: 4, takeable: 4, rows }])).toEqual(['preset', 'look']);
  });

  test('what was refused is not corrected, what was left out can be taken back', () => {
    expect(isCorrectable(entry('look'))).toBe(true);
    expect(isCorrectable(entry('look', 'document'))).toBe(true);
    expect(isCorrectable(entry('document', 'document'))).toBe(true);
    expect(isCorrectable(entry('', 'refused'))).toBe(false);
    expect(isCorrectable(entry('descriptor', 'descriptor'))).toBe(false);
  });

  test('what no reader knows becomes a support file, and nothing else', () => {
    expect(['document', 'unknown', 'support-file', 'look'].map((kind) => isUnread(entry(kind)))).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect(['new', 'version'].map((outcome) => kindOfUnread(outcome).kind)).toEqual(['support-file', 'support-file']);
    expect(kindOfUnread('document')).toEqual({});
  });

  test('a difference that nobody sees is said to be none', () => {
    expect(differenceWords({ by: 'effect', words: '', mean: 0.01, max: 0.04 })).toBe(', no difference in color');
    expect(differenceWords({ by: 'effect', words: '', mean: 0.31, max: 1.26 })).toBe(
      ', ΔE00 0.31 in the mean, 1.3 at most',
    );
    expect(differenceWords({ by: 'bytes', words: '' })).toBe('');
  });

  test('what was taken in is told in words', () => {
    expect(takenWords({ items: ['a'], versions: 2, frames: 0, descriptors: 1 })).toBe(
      '1 item, 2 versions, 1 descriptor',
    );
  });

  test('the folder of a file', () => {
    expect(folderOf('Autumn/Kiln/Ash.cube')).toBe('Autumn/Kiln');
    expect(folderOf('Ash.cube')).toBe('');
  });
});
