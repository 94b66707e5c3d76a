/** Which spines are chosen, to be changed together. */
import { isPlaceable } from '@/core/editor/accepted-kinds';
import type { Spine } from './spine';

export type Selection = ReadonlyMap<string, Spine>;

export const nothingChosen: Selection = new Map();

/** A spine chosen, or put back. */
export function toggled(selection: Selection, spine: Spine): Selection {
  const next = new Map(selection);
  if (!next.delete(spine.id)) next.set(spine.id, spine);
  return next;
}

/** With all between two of a list, both included; with the second alone where the first does not stand in it. */
export function chosenBetween(selection: Selection, list: readonly Spine[], from: string | null, to: Spine): Selection {
  const [start, end] = [list.findIndex((one) => one.id === from), list.findIndex((one) => one.id === to.id)];
  const between = start < 0 || end < 0 ? [to] : list.slice(Math.min(start, end), Math.max(start, end) + 1);
  return new Map([...selection, ...between.map((spine): [string, Spine] => [spine.id, spine])]);
}

/** What a drag of some spines moves: all that are chosen where the one under the pointer is among them. */
export const draggedBy = (ids: readonly string[], selection: Selection): string[] =>
  ids.length === 1 && ids.some((id) => selection.has(id)) ? [...selection.keys()] : [...ids];

/** An address holds so many versions: servers take no line of more than 16 KB. */
export const MOST_IN_ADDRESS = 400;

/** Where a rollout of versions is planned; of more than an address holds, of the first. */
export const planAddress = (versions: readonly string[]): string =>
  `/rollouts/new?versions=${versions.slice(0, MOST_IN_ADDRESS).join(',')}`;

/** Those that a rollout takes. */
export const rollable = (selection: Selection): Spine[] =>
  [...selection.values()].filter((spine) => spine.status === 'approved' && isPlaceable(spine.kind));
