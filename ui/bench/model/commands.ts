/** All that can be done to the bench, as (state, command) → state. */
import type { RangeCompression } from '@/core/bench/range';
import { asInFile, type WhiteBalance } from '@/core/bench/white-balance';
import { isExport, strengthened, type Column } from './column';
import { MOST_COLUMNS, MOST_LARGE, type Row, type State, type Surround } from './state';

export type Command =
  | { do: 'lay only these frames'; frames: readonly string[] }
  | { do: 'add a row'; frame: string }
  | { do: 'take off a row'; row: number }
  | { do: 'move a row up'; row: number }
  | { do: 'balance a row'; row: number; white: WhiteBalance }
  /** a neutral picked in the picture: a step that Back takes back */
  | { do: 'balance a row by a neutral'; row: number; neutral: [number, number, number] }
  | { do: 'add columns'; columns: readonly Column[]; at?: number }
  | { do: 'change a column'; column: number; to: Column }
  | { do: 'strengthen a column'; column: number; by: number }
  | { do: 'take off a column'; column: number }
  | { do: 'take off an export'; label: string }
  | { do: 'move a column'; column: number; by: -1 | 1 }
  | { do: 'make the reference'; column: number }
  | { do: 'compress all columns'; on: boolean }
  | { do: 'set the range'; range: RangeCompression }
  | { do: 'switch differences' }
  | { do: 'switch marks' }
  | { do: 'shuffle'; seed: number }
  | { do: 'surround'; gray: Surround }
  | { do: 'enlarge'; row: number; column: number }
  | { do: 'put beside'; column: number }
  | { do: 'take away'; place: number }
  | { do: 'close' };

type Doing = Command['do'];
type Handlers = { [D in Doing]: (state: State, command: Extract<Command, { do: D }>) => State };

/** Commands that lead somewhere else, so that Back leads back; the others change what is looked at in place. */
const steps: ReadonlySet<Doing> = new Set<Doing>([
  'lay only these frames',
  'add a row',
  'take off a row',
  'balance a row by a neutral',
  'add columns',
  'take off a column',
  'take off an export',
  'enlarge',
]);
export const isStep = (command: Command): boolean => steps.has(command.do);

/** How many more columns there is room for. */
export const roomFor = (state: State): number => Math.max(0, MOST_COLUMNS - state.columns.length);

const rowFor = (frame: string): Row => ({ frame, white: asInFile });
const without = <T>(list: readonly T[], at: number): T[] => list.filter((_, i) => i !== at);
const replaced = <T>(list: readonly T[], at: number, change: (one: T) => T): T[] =>
  list.map((one, i) => (i === at ? change(one) : one));

function swapped<T>(list: readonly T[], a: number, b: number): T[] {
  const out = [...list];
  const one = out[a];
  const other = out[b];
  if (one === undefined || other === undefined) return out;
  out[a] = other;
  out[b] = one;
  return out;
}

function referenceWithout(reference: number, column: number): number {
  if (reference === column) return 0;
  return reference > column ? reference - 1 : reference;
}

function moveColumn(state: State, column: number, by: -1 | 1): State {
  const to = column + by;
  if (to < 0 || to >= state.columns.length) return state;
  let { reference } = state;
  if (reference === column) reference = to;
  else if (reference === to) reference = column;
  return { ...state, columns: swapped(state.columns, column, to), reference };
}

const handlers: Handlers = {
  'lay only these frames': (state, { frames }) => ({ ...state, rows: frames.map(rowFor) }),
  'add a row': (state, { frame }) => ({ ...state, rows: [...state.rows, rowFor(frame)] }),
  'take off a row': (state, { row }) => ({ ...state, rows: without(state.rows, row) }),
  'move a row up': (state, { row }) => (row > 0 ? { ...state, rows: swapped(state.rows, row, row - 1) } : state),
  'balance a row': (state, { row, white }) => ({
    ...state,
    rows: replaced(state.rows, row, (one) => ({ ...one, white })),
  }),
  'balance a row by a neutral': (state, { row, neutral }) => ({
    ...state,
    rows: replaced(state.rows, row, (one) => ({ ...one, white: { by: 'neutral', neutral } })),
  }),
  'add columns': (state, { columns, at = state.columns.length }) => ({
    ...state,
    columns: [...state.columns.slice(0, at), ...columns.slice(0, roomFor(state)), ...state.columns.slice(at)],
  }),
  'change a column': (state, { column, to }) => ({ ...state, columns: replaced(state.columns, column, () => to) }),
  'strengthen a column': (state, { column, by }) => ({
    ...state,
    columns: replaced(state.columns, column, (one) => strengthened(one, by)),
  }),
  'take off a column': (state, { column }) => ({
    ...state,
    columns: without(state.columns, column),
    reference: referenceWithout(state.reference, column),
  }),
  'take off an export': (state, { label }) => ({
    ...state,
    columns: state.columns.filter((column) => !isExport(column.source, label)),
    reference: 0,
  }),
  'move a column': (state, { column, by }) => moveColumn(state, column, by),
  'make the reference': (state, { column }) => ({ ...state, reference: column }),
  'compress all columns': (state, { on }) => ({
    ...state,
    columns: state.columns.map((column) => ({ ...column, range: on })),
  }),
  'set the range': (state, { range }) => ({ ...state, range }),
  'switch differences': (state) => ({ ...state, difference: !state.difference }),
  'switch marks': (state) => ({ ...state, mark: !state.mark }),
  shuffle: (state, { seed }) => ({ ...state, blind: state.blind ? 0 : seed }),
  surround: (state, { gray }) => ({ ...state, surround: gray }),
  enlarge: (state, { row, column }) => {
    const alone = column === state.reference || state.columns.length < 2;
    return { ...state, open: { row, columns: alone ? [column] : [state.reference, column] } };
  },
  'put beside': (state, { column }) =>
    state.open
      ? { ...state, open: { ...state.open, columns: [...state.open.columns, column].slice(0, MOST_LARGE) } }
      : state,
  'take away': (state, { place }) =>
    state.open ? { ...state, open: { ...state.open, columns: without(state.open.columns, place) } } : state,
  close: (state) => ({ ...state, open: null }),
};

/**
 * Whether what a command speaks of is there: a key pressed twice, or a second person's change that came in between,
 * may name a row or column that was just taken off.
 */
function isThere(state: State, command: Command): boolean {
  if ('column' in command && !(command.column in state.columns)) return false;
  return !('row' in command && !(command.row in state.rows));
}

/** The state after a command; the same state where the command speaks of a row or column that is not there. */
export function perform(state: State, command: Command): State {
  if (!isThere(state, command)) return state;
  const handle = handlers[command.do] as (state: State, command: Command) => State;
  return handle(state, command);
}
