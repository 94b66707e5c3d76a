/** Common settings → the steps of a language: a mapping turned round, entry by entry. What it cannot say is told with its reason. */
import { equal } from '../same';
import type { WrittenValue } from './container';
import type { Settings } from './kinds';
import { isNumbered, separatorsOf, type FieldRule, type Mapping, type MappingEntry } from './mapping';
import { back, faultOfRule, type NumberRule } from './number-rule';
import { allSettings, isNeutral, settingById } from './settings';

export interface StepToWrite {
  name: string;
  /** the attributes that tell which step of that name it is */ when: Record<string, string>;
  attributes: Record<string, WrittenValue>;
}
export interface NotWritten {
  setting: string;
  reason: string;
}
export interface StepsToWrite {
  steps: StepToWrite[];
  left: NotWritten[];
}

type Attributes = Record<string, WrittenValue>;
/** What an entry makes of a value: its attributes, and what they are read as; or why it cannot say it. */
type Said = { attributes: Attributes; reads: unknown } | { fault: string };

const isFault = (said: Said): said is { fault: string } => 'fault' in said;
const textValue = (text: string): WrittenValue => ({ text, json: text });
const numberValue = (value: number): WrittenValue => ({ text: String(value), json: value });

/** How far apart two values are, by the largest difference of their numbers; Infinity where they have no common shape. */
export function deviation(one: unknown, other: unknown): number {
  if (typeof one === 'number' && typeof other === 'number') return Math.abs(one - other);
  if (!one || !other || typeof one !== 'object' || typeof other !== 'object') return one === other ? 0 : Infinity;
  const keys = Object.keys(one);
  if (keys.length !== Object.keys(other).length) return Infinity;
  const far = keys.map((key) => deviation((one as Settings)[key], (other as Settings)[key]));
  return far.reduce((most, value) => Math.max(most, value), 0);
}

function sayNumber(rule: NumberRule, attribute: string, value: unknown): Said {
  const fault = faultOfRule(rule);
  if (fault) return { fault: `its mapping ${fault}` };
  const turned = typeof value === 'number' ? back(rule, value) : null;
  if (!turned) return { fault: `no value of ${attribute} gives ${JSON.stringify(value)}` };
  return { attributes: { [attribute]: numberValue(turned.property) }, reads: turned.reads };
}

function sayNumbers(entry: MappingEntry, attribute: string, value: unknown): Said {
  const turned = (value as number[]).map((one) => back(entry, one));
  if (turned.some((one) => !one)) return { fault: `no value of ${attribute} gives ${JSON.stringify(value)}` };
  const numbers = turned.map((one) => one!.property);
  return {
    attributes: { [attribute]: { text: numbers.join(' '), json: numbers } },
    reads: turned.map((one) => one!.reads),
  };
}

function sayPoints(entry: MappingEntry, attribute: string, value: unknown): Said {
  const turned = (value as number[][]).map((point) => point.map((one) => back(entry, one)));
  if (turned.flat().some((one) => !one)) return { fault: `no points of ${attribute} give this curve` };
  const points = turned.map((point) => point.map((one) => one!.property));
  const { point, pair } = separatorsOf(entry);
  const text = points.map((one) => one.join(pair)).join(point);
  return {
    attributes: { [attribute]: { text, json: entry.separators ? text : points } },
    reads: turned.map((one) => one.map((number) => number!.reads)),
  };
}

function sayName(entry: MappingEntry, attribute: string, value: unknown): Said {
  const word = Object.keys(entry.names!).find((name) => equal(entry.names![name], value));
  if (word === undefined) return { fault: `no word of ${attribute} stands for ${JSON.stringify(value)}` };
  const isTruth = word === 'true' || word === 'false';
  return { attributes: { [attribute]: { text: word, json: isTruth ? word === 'true' : word } }, reads: value };
}

