/** Which spines are chosen, to be changed together. */
import type { Spine } from './spine';

export type Selection = ReadonlyMap<string, Spine>;

export const nothingChosen: Selection = new Map();

/** A spine chosen, or put back. */
export function toggled(selection: Selection, spine: Spine): Selection {
  const next = new Map(selection);
  if (!next.delete(spine.id)) next.set(spine.id, spine);
  return next;
}

/** What a drag of some spines moves: all that are chosen where the one under the pointer is among them. */
export const draggedBy = (ids: readonly string[], selection: Selection): string[] =>
  ids.length === 1 && ids.some((id) => selection.has(id)) ? [...selection.keys()] : [...ids];

/** Those that a rollout takes. */
export const rollable = (selection: Selection): Spine[] =>
  [...selection.values()].filter(
    (spine) => spine.status === 'approved' && (spine.kind === 'look' || spine.kind === 'preset'),
  );
