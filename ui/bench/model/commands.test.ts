import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addressOf, stateOf } from './address';
import { atStrength, byProfile, emptyColumn, layer, rowOfStrengths, stopAtStage, toggleStage } from './column';
import { isStep, perform, roomFor, type Command } from './commands';
import { blindOrder, emptyState, MOST_COLUMNS, orderOf, type State } from './state';

const id = (n: number) => `0198c0de-0000-7000-8000-${String(n).padStart(12, '0')}`;
const look = (n: number, strength = 100) => ({ ...emptyColumn, layers: [layer(id(n), strength)] });
const state: State = {
  ...emptyState,
  rows: [1, 2, 3].map((n) => ({ frame: id(n), white: { by: 'file' } })),
  columns: [emptyColumn, look(11), look(12), look(13)],
  reference: 1,
};
const frames = (one: State) => one.rows.map((row) => row.frame);
const looks = (one: State) => one.columns.map((column) => column.layers[0]?.version ?? 'none');

describe('what is done to the bench', () => {
  test('laying frames puts them in the place of those that were there, as in their files', () => {
    const next = perform(state, { do: 'lay only these frames', frames: [id(9)] });
    expect(next.rows).toEqual([{ frame: id(9), white: { by: 'file' } }]);
  });

  test('a row goes up by one, the first stays', () => {
    expect(frames(perform(state, { do: 'move a row up', row: 2 }))).toEqual([id(1), id(3), id(2)]);
    expect(perform(state, { do: 'move a row up', row: 0 })).toBe(state);
  });

  test('the reference stays the same column when others are moved or taken off', () => {
    expect(perform(state, { do: 'take off a column', column: 0 }).reference).toBe(0);
    expect(perform(state, { do: 'take off a column', column: 3 }).reference).toBe(1);
    expect(perform(state, { do: 'move a column', column: 1, by: 1 }).reference).toBe(2);
    expect(perform(state, { do: 'move a column', column: 2, by: -1 }).reference).toBe(2);
    expect(perform(state, { do: 'move a column', column: 3, by: 1 })).toBe(state);
  });

  test('when the reference itself is taken off, the first column is it', () => {
    expect(perform({ ...state, reference: 2 }, { do: 'take off a column', column: 2 }).reference).toBe(0);
  });

  test('what speaks of a row or column that is not there does nothing', () => {
    expect(perform(state, { do: 'take off a column', column: 4 })).toBe(state);
    expect(perform(state, { do: 'move a column', column: 4, by: -1 })).toBe(state);
    expect(perform(state, { do: 'make the reference', column: -1 })).toBe(state);
    expect(perform(state, { do: 'take off a row', row: 3 })).toBe(state);
    expect(perform(state, { do: 'enlarge', row: 0, column: 9 })).toBe(state);
  });

  test('columns are added where they are asked for, and never more than there is room for', () => {
    expect(looks(perform(state, { do: 'add columns', columns: [look(20)], at: 1 }))).toEqual([
      'none',
      id(20),
      id(11),
      id(12),
      id(13),
    ]);
    const many = Array.from({ length: 30 }, (_, n) => look(n));
    const full = perform(state, { do: 'add columns', columns: many });
    expect(full.columns).toHaveLength(MOST_COLUMNS);
    expect(roomFor(full)).toBe(0);
  });

  test('a strength stays between nothing and four times, and acts on the look on top', () => {
    const two = { ...emptyColumn, layers: [layer(id(1), 50), layer(id(2), 398)] };
    const next = perform({ ...state, columns: [two] }, { do: 'strengthen a column', column: 0, by: 5 });
    expect(next.columns[0]?.layers.map((one) => one.strength)).toEqual([50, 400]);
    expect(atStrength(two, -3).layers[1]?.strength).toBe(0);
    expect(perform(state, { do: 'strengthen a column', column: 0, by: 5 }).columns[0]).toEqual(emptyColumn);
  });

  test('enlarging shows the reference beside, but for the reference itself', () => {
    expect(perform(state, { do: 'enlarge', row: 0, column: 3 }).open?.columns).toEqual([1, 3]);
    expect(perform(state, { do: 'enlarge', row: 0, column: 1 }).open?.columns).toEqual([1]);
  });

  test('at most four are seen large, and one can be taken away', () => {
    let next = perform(state, { do: 'enlarge', row: 0, column: 3 });
    for (const column of [0, 2, 3]) next = perform(next, { do: 'put beside', column });
    expect(next.open?.columns).toEqual([1, 3, 0, 2]);
    expect(perform(next, { do: 'take away', place: 1 }).open?.columns).toEqual([1, 0, 2]);
    expect(perform(state, { do: 'put beside', column: 2 })).toBe(state);
  });

  test('shuffling hides the order, and shuffling again reveals it', () => {
    const shuffled = perform(state, { do: 'shuffle', seed: 7 });
    expect([...orderOf(shuffled)].sort()).toEqual([0, 1, 2, 3]);
    expect(orderOf(perform(shuffled, { do: 'shuffle', seed: 9 }))).toEqual([0, 1, 2, 3]);
  });

  test('what leads somewhere else is a step that Back takes back, a change in place is none', () => {
    expect(isStep({ do: 'take off a row', row: 0 })).toBe(true);
    expect(isStep({ do: 'strengthen a column', column: 0, by: 5 })).toBe(false);
  });

  test('whatever is done, the address holds it', () => {
    const commands = fc.oneof<fc.Arbitrary<Command>[]>(
      fc.record({ do: fc.constant('take off a column' as const), column: fc.nat(5) }),
      fc.record({ do: fc.constant('move a column' as const), column: fc.nat(5), by: fc.constantFrom(-1, 1) }),
      fc.record({ do: fc.constant('strengthen a column' as const), column: fc.nat(5), by: fc.constantFrom(-5, 5) }),
      fc.record({ do: fc.constant('take off a row' as const), row: fc.nat(3) }),
      fc.record({ do: fc.constant('make the reference' as const), column: fc.nat(5) }),
      fc.record({ do: fc.constant('compress all columns' as const), on: fc.boolean() }),
      fc.constant<Command>({ do: 'switch differences' }),
    );
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 8 }), (list) => {
        const done = list.reduce(perform, state);
        fc.pre(done.columns.length > 0);
        expect(stateOf(addressOf(done))).toEqual(done);
      }),
      { numRuns: 1000 },
    );
  });
});

