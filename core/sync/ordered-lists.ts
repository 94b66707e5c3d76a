/**
 * Ordered lists that two sides keep, such as an editor's favorites: ours and theirs, merged three ways. The base is what we
 * last asked for, so that what they added and what they took off is told from what we did; nobody's own entry is lost.
 */

/** Entries that both name, in whatever spelling a system takes for the same. */
type Fold = (entry: string) => string;

export interface MergedList {
  /** what the list is to be */ entries: string[];
  /** ours that they do not have yet */ added: string[];
  /** theirs that we asked for once and ask for no longer */ removed: string[];
  /** in their list, and never asked for by us */ theirs: string[];
  /** we ask for them, they had them, and took them off: they stay off */ takenOff: string[];
  /** Whose order it has, where one side has moved something: theirs where both have. */ order:
    'same' | 'ours' | 'theirs';
}

const once = (entries: readonly string[], fold: Fold): Map<string, string> => {
  const first = new Map<string, string>();
  for (const entry of entries) if (!first.has(fold(entry))) first.set(fold(entry), entry);
  return first;
};

/** Whether those that all three have stand in another order than they did. */
function isMoved(now: readonly string[], base: readonly string[], shared: ReadonlySet<string>): boolean {
  const before = base.filter((key) => shared.has(key));
  return now.filter((key) => shared.has(key)).some((key, n) => key !== before[n]);
}

/** Puts each entry that a list lacks behind the one that it stands behind in the other, or at the beginning. */
function woven(spine: readonly string[], other: readonly string[]): string[] {
  const list = [...spine];
  const has = new Set(spine);
  let behind = -1;
  for (const key of other) {
    if (has.has(key)) behind = list.indexOf(key);
    else list.splice(++behind, 0, key);
  }
  return list;
}

/**
 * Merges two lists whose common past is known. Where only one side has changed something, the result is that side's list.
 * @param base what we asked for when we last wrote there; empty where we never did
 * @param fold under which two spellings are one entry; theirs is kept
 */
export function mergeLists(
  base: readonly string[],
  ours: readonly string[],
  theirs: readonly string[],
  fold: Fold = (entry) => entry,
): MergedList {
  const [inBase, inOurs, inTheirs] = [base, ours, theirs].map((list) => once(list, fold)) as [
    Map<string, string>,
    Map<string, string>,
    Map<string, string>,
  ];
  const stays = (key: string): boolean => (inBase.has(key) ? inOurs.has(key) && inTheirs.has(key) : true);
  const [baseKeys, ourKeys, theirKeys] = [[...inBase.keys()], [...inOurs.keys()], [...inTheirs.keys()]];
  const shared = new Set(baseKeys.filter((key) => inOurs.has(key) && inTheirs.has(key)));
  const theyMoved = isMoved(theirKeys, baseKeys, shared);
  const weMoved = isMoved(ourKeys, baseKeys, shared);
  const [spine, other] = weMoved && !theyMoved ? [ourKeys, theirKeys] : [theirKeys, ourKeys];
  const keys = woven(spine.filter(stays), other.filter(stays));
  const spelled = (key: string): string => inTheirs.get(key) ?? inOurs.get(key) ?? key;
  return {
    entries: keys.map(spelled),
    added: ourKeys.filter((key) => !inTheirs.has(key) && !inBase.has(key)).map(spelled),
    removed: theirKeys.filter((key) => inBase.has(key) && !inOurs.has(key)).map(spelled),
    theirs: theirKeys.filter((key) => !inOurs.has(key) && !inBase.has(key)).map(spelled),
    takenOff: ourKeys.filter((key) => inBase.has(key) && !inTheirs.has(key)).map(spelled),
    order: orderOf(theyMoved, weMoved),
  };
}

function orderOf(theyMoved: boolean, weMoved: boolean): MergedList['order'] {
  if (theyMoved) return 'theirs';
  return weMoved ? 'ours' : 'same';
}

/** How an entry of a merged list came to be in it, or why it is not. */
export type EntryMark = 'both' | 'ours' | 'theirs' | 'removed' | 'taken-off';

/** Which entries a list has, which it gets, and, at its end, which it has no more. */
export function markedEntries({
  entries,
  added,
  removed,
  theirs,
  takenOff,
}: MergedList): { entry: string; mark: EntryMark }[] {
  const [ours, own] = [new Set(added), new Set(theirs)];
  const markOf = (entry: string): EntryMark => {
    if (ours.has(entry)) return 'ours';
    return own.has(entry) ? 'theirs' : 'both';
  };
  return [
    ...entries.map((entry) => ({ entry, mark: markOf(entry) })),
    ...removed.map((entry) => ({ entry, mark: 'removed' as const })),
    ...takenOff.map((entry) => ({ entry, mark: 'taken-off' as const })),
  ];
}
