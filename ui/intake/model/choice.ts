/**
 * Which files of an arrival are left out. A group is left out or taken as a whole, with those that are not shown; single
 * files are exceptions from what their group is.
 */
import type { EntryGroup } from '@/core/api/arrivals';

export interface Choice {
  /** groups that are left out, and how many files each could give */ groups: ReadonlyMap<EntryGroup, number>;
  /** files that are not as their group */ exceptions: ReadonlyMap<number, EntryGroup>;
}

export const takeAll: Choice = { groups: new Map(), exceptions: new Map() };

export const isLeft = ({ groups, exceptions }: Choice, group: EntryGroup, entry: number): boolean =>
  groups.has(group) !== exceptions.has(entry);

/** Whether all of a group is taken, what is not shown of it included. */
export const isWhole = ({ groups, exceptions }: Choice, group: EntryGroup): boolean =>
  !groups.has(group) && ![...exceptions.values()].includes(group);

export function takeEntries(choice: Choice, group: EntryGroup, entries: readonly number[], on: boolean): Choice {
  const exceptions = new Map(choice.exceptions);
  for (const entry of entries) {
    if (on === choice.groups.has(group)) exceptions.set(entry, group);
    else exceptions.delete(entry);
  }
  return { ...choice, exceptions };
}

/** @param takeable how many of the group's files could be taken */
export function takeGroup(choice: Choice, group: EntryGroup, takeable: number, on: boolean): Choice {
  const groups = new Map(choice.groups);
  if (on) groups.delete(group);
  else groups.set(group, takeable);
  return { groups, exceptions: new Map([...choice.exceptions].filter(([, of]) => of !== group)) };
}

/** How many files are left out. */
export function leftOut({ groups, exceptions }: Choice): number {
  let count = 0;
  for (const takeable of groups.values()) count += takeable;
  for (const group of exceptions.values()) count += groups.has(group) ? -1 : 1;
  return count;
}

/** As it is sent. */
export const exceptOf = ({ groups, exceptions }: Choice): { except: number[]; exceptGroups: EntryGroup[] } => ({
  except: [...exceptions.keys()],
  exceptGroups: [...groups.keys()],
});
