/** What a column is called. */
import type { Candidate } from './candidate';
import { versionsOf, type Column } from './column';
import { orderOf, type State } from './state';

export type Candidates = ReadonlyMap<string, Candidate>;

const letters = 'ABCDEFGHIJKLMNOP';

export function nameOf(column: Column, candidates: Candidates): string {
  const { source, layers } = column;
  if (source.from === 'camera-jpeg') return 'Camera’s own JPEG';
  const titles = versionsOf(column).flatMap((version) => candidates.get(version)?.title ?? []);
  if (source.from === 'export') return [`Export: ${source.label}`, ...titles].join(' + ');
  if (titles.length) return titles.join(' + ');
  return layers.length || source.from === 'profile' ? 'Gone from the shelves' : 'No look';
}

/** The same, but for those whose name nobody is to know. */
export function shownName(state: State, index: number, candidates: Candidates): string {
  const column = state.columns[index];
  if (!column) return '';
  if (!state.blind || index === state.reference) return nameOf(column, candidates);
  const place = orderOf(state)
    .filter((column) => column !== state.reference)
    .indexOf(index);
  return `Candidate ${letters[place] ?? index + 1}`;
}
