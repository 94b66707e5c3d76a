/** Entries of a bundle: put, replaced and taken away without a byte of the rest being touched. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bundleListOf, canonical, entriesIn, entryBelow, entryIn, isEntryPath, withEntry } from './bundle';

const at = (key: string) => ({ file: 'Tessel/tessel.json', list: 'presets', key });
const bytes = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value));
const text = (found: Uint8Array | null): string | null => found && new TextDecoder().decode(found);

/** Numbers that JavaScript would write otherwise, an odd layout, and a list that is not ours. */
const BUNDLE = `{"tessel":7,
   "presets" : {
      "Old one": {"b": 2.50, "a": 1}
   },
   "windows":[12345678901234567890, 1.0]
}
`;

describe('places and paths', () => {
  test.each([
    ['AppData/Roaming/Tessel/tessel.json#presets', { file: 'AppData/Roaming/Tessel/tessel.json', list: 'presets' }],
    ['Oxbow/Looks', null],
    ['a#b#c', null],
    ['#presets', null],
    ['a#b/c', null],
  ])('%s', (place, list) => expect(bundleListOf(place)).toEqual(list));

  test('a path below the place names an entry, with any sign in its key', () => {
    expect(entryBelow('t.json#presets', 't.json#presets/A/B #2')).toEqual({
      file: 't.json',
      list: 'presets',
      key: 'A/B #2',
    });
    expect(entryBelow('t.json#presets', 't.json#presets/')).toBeNull();
    expect(entryBelow('t.json#presets', 't.json#presetsX/A')).toBeNull();
    expect(entryBelow('Looks', 'Looks/A')).toBeNull();
  });
});

test.each([
  ['AppData/Roaming/Tessel/tessel.json#presets/Night Market', true],
  ['Oxbow/Looks/Look #2.cube', false],
  ['Oxbow/Looks/notes.json', false],
  ['Tessel/tessel.json#presets', false],
])('%s is a path of an entry: %s', (path, is) => expect(isEntryPath(path)).toBe(is));

describe('an entry', () => {
  test('is the same whatever its order and spaces', () => {
    expect(text(entryIn(BUNDLE, at('Old one')))).toBe('{"a":1,"b":2.5}');
    expect(entryIn(BUNDLE, at('Another'))).toBeNull();
    expect(entriesIn(BUNDLE, at('')).map(({ key }) => key)).toEqual(['Old one']);
    expect(entriesIn(BUNDLE, { file: 'x', list: 'panes' })).toEqual([]);
  });

  test('is put in and taken away again, and the rest stays byte for byte', () => {
    const more = withEntry(BUNDLE, at('New one'), bytes({ c: 3 }));
    expect(text(entryIn(more, at('New one')))).toBe('{"c":3}');
    expect(more).toContain('"Old one": {"b": 2.50, "a": 1}');
    expect(more).toContain('[12345678901234567890, 1.0]');
    expect(JSON.parse(withEntry(more, at('New one'), null))).toEqual(JSON.parse(BUNDLE));
  });

  test('is replaced by another', () => {
    const other = withEntry(BUNDLE, at('Old one'), bytes({ a: 7 }));
    expect(text(entryIn(other, at('Old one')))).toBe('{"a":7}');
    expect(entriesIn(other, at(''))).toHaveLength(1);
  });

  test('comes into a list that the bundle does not have yet', () => {
    const panes = { file: 'x', list: 'panes', key: 'P' };
    expect(text(entryIn(withEntry('{"tessel":7}', panes, bytes({})), panes))).toBe('{}');
  });

  test.each(['constructor', '__proto__', 'toString'])('under the key %s is put in and taken away again', (key) => {
    const more = withEntry(BUNDLE, at(key), bytes([1]));
    expect(text(entryIn(more, at(key)))).toBe('[1]');
    expect(JSON.parse(withEntry(more, at(key), null))).toEqual(JSON.parse(BUNDLE));
  });

  test('whatever its key and content, and whatever lies beside it', () => {
    fc.assert(
      fc.property(
        fc.dictionary(fc.string({ unit: 'grapheme' }), fc.jsonValue()),
        fc.string({ minLength: 1, unit: 'grapheme' }),
        fc.jsonValue(),
        (lying, key, value) => {
          const before = JSON.stringify({ presets: lying, other: 1 });
          const after = withEntry(before, at(key), bytes(value));
          expect(entryIn(after, at(key))).toEqual(canonical(JSON.parse(JSON.stringify(value))));
          const others = (all: string) => entriesIn(all, at('')).filter((one) => one.key !== key);
          expect(others(after)).toEqual(others(before));
          expect(others(withEntry(after, at(key), null))).toEqual(others(before));
        },
      ),
    );
  });
});

describe('a bundle that is none', () => {
  test.each([
    ['cut off', '{"presets": {', 'cannot be read'],
    ['a list', '[]', 'it is no object'],
    ['with a list where entries should be', '{"presets": []}', 'no entries under keys'],
    ['with one key twice', '{"presets": {"A": 1, "A": 2}}', 'more than once'],
  ])('%s is refused and left', (_, broken, message) => {
    expect(() => withEntry(broken, at('A'), bytes({ a: 1 }))).toThrow(message);
  });
});
