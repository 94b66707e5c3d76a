import { describe, expect, it } from 'vitest';
import { listingChange, MOST_TOLD, readingOf } from './listing-change';
import type { Listing } from './protocol';

const thing = (name: string) => ({ path: `Looks/${name}.cube`, title: name, kind: 'look' });
const listing = (names: string[], refused: string[] = []): Listing => ({
  at: '2026-11-01T10:00:00Z',
  running: true,
  listed: names.map(thing),
  refused: refused.map((name) => ({ path: thing(name).path, reason: 'broken' })),
});
const change = (before: string[], after: string[], refused: string[] = []) => {
  const found = listingChange(listing(before), listing(after, refused));
  if (!found) throw new Error('nothing changed');
  return found;
};

describe('an editor’s list from one telling to the next', () => {
  it('is told by what came, went, and was refused anew, with both counts', () => {
    expect(listingChange(listing(['A', 'B'], ['X']), listing(['B', 'C'], ['X', 'Y']))).toEqual({
      before: 2,
      after: 2,
      came: [thing('C')],
      gone: [thing('A')],
      refused: [{ path: thing('Y').path, reason: 'broken' }],
      more: 0,
    });
  });

  it('is nothing where it says the same in another order', () => {
    expect(listingChange(listing(['A', 'B']), listing(['B', 'A']))).toBeNull();
  });

  it('tells of many only so many, and how many more there are', () => {
    const names = Array.from({ length: MOST_TOLD + 7 }, (_, n) => `L${n}`);
    expect(change([], names)).toMatchObject({ before: 0, after: MOST_TOLD + 7, more: 7 });
  });
});

describe('what came of a rollout in an editor’s list', () => {
  it('is read until all that it wrote is told of: what people do afterwards is not its doing', () => {
    const changes = [change(['A'], ['A', 'B']), change(['A', 'B'], ['A', 'B', 'C']), change(['A', 'B', 'C'], ['C'])];
    const reading = readingOf(changes, [thing('B').path, thing('C').path]);
    expect(reading).toMatchObject({ before: 1, after: 3, gone: [], waiting: 0 });
    expect(reading?.came.map(({ title }) => title)).toEqual(['B', 'C']);
  });

  it('counts what is refused as told of, and says how much is not yet', () => {
    const changes = [change(['A'], ['A'], ['B'])];
    expect(readingOf(changes, [thing('B').path, thing('C').path])).toMatchObject({
      came: [],
      refused: [{ path: thing('B').path }],
      waiting: 1,
    });
  });

  it('leaves out what came and went again in between', () => {
    const changes = [change(['A'], ['A', 'B']), change(['A', 'B'], ['A']), change(['A'], ['A', 'C'])];
    expect(readingOf(changes, [thing('C').path])?.came.map(({ title }) => title)).toEqual(['C']);
  });

  it('is none where it only wrote over what was listed before, nor where nothing changed', () => {
    expect(readingOf([change(['A'], ['A', 'B'])], [])).toBeNull();
    expect(readingOf([], [thing('B').path])).toBeNull();
  });
});
