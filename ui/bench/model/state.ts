/** What lies on the bench, and how it is looked at. */
import { usualRange, type RangeCompression } from '@/core/bench/range';
import type { WhiteBalance } from '@/core/bench/white-balance';
import { emptyColumn, type Column } from './column';

export interface Row {
  frame: string;
  white: WhiteBalance;
}
export type Surround = 0 | 1 | 2;

export interface State {
  rows: readonly Row[];
  /** never empty: at least the frames without a look */ columns: readonly Column[];
  /** the column against which the others are seen */ reference: number;
  /** cells show how far they are from the reference */ difference: boolean;
  /** what the display cannot show is marked */ mark: boolean;
  /** 0 is off, else the seed of the order */ blind: number;
  range: RangeCompression;
  surround: Surround;
  /** a row, and the columns of it that are seen large, side by side */ open: {
    row: number;
    columns: readonly number[];
  } | null;
}

export const MOST_COLUMNS = 16;
export const MOST_ROWS = 40;
/** Cells that can be seen large at once. */
export const MOST_LARGE = 4;

export const emptyState: State = {
  rows: [],
  columns: [emptyColumn],
  reference: 0,
  difference: false,
  mark: false,
  blind: 0,
  range: usualRange,
  surround: 0,
  open: null,
};

/** Columns in the order in which they stand: as they are, or shuffled where nobody is to know which is which. */
export const orderOf = (state: State): number[] =>
  state.blind ? blindOrder(state.columns.length, state.reference, state.blind) : state.columns.map((_, i) => i);

/** Places of the columns in a shuffled order of a seed; the reference keeps its place. */
export function blindOrder(count: number, reference: number, seed: number): number[] {
  const order = Array.from({ length: count }, (_, i) => i).filter((i) => i !== reference);
  let random = seed >>> 0;
  // Fisher and Yates, with a linear congruential generator after Numerical Recipes
  for (let i = order.length - 1; i > 0; i--) {
    random = (Math.imul(random, 1664525) + 1013904223) >>> 0;
    const j = random % (i + 1);
    [order[i], order[j]] = [order[j] as number, order[i] as number];
  }
  order.splice(reference, 0, reference);
  return order;
}
