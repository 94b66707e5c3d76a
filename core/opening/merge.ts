/** Opening rules of the studio and of an editor at a station, merged three ways: rule by rule, and within one setting by setting. */
import { markedEntries, mergeLists, type EntryMark, type MergedList } from '../sync/ordered-lists';
import type { Opening } from './descriptor';
import { toCommon, toOwn, type Common, type OwnRule, type OwnRules, type Pair } from './file';
import { settingNames, whenWords, type Rule, type Setting } from './rule';

/** One setting of a rule: as it is there, as the studio has it, and as it will be. */
export interface Cell {
  is: string | null;
  should: string | null;
  will: string | null;
}
export interface MergedRow {
  /** which photos the rule is for */ words: string;
  mark: EntryMark;
  cells: Partial<Record<Setting, Cell>>;
  /** what else the editor's own rule says, which stays */ unknown: string[];
  /** whether it is known for which photos it is */ isWhole: boolean;
}
export interface MergedRules {
  rules: OwnRules;
  rows: MergedRow[];
  /** what of the studio's rules the editor has no words for, by rule */ cannot: { words: string; what: string[] }[];
  order: MergedList['order'];
  /** whether something is to be written */ due: boolean;
}

const keyOf = ({ when }: OwnRule): string =>
  when
    .map(([key, value]) => `${key} = ${value}`)
    .sort()
    .join('; ');
const byKey = (rules: readonly OwnRule[]): Map<string, OwnRule> => {
  const first = new Map<string, OwnRule>();
  for (const rule of rules) if (!first.has(keyOf(rule))) first.set(keyOf(rule), rule);
  return first;
};
const mapOf = (rule: OwnRule | undefined): Map<string, Pair[1]> => new Map(rule?.start ?? []);
const isSame = (one: Pair[1] | undefined, other: Pair[1] | undefined): boolean =>
  one === undefined || other === undefined ? one === other : String(one) === String(other);

/** Whether each photo that one rule is for is one that another is for too: its conditions are among the other's. */
function covers(one: OwnRule, other: OwnRule): boolean {
  const said = new Set(other.when.map(([key, value]) => `${key} = ${value}`));
  return one.when.every(([key, value]) => said.has(`${key} = ${value}`));
}

/**
 * The first rule that fits is taken: one that is added goes behind rules of theirs that it would hide, and before those that
 * would hide it.
 */
function besideTheirs({ entries, added, theirs }: MergedList, ruleOf: (key: string) => OwnRule | undefined): string[] {
  let list = [...entries];
  for (const key of added) {
    const rule = ruleOf(key);
    if (!rule) continue;
    const own = list.indexOf(key);
    const rest = list.toSpliced(own, 1);
    const hides = (other: string): boolean => {
      const there = theirs.includes(other) ? ruleOf(other) : undefined;
      return there !== undefined && covers(rule, there);
    };
    const isHiddenBy = (other: string): boolean => {
      const there = theirs.includes(other) ? ruleOf(other) : undefined;
      return there !== undefined && covers(there, rule);
    };
    const before = rest.findIndex(isHiddenBy);
    const behind = rest.findLastIndex(hides) + 1;
    const at = Math.max(behind, before < 0 ? own : Math.min(own, before));
    list = rest.toSpliced(at, 0, key);
  }
  return list;
}

/** Setting by setting: where only one side has changed it, that side's; where both have, theirs. */
function mergeStart(base: OwnRule | undefined, ours: OwnRule, theirs: OwnRule): Pair[] {
  const [was, asked, is] = [mapOf(base), mapOf(ours), mapOf(theirs)];
  return [...new Set([...is.keys(), ...asked.keys()])].flatMap((key): Pair[] => {
    const value = isSame(was.get(key), is.get(key)) ? asked.get(key) : is.get(key);
    return value === undefined ? [] : [[key, value]];
  });
}

/** What the base is taken for where somebody says that the studio's rules go over what was changed there. */
function insisted(base: Map<string, OwnRule>, ours: Map<string, OwnRule>, theirs: Map<string, OwnRule>) {
  const changed = new Map(base);
  for (const [key, mine] of ours) {
    const there = theirs.get(key);
    // of a rule that is there, what the studio says of it now or said of it once
    const said = new Set([...mapOf(mine).keys(), ...mapOf(base.get(key)).keys()]);
    if (there) changed.set(key, { ...there, start: there.start.filter(([name]) => said.has(name)) });
    else changed.delete(key);
  }
  return changed;
}

/**
 * @param base the studio's rules as they were when we last wrote there; none where we never did
 * @param insist whether the studio's rules go over what was changed there; what they do not speak of stays even so
 */
export function mergeRules(
  opening: Opening,
  base: readonly Rule[],
  ours: readonly Rule[],
  theirs: OwnRules,
  insist = false,
): MergedRules {
  const asked = ours.map((rule) => ({ rule, ...toOwn(opening, rule) }));
  const own = byKey(asked.flatMap((one) => one.own ?? []));
  const there = byKey(theirs.rules);
  const past = byKey(base.flatMap((rule) => toOwn(opening, rule).own ?? []));
  const was = insist ? insisted(past, own, there) : past;
  const order = mergeLists([...was.keys()], [...own.keys()], [...there.keys()]);
  const keys = besideTheirs(order, (key) => there.get(key) ?? own.get(key));
  const rules = keys.flatMap((key): OwnRule[] => {
    const [mine, other] = [own.get(key), there.get(key)];
    if (mine && other) return [{ ...other, start: mergeStart(was.get(key), mine, other) }];
    return [other ?? mine].flatMap((one) => one ?? []);
  });
  const merged = byKey(rules);
  return {
    rules: { rules, tail: theirs.tail },
    rows: markedEntries({ ...order, entries: keys }).map(({ entry: key, mark }) =>
      rowOf(opening, mark, there.get(key), own.get(key), merged.get(key)),
    ),
    cannot: asked.flatMap(({ rule, cannot }) => (cannot.length ? [{ words: whenWords(rule.when), what: cannot }] : [])),
    order: order.order,
    due: !isSameList(rules, theirs.rules),
  };
}

const wordsOf = ({ rule, isWhole }: Common): string =>
  isWhole ? whenWords(rule.when) : `${whenWords(rule.when)}, on conditions that are not known here`;

function rowOf(
  opening: Opening,
  mark: EntryMark,
  is: OwnRule | undefined,
  should: OwnRule | undefined,
  will: OwnRule | undefined,
): MergedRow {
  const common = (one: OwnRule | undefined): Rule['start'] => (one ? toCommon(opening, one).rule.start : {});
  const [now, asked, then] = [common(is), common(should), common(will)];
  const some = will ?? is ?? should;
  const told = some && toCommon(opening, some);
  const cells = settingNames.flatMap((name) =>
    [now, asked, then].some((start) => start[name])
      ? [[name, { is: now[name] ?? null, should: asked[name] ?? null, will: then[name] ?? null }] as const]
      : [],
  );
  return {
    words: told ? wordsOf(told) : '',
    mark,
    cells: Object.fromEntries(cells),
    unknown: told?.unknown ?? [],
    isWhole: told?.isWhole ?? true,
  };
}

/** Whether two lists say the same, in whatever order a rule's own pairs stand. */
function isSameList(one: readonly OwnRule[], other: readonly OwnRule[]): boolean {
  const said = (rules: readonly OwnRule[]): string =>
    JSON.stringify(
      rules.map((rule) => [keyOf(rule), [...mapOf(rule)].map(([key, value]) => `${key} ${value}`).sort()]),
    );
  return said(one) === said(other);
}
