import { must } from '@/core/must';
import { describe, expect, test } from 'vitest';
import { labelsOf } from './headings';

const under = (...hashes: (string | undefined)[]) =>
  hashes.map((t) => (t === undefined ? undefined : { headings: t ? t.split('/') : [] }));
const said = (l: ReturnType<typeof labelsOf>) => must(l).map((x) => (x.words ? `${x.words} ${x.reach}` : '-'));

describe('headings on the edge of the board', () => {
  test('stand where they change, and reach as far as their run does on this board', () =>
    expect(said(labelsOf(under('Warm/Low', 'Warm/Low', 'Warm', '', '', 'Warm'), 8))).toEqual([
      'Warm / Low 2',
      '-',
      'Warm 1',
      '-',
      '-',
      'Warm 1',
    ]));
  test('are said again at the beginning of the next board', () =>
    expect(said(labelsOf(under('A', 'A', 'A', 'A', 'A'), 3))).toEqual(['A 3', '-', '-', 'A 2', '-']));
  test('a shelf without headings has none', () => expect(labelsOf(under('', '', ''), 4)).toBeNull());
  test('what is not there yet begins nothing, and what follows it begins anew', () =>
    expect(said(labelsOf(under('A', undefined, 'A'), 4))).toEqual(['A 1', '-', 'A 1']));
});