/** The first parts in whole multiples, towards zero; the last has what remains. */
function saySum(rules: readonly FieldRule[], value: unknown): Said {
  let rest = value as number;
  let reads = 0;
  const attributes: Attributes = {};
  for (const [index, rule] of rules.entries()) {
    const isLast = index === rules.length - 1;
    const whole = (rule.scale ?? 1) * (rule.multipleOf ?? 1);
    const part = isLast ? rest : Math.trunc(rest / whole + 1e-9 * Math.sign(rest)) * whole;
    const said = sayNumber(rule, rule.attribute, part);
    if (isFault(said)) return said;
    Object.assign(attributes, said.attributes);
    reads += said.reads as number;
    rest = Math.round((rest - (said.reads as number)) * 1e9) / 1e9;
  }
  return { attributes, reads: Math.round(reads * 1e9) / 1e9 };
}

/** An object or a list over several attributes. Fields at their default are left out. */
function sayFields(entry: MappingEntry, value: unknown): Said {
  const attributes: Attributes = {};
  const reads: Record<string, unknown> = { ...entry.constants };
  for (const [field, asked] of Object.entries(value as Settings)) {
    const rule = entry.fields![field];
    if (!rule) {
      const constant = entry.constants?.[field];
      if (constant === undefined) return { fault: `it has no place for ${field}` };
      if (deviation(constant, asked) > 1e-9)
        return { fault: `its ${field} is always ${constant}, not ${JSON.stringify(asked)}` };
      continue;
    }
    if (equal(rule.default, asked)) reads[field] = asked;
    else if (rule.as === 'text') {
      attributes[rule.attribute] = textValue(String(asked));
      reads[field] = asked;
    } else {
      const said = sayNumber(rule, rule.attribute, asked);
      if (isFault(said)) return said;
      Object.assign(attributes, said.attributes);
      reads[field] = said.reads;
    }
  }
  const missing = Object.entries(entry.fields!).find(
    ([field, rule]) => !(field in reads) && rule.default === undefined,
  );
  if (missing) return { fault: `it needs ${missing[0]}` };
  return { attributes, reads: isNumbered(entry) ? Object.values(reads) : reads };
}

/** What an entry makes of a value of its setting, or of one field of it. */
function say(entry: MappingEntry, value: unknown): Said {
  if (entry.fields) return sayFields(entry, value);
  if (entry.sum) return saySum(entry.sum, value);
  const attribute = entry.attribute!;
  if (entry.names) return sayName(entry, attribute, value);
  switch (entry.as ?? 'number') {
    case 'text':
      return { attributes: { [attribute]: textValue(String(value)) }, reads: value };
    case 'numbers':
      return sayNumbers(entry, attribute, value);
    case 'points':
      return sayPoints(entry, attribute, value);
    default:
      return sayNumber(entry, attribute, value);
  }
}

/** The steps as they are put together: entries share a step where none of them says another thing there. */
class Steps {
  readonly #steps: (StepToWrite & { entries: Set<MappingEntry> })[] = [];

  put(entry: MappingEntry, said: Attributes): void {
    const when = Object.entries(entry.when ?? {}).map(([key, value]) => [key, textValue(value)] as const);
    const attributes = { ...Object.fromEntries(when), ...said };
    const agrees = (there: Attributes) =>
      Object.entries(attributes).every(([key, { text }]) => (there[key]?.text ?? text) === text);
    const shared = this.#steps.find(
      (one) => one.name === entry.step && !one.entries.has(entry) && agrees(one.attributes),
    );
    if (shared) {
      Object.assign(shared.attributes, attributes);
      Object.assign(shared.when, entry.when);
      shared.entries.add(entry);
    } else this.#steps.push({ name: entry.step, when: { ...entry.when }, attributes, entries: new Set([entry]) });
  }

  get all(): StepToWrite[] {
    return this.#steps.map(({ name, when, attributes }) => ({ name, when, attributes }));
  }
}

/** The entry that says a value best: the first of those that come nearest. */
function best(
  entries: readonly MappingEntry[],
  value: unknown,
): { entry: MappingEntry; said: Attributes } | { fault: string } {
  let found: { entry: MappingEntry; said: Attributes; off: number } | null = null;
  const faults: string[] = [];
  for (const entry of entries) {
    const said = say(entry, value);
    if (isFault(said)) {
      faults.push(said.fault);
      continue;
    }
    const off = deviation(said.reads, value);
    if (!found || off < found.off - 1e-12) found = { entry, said: said.attributes, off };
  }
  return found ?? { fault: faults[0] ?? 'it has no such setting' };
}

