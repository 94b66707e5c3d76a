/** An editor's own list of opening rules: read, with all that nobody here understands, and written with it again. */
import { isInBundle } from '../editor/place-schema';
import { hasUnseen } from '../editor/own-folder';
import { canonical } from '../sync/bundle';
import { asLines, linesOf, withoutMark } from '../sync/list-text';
import { Problem } from '../problem';
import type { Code, Opening, Scalar } from './descriptor';
import { conditions, settings, tidy, type Condition, type Definition, type Rule, type Setting } from './rule';

export type Pair = readonly [key: string, value: Scalar];
/** A rule in the editor's own words. */
export interface OwnRule {
  when: readonly Pair[];
  start: readonly Pair[];
  /** remarks and empty lines above it, of a list of lines */ above: readonly string[];
  /** what else an object says beside its two parts, in JSON */ rest: Readonly<Record<string, unknown>>;
}
export interface OwnRules {
  rules: OwnRule[];
  /** what stands behind the last rule */ tail: string[];
}

const unreadable = (path: string, why: string): Problem =>
  new Problem(
    'opening-unreadable',
    `The opening rules cannot be read: ${why}. They are left as they are.`,
    path,
    'Start the editor and see whether it reads them, or take the file away.',
  );

/** Reads an editor's list. Throws a Problem where the text is none. */
export function readOwnRules(opening: Opening, path: string, text: string): OwnRules {
  return opening.form === 'lines' ? readLines(path, text) : readJson(opening, path, text);
}

function readLines(path: string, text: string): OwnRules {
  const rules: OwnRule[] = [];
  let above: string[] = [];
  for (const [n, line] of linesOf(text).entries()) {
    if (!line.trim() || line.trim().startsWith('#')) {
      above.push(line);
      continue;
    }
    const [when, start, more] = line.split('=>');
    if (when === undefined || start === undefined || more !== undefined)
      throw unreadable(path, `line ${n + 1} is no rule`);
    rules.push({ when: pairsOf(path, n, when), start: pairsOf(path, n, start), above, rest: {} });
    above = [];
  }
  return { rules, tail: above };
}

function pairsOf(path: string, n: number, text: string): Pair[] {
  return text
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part): Pair => {
      const at = part.indexOf('=');
      if (at <= 0) throw unreadable(path, `line ${n + 1} says "${part.slice(0, 40)}", which is no key = value`);
      return [part.slice(0, at).trim(), part.slice(at + 1).trim()];
    });
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isScalar = (value: unknown): value is Scalar => ['string', 'number', 'boolean'].includes(typeof value);

function readJson({ parts }: Opening, path: string, text: string): OwnRules {
  if (!text.trim()) return { rules: [], tail: [] };
  let list: unknown;
  try {
    list = JSON.parse(withoutMark(text));
  } catch (error) {
    throw unreadable(path, (error as Error).message.slice(0, 120));
  }
  if (!Array.isArray(list)) throw unreadable(path, 'it is no list');
  const part = (rule: Record<string, unknown>, name: string | undefined, n: number): Pair[] => {
    const pairs = rule[name ?? ''] ?? {};
    if (!isObject(pairs)) throw unreadable(path, `rule ${n + 1} has no "${name}"`);
    return Object.entries(pairs).map(([key, value]): Pair => {
      if (!isScalar(value)) throw unreadable(path, `rule ${n + 1} says something of "${key}" that is no word`);
      return [key, value];
    });
  };
  return {
    rules: list.map((rule: unknown, n): OwnRule => {
      if (!isObject(rule)) throw unreadable(path, `rule ${n + 1} is none`);
      const rest = Object.fromEntries(
        Object.entries(rule).filter(([name]) => name !== parts?.when && name !== parts?.start),
      );
      return { when: part(rule, parts?.when, n), start: part(rule, parts?.start, n), above: [], rest };
    }),
    tail: [],
  };
}

const lineOf = ({ when, start }: OwnRule): string => {
  const words = (pairs: readonly Pair[]): string => pairs.map(([key, value]) => `${key} = ${value}`).join('; ');
  return `${when.length ? `${words(when)} ` : ''}=> ${words(start)}`;
};

