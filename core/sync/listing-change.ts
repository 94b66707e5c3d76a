/** What an editor's own list gained and lost from one telling to the next: the reading before, and the reading after. */
import { groupBy } from '../lists';
import type { Listing } from './protocol';

export interface ListedThing {
  path: string;
  title: string;
  kind: string;
}
export interface RefusedThing {
  path: string;
  reason: string;
}
export interface ListingChange {
  /** how many things it had before and after */ before: number;
  after: number;
  came: ListedThing[];
  gone: ListedThing[];
  /** refused, and not so before */ refused: RefusedThing[];
  /** so many more of them are not told one by one */ more: number;
}

/** Of each, so many are told. */
export const MOST_TOLD = 500;

/** Null where nothing came, went or was refused anew. */
export function listingChange(before: Listing, after: Listing): ListingChange | null {
  const had = new Set(before.listed.map(({ path }) => path));
  const has = new Set(after.listed.map(({ path }) => path));
  const hadRefused = new Set(before.refused.map(({ path }) => path));
  const told = ({ path, title, kind }: ListedThing): ListedThing => ({ path, title, kind });
  const came = after.listed.filter(({ path }) => !had.has(path)).map(told);
  const gone = before.listed.filter(({ path }) => !has.has(path)).map(told);
  const refused = after.refused.filter(({ path }) => !hadRefused.has(path));
  if (!came.length && !gone.length && !refused.length) return null;
  const more = [came, gone, refused].reduce((sum, one) => sum + Math.max(0, one.length - MOST_TOLD), 0);
  return {
    before: before.listed.length,
    after: after.listed.length,
    came: came.slice(0, MOST_TOLD),
    gone: gone.slice(0, MOST_TOLD),
    refused: refused.slice(0, MOST_TOLD),
    more,
  };
}

/** Of one editor, what came of a rollout. */
export interface Reading extends ListingChange {
  /** files of the rollout of which the editor has said nothing yet */ waiting: number;
}

/**
 * All that a list gained and lost until everything that a rollout wrote and took away there is told of.
 * @param changes of one editor since the rollout was confirmed, the oldest first; at least one
 * @param paths of what it wrote where nothing lay, and of what it took away
 */
export function readingOf(changes: readonly ListingChange[], paths: readonly string[]): Reading | null {
  // what it only wrote over was listed before, and is: no change is its doing
  if (!paths.length) return null;
  const waiting = new Set(paths);
  const taken: ListingChange[] = [];
  for (const change of changes) {
    if (taken.length && !waiting.size) break;
    taken.push(change);
    for (const { path } of [...change.came, ...change.gone, ...change.refused]) waiting.delete(path);
  }
  const [first] = taken;
  const last = taken.at(-1);
  if (!first || !last) return null;
  const { came, gone } = settled(taken);
  return {
    before: first.before,
    after: last.after,
    came,
    gone,
    refused: taken.flatMap((one) => one.refused),
    more: taken.reduce((sum, one) => sum + one.more, 0),
    waiting: waiting.size,
  };
}

/** What came and went again in between is neither. */
function settled(changes: readonly ListingChange[]): Pick<ListingChange, 'came' | 'gone'> {
  const steps = changes.flatMap(({ came, gone }) => [
    ...gone.map((thing) => ({ thing, by: -1 })),
    ...came.map((thing) => ({ thing, by: 1 })),
  ]);
  const sums = [...groupBy(steps, ({ thing }) => thing.path).values()].flatMap((all) => {
    const last = all.at(-1);
    return last ? [{ thing: last.thing, sum: all.reduce((sum, { by }) => sum + by, 0) }] : [];
  });
  return {
    came: sums.filter(({ sum }) => sum > 0).map(({ thing }) => thing),
    gone: sums.filter(({ sum }) => sum < 0).map(({ thing }) => thing),
  };
}
