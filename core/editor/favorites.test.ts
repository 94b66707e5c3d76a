import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { must } from '../must';
import { bundlePlace } from '../sync/place-templates';
import { parseDescriptor, type Descriptor } from './descriptor';
import {
  entryOf,
  favoritesListsAt,
  foldEntry,
  oursOf,
  readFavorites,
  writeFavorites,
  type Favorites,
} from './favorites';

const [marlstone, oxbow, tessel] = [marlstone4, oxbow2, tessel7].map((one) => parseDescriptor(one)) as [
  Descriptor,
  Descriptor,
  Descriptor,
];
const favoritesOf = ({ favorites }: Descriptor): Favorites => must(favorites);
const listsAt = (descriptor: Descriptor, system: 'macos' | 'linux', placed: readonly string[] = []) =>
  favoritesListsAt(descriptor.places, favoritesOf(descriptor), system, placed);
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

describe('where favorites stand', () => {
  test('one list of all, which names contents', () => {
    const [list] = listsAt(marlstone, 'macos');
    expect(list?.path).toBe('Library/Application Support/.marlstone-4/favorites.json');
    expect(list?.isIn('Library/Application Support/.marlstone-4/looks/A.mlook')).toBe(true);
    expect(list?.isIn('Library/Application Support/.marlstone-4/profiles/A.icc')).toBe(false);
    expect(entryOf(favoritesOf(marlstone), must(list), 'x/A.mlook', 'ab12')).toBe('ab12');
    expect(bundlePlace(favoritesOf(marlstone).list, 'macos')).toBeNull();
    expect(listsAt(marlstone, 'linux')).toEqual([]);
  });

  test('a list in each folder with something of ours, which names the files beside it', () => {
    const placed = ['Oxbow/Looks/House/A.cube', 'Oxbow/Looks/House/B.cube', 'Oxbow/Looks/C.cube', 'Elsewhere/D.cube'];
    const lists = listsAt(oxbow, 'linux', placed);
    expect(lists.map(({ path }) => path)).toEqual(['Oxbow/Looks/first.list', 'Oxbow/Looks/House/first.list']);
    expect(placed.filter(must(lists[1]).isIn)).toEqual(placed.slice(0, 2));
    expect(entryOf(favoritesOf(oxbow), must(lists[1]), must(placed[0]), '')).toBe('A.cube');
  });

  test('an entry of a bundle, which names entries beside it', () => {
    const [list] = listsAt(tessel, 'macos');
    const bundle = 'Library/Application Support/Tessel/tessel.json';
    expect(list?.path).toBe(`${bundle}#chosen/favorites`);
    expect(entryOf(favoritesOf(tessel), must(list), `${bundle}#panes/a1`, '')).toBe('panes/a1');
    expect(bundlePlace(favoritesOf(tessel).list, 'macos')).toBe(`${bundle}#chosen`);
  });
});

test('our ribbons come in their order, each thing once, as far as it lies there', () => {
  const placed = [
    { path: 'Oxbow/Looks/House/A.cube', sha: '', item: 'a' },
    { path: 'Oxbow/Looks/House/A raw.cube', sha: '', item: 'a' },
    { path: 'Oxbow/Looks/House/B.cube', sha: '', item: 'b' },
    { path: 'Oxbow/Looks/C.cube', sha: '', item: 'c' },
  ];
  const [, house] = listsAt(
    oxbow,
    'linux',
    placed.map(({ path }) => path),
  );
  const ribbons = [
    { item: 'b', whose: '' },
    { item: 'c', whose: '' },
    { item: 'gone', whose: '' },
    { item: 'b', whose: 'Mirre' },
    { item: 'a', whose: 'Mirre' },
  ];
  expect(oursOf(favoritesOf(oxbow), must(house), placed, ribbons).map(({ entry, whose }) => [entry, whose])).toEqual([
    ['B.cube', ''],
    ['A.cube', 'Mirre'],
    ['A raw.cube', 'Mirre'],
  ]);
});

describe('what a list says', () => {
  test('is read and written in its form, with its own ends of lines', () => {
    const lines = favoritesOf(oxbow);
    expect(readFavorites(lines, 'l', '\ufeffA.cube\r\n\r\n  B.cube \r\n')).toEqual(['A.cube', 'B.cube']);
    expect(text(writeFavorites(lines, ['A.cube', 'C.cube'], 'A.cube\r\n'))).toBe('A.cube\r\nC.cube\r\n');
    expect(text(writeFavorites(lines, ['A.cube'], ''))).toBe('A.cube\n');
    expect(readFavorites(favoritesOf(marlstone), 'l', ' ')).toEqual([]);
    expect(readFavorites(favoritesOf(marlstone), 'l', text(writeFavorites(favoritesOf(marlstone), ['a'], '')))).toEqual(
      ['a'],
    );
    // an entry of a bundle is compared in canonical form
    expect(text(writeFavorites(favoritesOf(tessel), ['panes/a', 'panes/b'], ''))).toBe('["panes/a","panes/b"]');
  });

  test('that is no list is left alone', () => {
    for (const broken of ['{"a":1}', '[1]', '["a"', 'A.cube'])
      expect(() => readFavorites(favoritesOf(marlstone), 'favorites.json', broken)).toThrow(/cannot be read/);
  });

  test('is one name in two spellings only where the system takes them for one', () => {
    expect(foldEntry(favoritesOf(oxbow), 'macos')('Slate.CUBE')).toBe('slate.cube');
    expect(foldEntry(favoritesOf(oxbow), 'linux')('Slate.CUBE')).toBe('Slate.CUBE');
    expect(foldEntry(favoritesOf(marlstone), 'linux')('AB12')).toBe('ab12');
  });
});

describe('descriptors', () => {
  const bad = (favorites: object) => () => parseDescriptor({ ...oxbow2, favorites });
  const fine = oxbow2.favorites;

  test.each([
    [{ ...fine, of: ['lookz'] }, /the place "lookz", which is not among the places/],
    [{ ...fine, list: { linux: '{home}/Oxbow/first.list' } }, /exactly one of list and eachFolder/],
    [{ of: ['looks'], form: 'lines', names: 'path' }, /exactly one of list and eachFolder/],
    [{ ...fine, eachFolder: '../first.list' }, /must be a file name/],
    [{ ...fine, eachFolder: 'first.exe' }, /must not be the name of a program/],
    [{ ...fine, eachFolder: 'first.cube' }, /as files do that the editor takes/],
    [{ ...fine, form: 'xml' }, /form must be one of/],
    [{ ...fine, eachFolder: undefined, list: { linux: '/etc/first.list' } }, /must begin with \{home\}/],
    [
      { ...fine, eachFolder: undefined, list: { linux: '{config}/Oxbow/o.json#chosen/first' } },
      /stand in a bundle, and their form is lines/,
    ],
  ])('are refused where their favorites make no sense: %j', (favorites, words) => {
    expect(bad(favorites)).toThrow(words);
  });

  test('are refused where a list stands in each folder of a bundle', () => {
    expect(() => parseDescriptor({ ...tessel7, favorites: { ...fine, of: ['panes'], form: 'json' } })).toThrow(
      /one of their places is a list in a bundle/,
    );
  });
});