/**
 * The bytes of a list.
 * @param before the text that it takes the place of, whose mark and ends of lines it keeps
 */
export function writeOwnRules(opening: Opening, { rules, tail }: OwnRules, before: string): Uint8Array {
  const { form, parts, list } = opening;
  if (form === 'lines') return asLines([...rules.flatMap((rule) => [...rule.above, lineOf(rule)]), ...tail], before);
  const objects = rules.map(({ when, start, rest }) => ({
    ...rest,
    [parts?.when ?? 'when']: Object.fromEntries(when),
    [parts?.start ?? 'start']: Object.fromEntries(start),
  }));
  return isInBundle(list) ? canonical(objects) : new TextEncoder().encode(`${JSON.stringify(objects, null, 1)}\n`);
}

/** The common word of an editor's value; null where there is none. */
function wordOf(code: Code, definition: Definition, value: Scalar): string | null {
  const known = Object.entries(code.values ?? {}).find(([, own]) => String(own) === String(value));
  if (known) return known[0];
  return definition.named && String(value).trim() ? String(value).trim() : null;
}

/** A text that would end its pair or its line, or is not seen, cannot stand in a list of lines. */
const isUnfitForLine = (text: string): boolean => hasUnseen(text) || text.includes(';') || text.includes('=>');

/** The editor's value of a common word; null where it has none. */
function valueOf({ form }: Opening, code: Code, definition: Definition, word: string): Scalar | null {
  const own = code.values?.[word];
  if (own !== undefined) return own;
  const isWord = definition.values?.includes(word) ?? false;
  if (!definition.named || isWord) return null;
  return form === 'lines' && isUnfitForLine(word) ? null : word;
}

export interface Common {
  rule: Rule;
  /** keys whose meaning nobody here knows */ unknown: string[];
  /** whether all of its conditions are known, so that it is told for which photos it is */ isWhole: boolean;
}

/** What an editor's rule means in common words. */
export function toCommon(opening: Opening, own: OwnRule): Common {
  const unknown: string[] = [];
  const part = <Name extends string>(
    pairs: readonly Pair[],
    codes: Partial<Record<Name, Code>>,
    definitions: Record<Name, Definition>,
  ): Partial<Record<Name, string>> => {
    const said: Partial<Record<Name, string>> = {};
    for (const [key, value] of pairs) {
      const name = (Object.keys(codes) as Name[]).find((one) => codes[one]?.key === key);
      const code = name && codes[name];
      const word = name && code ? wordOf(code, definitions[name], value) : null;
      if (name && word !== null) said[name] = word;
      else unknown.push(key);
    }
    return said;
  };
  const when = part<Condition>(own.when, opening.when, conditions);
  const isWhole = unknown.length === 0;
  const start = part<Setting>(own.start, opening.start, settings);
  return { rule: tidy({ when, start }), unknown, isWhole };
}

/**
 * A rule in the editor's words; null where it has no word for one of the conditions, so that the rule would be for other
 * photos than it is meant for, or for nothing of what a photo is begun with.
 */
export function toOwn(opening: Opening, rule: Rule): { own: OwnRule | null; cannot: string[] } {
  const cannot: string[] = [];
  const pairs = <Name extends string>(
    said: Partial<Record<Name, string>>,
    codes: Partial<Record<Name, Code>>,
    definitions: Record<Name, Definition>,
  ): Pair[] =>
    (Object.keys(definitions) as Name[]).flatMap((name) => {
      const word = said[name];
      if (!word) return [];
      const code = codes[name];
      const value = code ? valueOf(opening, code, definitions[name], word) : null;
      if (code && value !== null) return [[code.key, value] as const];
      cannot.push(`${definitions[name].label}: ${word}`);
      return [];
    });
  const when = pairs<Condition>(rule.when, opening.when, conditions);
  const lost = cannot.length > 0;
  const start = pairs<Setting>(rule.start, opening.start, settings);
  return { own: lost || !start.length ? null : { when, start, above: [], rest: {} }, cannot };
}
