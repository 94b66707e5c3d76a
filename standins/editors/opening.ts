/** What a stand-in editor does with a photo that it opens: the first of its rules that fits is taken. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { options, read } from './program';

export type Word = string | number | boolean;
export interface OpeningRule {
  when: Record<string, Word>;
  start: Record<string, Word>;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function pairs(text: string, line: number): Record<string, Word> {
  return Object.fromEntries(
    text
      .split(';')
      .map((part) => part.trim())
      .filter(Boolean)
      .map((part) => {
        const [, key, value] = /^([^=]+?)\s*=\s*(.+)$/.exec(part) ?? [];
        if (!key || !value) throw new Error(`line ${line} of the opening rules is broken at "${part}"`);
        return [key, value];
      }),
  );
}

/** Rules a line each, `key = value; key = value => key = value`; empty where there is no file. Throws where it is broken. */
export function rulesInFile(path: string): OpeningRule[] {
  if (!existsSync(join(options.root, path))) return [];
  return read(path)
    .toString('utf8')
    .split(/\r?\n/)
    .flatMap((text, n): OpeningRule[] => {
      if (!text.trim() || text.trim().startsWith('#')) return [];
      const [when, start, more] = text.split('=>');
      if (when === undefined || start === undefined || more !== undefined)
        throw new Error(`line ${n + 1} of the opening rules is no rule`);
      return [{ when: pairs(when, n + 1), start: pairs(start, n + 1) }];
    });
}

/** Rules as objects with two parts. Throws where they are none. */
export function rulesIn(list: unknown, when: string, start: string): OpeningRule[] {
  if (!Array.isArray(list)) throw new Error('the opening rules are no list');
  return list.map((rule: unknown, n) => {
    const parts = isObject(rule) ? [rule[when] ?? {}, rule[start] ?? {}] : [];
    if (parts.length !== 2 || !parts.every(isObject)) throw new Error(`opening rule ${n + 1} is broken`);
    return { when: parts[0] as OpeningRule['when'], start: parts[1] as OpeningRule['start'] };
  });
}

/** "100-800", "1600-". */
function isWithin(range: string, value: number): boolean {
  const [from, to] = range.split('-');
  return value >= Number(from) && (!to || value <= Number(to));
}

/** What a photo is begun with; nothing where no rule fits, and a condition that the editor does not know fits nothing. */
export function begin(
  rules: readonly OpeningRule[],
  facts: Readonly<Record<string, Word>>,
  speed: { key: string; iso: number },
): OpeningRule['start'] {
  const fits = ({ when }: OpeningRule): boolean =>
    Object.entries(when).every(([key, value]) =>
      key === speed.key ? isWithin(String(value), speed.iso) : String(facts[key]) === String(value),
    );
  return rules.find(fits)?.start ?? {};
}
