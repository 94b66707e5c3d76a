import { describe, expect, test } from 'vitest';
import type { ShelvesProps } from '../shelves-context';
import { packShelves, unpackShelves } from './packed-shelves';
import type { Spine } from './spine';

const spine = (id: string, part: Partial<Spine> = {}): Spine => ({
  id,
  versionId: `${id}-1`,
  kind: 'look',
  title: `“${id}”, by "Łódź" </script>`,
  shortTitle: '',
  position: 2,
  headings: ['Bench', 'Bisque'],
  shelfId: 'house',
  shelf: 'House looks',
  number: 1,
  status: 'approved',
  selvedge: null,
  mine: false,
  house: true,
  assumed: false,
  points: null,
  stations: 0,
  stale: false,
  fresh: false,
  matching: 3,
  language: '',
  cameras: [],
  supplier: '',
  licence: null,
  tags: [],
  creator: '',
  revision: 1,
  variants: 0,
  made: '2026-11-30T08:12:19.026Z',
  changed: '2026-11-30T08:12:19.026Z',
  ...part,
});

const propsWith = (spines: Spine[]): ShelvesProps => ({
  shelves: [{ id: 'house', name: 'House looks', note: '', items: 3, query: null, away: false }],
  given: { search: 'q=amber', flat: true, counts: { n: 1, more: false, facets: [] }, spines },
  frames: [],
  steps: [],
  fresh: 0,
  total: 3,
  licences: [],
  may: { convert: true, rollOut: true, edit: true, shelf: true, archive: true, house: true, approve: true },
});

const fixed = Array.from({ length: 12 }, (_, n) => `#${(n * 1118481).toString(16).padStart(6, '0')}`);
const threads = (shift: number): [string, string][] =>
  fixed.map((color, n) => [color, `#${((n * 70_001 + shift) % 0xffffff).toString(16).padStart(6, '0')}`]);

describe('what comes with the page of the shelves', () => {
  test('comes out as it went in', () => {
    const props = propsWith([spine('a', { selvedge: threads(5) }), spine('b'), spine('c', { selvedge: threads(900) })]);
    expect(unpackShelves(packShelves(props))).toEqual(props);
  });

  test('may have no spines at all', () => {
    const props = propsWith([]);
    expect(unpackShelves(packShelves(props))).toEqual(props);
  });

  test('may have threads of other fixed colors, and threads that are no pairs of colors', () => {
    const others = threads(7).map(([color, rendered]): [string, string] => [rendered, color]);
    const odd = [['#ABC', 'red']] as [string, string][];
    const props = propsWith([
      spine('a', { selvedge: threads(5) }),
      spine('b', { selvedge: others }),
      spine('c', { selvedge: odd }),
      spine('d', { selvedge: [] }),
    ]);
    expect(unpackShelves(packShelves(props))).toEqual(props);
  });

  test('is less than half of what it is as it stands, once it is written into a page', () => {
    const props = propsWith(Array.from({ length: 60 }, (_, n) => spine(`a${n}`, { selvedge: threads(n * 31) })));
    const written = (text: string): number => JSON.stringify(JSON.stringify(text)).length;
    expect(written(packShelves(props))).toBeLessThan(0.5 * written(JSON.stringify(props)));
  });
});
