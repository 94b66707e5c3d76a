import { describe, expect, test } from 'vitest';
import { noTrim, type Trim } from '@/core/bench/measure';
import type { Candidate } from './candidate';
import { byProfile, columnFor, emptyColumn, layer, leftOfColumn, titleOfKept, withCandidate } from './column';

describe('what of a column no table can hold', () => {
  test.each([
    [emptyColumn, []],
    [{ ...emptyColumn, layers: [layer('a', 60)] }, []],
    [{ ...emptyColumn, source: byProfile('p'), range: true }, ['the camera profile', 'range compression']],
    [{ ...emptyColumn, source: { from: 'export', label: 'Oxbow' } as const }, ['the editor’s export']],
  ])('%j', (column, begins) => {
    const left = leftOfColumn(column);
    expect(left).toHaveLength(begins.length);
    left.forEach((words, place) => expect(words.startsWith(begins[place] ?? '?')).toBe(true));
  });
});

describe('a trim that is kept with an item', () => {
  const trim: Trim = { ...noTrim, slope: [1.1, 1, 1] };
  const candidate = { kind: 'look', versionId: 'a', usual: 80, trim } as unknown as Candidate;
  test('is laid with it', () => {
    expect(columnFor(candidate)).toMatchObject({ layers: [{ version: 'a', strength: 80 }], trim });
    expect(columnFor({ ...candidate, kind: 'camera-profile' })).toMatchObject({ source: { version: 'a' }, trim });
    expect(columnFor({ ...candidate, trim: null }).trim).toBeNull();
  });
  test('does not take the place of one that the column has', () => {
    expect(withCandidate({ ...emptyColumn, trim: noTrim }, candidate).trim).toBe(noTrim);
  });
});

test('a column that is kept is called otherwise than what lies in it', () => {
  const one = { ...emptyColumn, layers: [layer('a', 100)] };
  expect(titleOfKept(one, 'Ash')).toBe('Ash, kept');
  expect(titleOfKept({ ...one, layers: [layer('a', 60)] }, 'Ash')).toBe('Ash at 60 %');
  expect(titleOfKept({ ...one, trim: noTrim }, 'Ash')).toBe('Ash, trimmed');
  expect(titleOfKept({ ...one, layers: [layer('a', 100), layer('b', 100)] }, 'Ash + Bone')).toBe('Ash + Bone');
});