describe('a blind order', () => {
  test('is a permutation that keeps the reference, the same for one seed', () => {
    for (const seed of [1, 7, 99999]) {
      const order = blindOrder(8, 2, seed);
      expect([...order].sort()).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
      expect(order[2]).toBe(2);
      expect(blindOrder(8, 2, seed)).toEqual(order);
    }
    expect(blindOrder(8, 0, 5)).not.toEqual(blindOrder(8, 0, 6));
  });
});

describe('the rungs of a profile', () => {
  const column = { ...emptyColumn, source: byProfile(id(1)) };
  const stagesOf = (one: typeof column) => (one.source.from === 'profile' ? one.source.stages : []);

  test('one is muted and heard again, the others stay', () => {
    const muted = toggleStage(column, 'look') as typeof column;
    expect(stagesOf(muted)).toEqual(['hue-sat', 'exposure', 'curve']);
    expect(stagesOf(toggleStage(muted, 'look') as typeof column)).toEqual(['hue-sat', 'exposure', 'look', 'curve']);
  });

  test('stopping at one leaves what is below it', () => {
    expect(stagesOf(stopAtStage(column, 'exposure') as typeof column)).toEqual(['hue-sat', 'exposure']);
  });
});

test('a row of strengths leaves out the one that is there', () => {
  const strengths = rowOfStrengths(look(1, 75), 150).map((column) => column.layers[0]?.strength);
  expect(strengths).toEqual([0, 25, 50, 100, 125, 150]);
});
