/**
 * The three-way view of one key (a file at a place, an entry of a bundle): what we put there last (base), what should be
 * there, what is there. States are content hashes, null for nothing.
 */
export type State = string | null;
export type Decision =
  | /** as it should be */ 'in-step'
    /** unchanged there since we put it; ours is to be written or taken away */
  | 'put'
  | 'remove'
  /** we want no change, someone there made one */
  | 'changed-there'
  | 'gone-there'
  | 'theirs'
  /** both changed, or something else lies where we want to put ours */
  | 'conflict';

/** Somebody there has changed what was put there or taken it away, or something else lies where ours would go. */
export const isChangedThere = (decision: string): boolean =>
  ['changed-there', 'gone-there', 'conflict'].includes(decision);

export function decide(base: State, should: State, is: State): Decision {
  if (should === is) return 'in-step';
  if (base === is) return should === null ? 'remove' : 'put';
  if (base === should) {
    if (base === null) return 'theirs';
    if (is === null) return 'gone-there';
    return 'changed-there';
  }
  return 'conflict';
}

export interface Keyed {
  key: string;
  base: State;
  should: State;
  is: State;
}

/** Folds a path to the key under which a system keeps it: NFC, and lower case where the system ignores case. */
export const foldKey = (path: string, system: 'macos' | 'windows' | 'linux'): string =>
  system === 'linux' ? path.normalize('NFC') : path.normalize('NFC').toLowerCase();

/** Merges three maps (path → hash) into one list by folded key; the path shown is the one that is there, else ours. */
export function merge(
  base: ReadonlyMap<string, string>,
  should: ReadonlyMap<string, string>,
  is: ReadonlyMap<string, string>,
  system: 'macos' | 'windows' | 'linux',
): (Keyed & { path: string; decision: Decision })[] {
  const rows = new Map<string, Keyed & { path: string }>();
  const row = (path: string) => {
    const key = foldKey(path, system);
    let keyed = rows.get(key);
    if (!keyed) rows.set(key, (keyed = { key, path, base: null, should: null, is: null }));
    return keyed;
  };
  for (const [path, sha] of should) row(path).should = sha;
  for (const [path, sha] of base) row(path).base = sha;
  for (const [path, sha] of is) {
    const keyed = row(path);
    keyed.is = sha;
    keyed.path = path;
  }
  return [...rows.values()]
    .map((r) => ({ ...r, decision: decide(r.base, r.should, r.is) }))
    .sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** docs/three-way.md: the table of all combinations, from the code. */
export function documentation(): string {
  const states: State[] = [null, 'A', 'B', 'C'];
  const seen = new Set<string>();
  const lines: string[] = [];
  for (const base of states)
    for (const should of states)
      for (const is of states) {
        // the same pattern under other letters is the same row
        const names = new Map<string, string>();
        const name = (s: State) => (s === null ? '–' : (names.get(s) ?? names.set(s, 'ABC'[names.size]!).get(s)!));
        const key = [base, should, is].map(name).join(' | ');
        if (!seen.has(key)) {
          seen.add(key);
          lines.push(`| ${key} | ${decide(base, should, is)} |`);
        }
      }
  return [
    '# The three-way view',
    '',
    '<!-- Written by `bin/etagere docs three-way` from core/sync; do not edit by hand. -->',
    '',
    'Base is what we put last, A, B and C are contents, – is nothing.',
    '',
    '| base | should | is | decision |',
    '| --- | --- | --- | --- |',
    ...lines,
    '',
    '`put` and `remove` are carried out; `changed-there` and `gone-there` are shown and left alone until a person decides: ours again, theirs let be, or theirs taken in; `theirs` is not touched, but by a plan that takes a second copy of a file of ours away; `conflict` waits for a person.',
    '',
  ].join('\n');
}
