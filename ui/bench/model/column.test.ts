import { describe, expect, test } from 'vitest';
import { byProfile, emptyColumn, layer, leftOfColumn } from './column';

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