/** Puts a value, or each member of a list, by whichever entry says it; the reason where none does. */
function putBy(steps: Steps, entries: readonly MappingEntry[], value: unknown, what = ''): string | null {
  const found = best(entries, value);
  if ('fault' in found) return `${what}${found.fault}`;
  steps.put(found.entry, found.said);
  return null;
}

function putList(steps: Steps, entries: readonly MappingEntry[], members: readonly unknown[]): string | null {
  for (const [index, member] of members.entries()) {
    const fault = putBy(steps, entries, member, members.length > 1 ? `member ${index + 1}: ` : '');
    if (fault) return fault;
  }
  return null;
}

/** A setting whose object is written field by field, or that is there at all by its step's being there. */
function putObject(steps: Steps, id: string, entries: readonly MappingEntry[], value: Settings): string | null {
  const fieldOf = (entry: MappingEntry) => entry.to.slice(id.length + 1);
  const nested = entries.filter((entry) => entry.to !== id);
  const fields = new Set(nested.map(fieldOf));
  const bare = Object.fromEntries(Object.entries(value).filter(([field]) => !fields.has(field)));
  const whole = entries.find((entry) => {
    const constant = entry.constant as Settings | null | undefined;
    if (!constant || typeof constant !== 'object') return false;
    return equal(Object.fromEntries(Object.entries(constant).filter(([field]) => !fields.has(field))), bare);
  });
  if (!whole && Object.keys(bare).length) return `it has no place for ${Object.keys(bare).join(', ')}`;
  if (whole) steps.put(whole, {});
  for (const [field, asked] of Object.entries(value)) {
    const own = nested.filter((entry) => fieldOf(entry) === field);
    const lists = own.filter((entry) => entry.list);
    if (!own.length) {
      if (equal((whole?.constant as Settings | undefined)?.[field], asked)) continue;
      return `it has no place for ${field}`;
    }
    const fault = lists.length ? putList(steps, lists, asked as unknown[]) : putBy(steps, own, asked);
    if (fault) return fault;
  }
  return null;
}

function putSetting(steps: Steps, id: string, entries: readonly MappingEntry[], value: unknown): string | null {
  const lists = entries.filter((entry) => entry.list && entry.to === id);
  if (lists.length) return putList(steps, lists, value as unknown[]);
  const constants = entries.filter((entry) => entry.constant !== undefined);
  const exact = constants.find((entry) => equal(entry.constant, value));
  if (exact) {
    steps.put(exact, {});
    return null;
  }
  if (constants.length || entries.some((entry) => entry.to !== id)) {
    if (value && typeof value === 'object' && !Array.isArray(value))
      return putObject(steps, id, entries, value as Settings);
  }
  const whole = entries.filter((entry) => entry.to === id && entry.constant === undefined);
  return putBy(steps, whole, value);
}

/** A number that changes nothing, as a language that writes all its properties has it. */
function putDefaults(steps: Steps, mapping: Mapping, settings: Settings): void {
  for (const entry of mapping.entries) {
    const definition = settingById.get(entry.to);
    const isPlain = !!entry.attribute && !entry.when && !entry.list && entry.constant === undefined;
    if (!definition || !isPlain || settings[entry.to] !== undefined || typeof definition.neutral !== 'number') continue;
    const said = say(entry, definition.neutral);
    if (!isFault(said)) steps.put(entry, said.attributes);
  }
}

/** The steps that say these settings, in the order of docs/common-settings.md, and what no entry can say. */
export function stepsToWrite(mapping: Mapping, settings: Settings): StepsToWrite {
  const steps = new Steps();
  const left: NotWritten[] = [];
  for (const { id } of allSettings) {
    const value = settings[id];
    if (value === undefined || isNeutral(id, value)) continue;
    const entries = mapping.entries.filter((entry) => entry.to.split('.')[0] === id);
    // a setting is written whole or not at all
    const reason = entries.length ? putSetting(new Steps(), id, entries, value) : 'it has no such setting';
    if (reason) left.push({ setting: id, reason });
    else putSetting(steps, id, entries, value);
  }
  if (mapping.defaults === 'written') putDefaults(steps, mapping, settings);
  return { steps: steps.all, left };
}
