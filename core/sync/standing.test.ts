import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor } from '../editor/descriptor';
import { countsByStation, standingOf, type EditorAt, type Followed, type PutThere } from './standing';

const oxbow: EditorAt = { station: 'room', system: 'linux', descriptor: parseDescriptor(oxbow2), cameras: [] };
const marlstone: EditorAt = { station: 'desk', system: 'macos', descriptor: parseDescriptor(marlstone4), cameras: [] };
const look: Followed = {
  item: 'velour',
  variant: '',
  version: 'v3',
  number: 3,
  title: 'Velour',
  thing: { kind: 'look', format: 'cube', cameras: [] },
};
const preset: Followed = { ...look, item: 'engraver', thing: { kind: 'preset', format: 'oxbow@2', cameras: [] } };
const profile: Followed = {
  ...look,
  item: 'red',
  thing: { kind: 'camera-profile', format: 'dcp', cameras: ['Perrin Alder, infrared'] },
};
const put = (number: number, over: Partial<PutThere> = {}): PutThere => ({
  station: 'room',
  editor: 'oxbow@2',
  item: 'velour',
  variant: '',
  number,
  path: 'Oxbow/Looks/Velour.cube',
  ...over,
});
const states = (followed: Followed[], editors: EditorAt[], there: PutThere[] = []) =>
  standingOf(followed, editors, there).map(({ editor, followed: { item }, is }) => [editor, item, is]);

describe('what is followed', () => {
  test('is missing, due for an update, or in step, at each editor by itself', () => {
    expect(states([look], [oxbow, marlstone])).toEqual([
      ['oxbow@2', 'velour', 'missing'],
      ['marlstone@4', 'velour', 'missing'],
    ]);
    expect(states([look], [oxbow, marlstone], [put(2)])).toEqual([
      ['oxbow@2', 'velour', 'update-due'],
      ['marlstone@4', 'velour', 'missing'],
    ]);
    expect(states([look], [oxbow], [put(3)])).toEqual([['oxbow@2', 'velour', 'in-step']]);
  });

  test('is expected only where it is taken: by kind and form, and by a place on the system', () => {
    expect(states([preset], [oxbow, marlstone])).toEqual([['oxbow@2', 'engraver', 'missing']]);
    expect(states([look], [{ ...marlstone, system: 'linux' }])).toEqual([]);
  });

  test('of one camera is expected where that is used, or where nobody has said', () => {
    const camera = (conversion: string) => ({ maker: 'Perrin', model: 'Perrin Alder', names: [], conversion });
    expect(states([profile], [oxbow])).toHaveLength(1);
    expect(states([profile], [{ ...oxbow, cameras: [camera('')] }])).toEqual([]);
    expect(states([profile], [{ ...oxbow, cameras: [camera(''), camera('infrared')] }])).toHaveLength(1);
  });

  test('lies once in a folder that two editors share', () => {
    const sibling = { ...oxbow, descriptor: { ...oxbow.descriptor, editor: 'trestle' } };
    expect(states([look], [oxbow, sibling], [put(3)])).toEqual([
      ['oxbow@2', 'velour', 'in-step'],
      ['trestle@2', 'velour', 'in-step'],
    ]);
  });

  test('in another form is another thing', () => {
    expect(states([look, { ...look, variant: 'for HDR' }], [oxbow], [put(3, { variant: 'for HDR' })])).toEqual([
      ['oxbow@2', 'velour', 'missing'],
      ['oxbow@2', 'velour', 'in-step'],
    ]);
  });
});

test('counts are those of the list, whatever lies there', () => {
  const number = fc.integer({ min: 1, max: 5 });
  fc.assert(
    fc.property(fc.array(fc.tuple(number, fc.option(number)), { maxLength: 20 }), (items) => {
      const followed = items.map(([newest], n) => ({ ...look, item: `i${n}`, number: newest }));
      const there = items.flatMap(([, lies], n) => (lies === null ? [] : [put(lies, { item: `i${n}` })]));
      const standing = standingOf(followed, [oxbow], there);
      const counts = countsByStation(standing).get('room') ?? { missing: 0, updates: 0, inStep: 0 };
      expect(counts.missing).toBe(items.filter(([, lies]) => lies === null).length);
      expect(counts.updates).toBe(items.filter(([newest, lies]) => lies !== null && lies < newest).length);
      expect(counts.missing + counts.updates + counts.inStep).toBe(items.length);
    }),
  );
});
