import { describe, expect, test } from 'vitest';
import { mergeFields } from './merge';
import { seeded } from './random';

const fields = ['title', 'headings', 'tags', 'note', 'scope'];
const values: unknown[] = ['a', 'b', ['x'], ['x', 'y'], null];
const some = (next: () => number): Record<string, unknown> =>
  Object.fromEntries(fields.map((f) => [f, values[Math.floor(next() * values.length)]]));

describe('merging a record’s fields, all combinations of three values met at random', () => {
  const cases = Array.from({ length: 400 }, (_, i) => {
    const next = seeded(i + 1);
    return { base: some(next), mine: some(next), theirs: some(next) };
  });
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

  test('a field that one alone changed has that one’s value, and the other is told what was kept', () => {
    let kept = 0;
    for (const { base, mine, theirs } of cases) {
      const result = mergeFields(base, mine, theirs);
      for (const file of fields) {
        if (same(base[file], theirs[file])) expect(result.merged[file]).toEqual(mine[file]);
        else if (same(base[file], mine[file])) {
          expect(result.merged[file]).toEqual(theirs[file]);
          expect(result.kept).toContain(file);
          kept++;
        } else expect(result.kept).not.toContain(file);
      }
    }
    expect(kept).toBeGreaterThan(100);
  });
  test('a field is in conflict exactly where both changed it, and differently; the three values are told', () => {
    let met = 0;
    for (const { base, mine, theirs } of cases) {
      const { conflicts } = mergeFields(base, mine, theirs);
      for (const file of fields) {
        const both =
          !same(base[file], mine[file]) && !same(base[file], theirs[file]) && !same(mine[file], theirs[file]);
        const fieldConflict = conflicts.find((x) => x.field === file);
        expect(!!fieldConflict).toBe(both);
        if (fieldConflict) {
          expect(fieldConflict).toEqual({ field: file, base: base[file], mine: mine[file], theirs: theirs[file] });
          met++;
        }
      }
    }
    expect(met).toBeGreaterThan(100);
  });
  test('with nothing in conflict, either order merges to the same record', () => {
    let met = 0;
    for (const { base, mine, theirs } of cases) {
      const one = mergeFields(base, mine, theirs);
      const other = mergeFields(base, theirs, mine);
      if (one.conflicts.length) continue;
      expect(one.merged).toEqual(other.merged);
      met++;
    }
    expect(met).toBeGreaterThan(0);
  });
  test('what one does not name is left out; what is missing counts as null', () => {
    expect(mergeFields({ a: 1, b: 2 }, { a: 3 }, { a: 1, b: 5 })).toEqual({
      merged: { a: 3 },
      conflicts: [],
      kept: [],
    });
    expect(mergeFields({}, { a: null }, {})).toEqual({ merged: { a: null }, conflicts: [], kept: [] });
    expect(mergeFields({}, { a: 1 }, { a: 2 }).conflicts).toEqual([{ field: 'a', base: null, mine: 1, theirs: 2 }]);
  });
});
