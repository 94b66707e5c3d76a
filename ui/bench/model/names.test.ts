import { describe, expect, test } from 'vitest';
import { emptyColumn } from './column';
import { shownName } from './names';
import { emptyState, orderOf, type State } from './state';

const state = (blind: number, reference = 0): State => ({
  ...emptyState,
  columns: Array.from({ length: 5 }, () => emptyColumn),
  reference,
  blind,
});

describe('names of candidates that nobody is to know', () => {
  test.each([1, 7, 4321])('begin at A, one letter each in the order in which they stand (seed %i)', (seed) => {
    for (const reference of [0, 2, 4]) {
      const blind = state(seed, reference);
      const names = orderOf(blind)
        .filter((column) => column !== reference)
        .map((column) => shownName(blind, column, new Map()));
      expect(names).toEqual(['Candidate A', 'Candidate B', 'Candidate C', 'Candidate D']);
    }
  });
  test('the reference is known', () => {
    expect(shownName(state(5), 0, new Map())).toBe('No look');
  });
});
