/** How a property becomes a setting, as the form of an entry has it. */
import type { MappingEntry } from '@/core/preset/mapping';
import type { NumberRule } from '@/core/preset/number-rule';
import { allSettings, settingById } from '@/core/preset/settings';
import type { SettingDefinition } from '@/core/preset/kinds';
import { entryFor, type Meaning } from '@/core/preset/workshop/describe';
import { suggestionsFor } from '@/core/preset/workshop/suggest';
import type { Property, PropertyType } from '@/core/preset/workshop/survey';

/** What a setting's value is made of. */
type ValueShape = 'number' | 'text' | 'curve' | 'triple' | 'look' | 'other';

function shapeOf({ id, neutral }: SettingDefinition): ValueShape {
  if (id === 'look') return 'look';
  if (typeof neutral === 'number') return 'number';
  if (typeof neutral === 'string') return 'text';
  if (id.startsWith('curve')) return 'curve';
  const isTriple = Array.isArray(neutral) && neutral.length === 3 && neutral.every((one) => typeof one === 'number');
  return isTriple ? 'triple' : 'other';
}

/** Which shapes a property of a type can be; others are put together from several properties, in the mapping's JSON. */
const shapesFor: Readonly<Record<PropertyType, readonly ValueShape[]>> = {
  number: ['number'],
  numbers: ['triple', 'curve'],
  points: ['curve'],
  word: ['number', 'text', 'look'],
  text: ['text', 'look'],
};

/** The settings that a property can stand for, in the order of docs/common-settings.md. */
export const settingsFor = ({ type }: Property): SettingDefinition[] =>
  allSettings.filter((setting) => shapesFor[type].includes(shapeOf(setting)));

/** A flat list of numbers as points: the same sign between points and within one. */
const flat = { point: ' ', pair: ' ' };

/** The entry by which a property is first taken as a setting: as suggested, or plainly. */
export function firstEntry(property: Property, to: string): MappingEntry {
  const suggested = suggestionsFor(property).find((one) => one.to === to);
  if (suggested) return entryFor(property, to, suggested.rule);
  const setting = settingById.get(to);
  switch (setting && shapeOf(setting)) {
    case 'text':
      return entryFor(property, to, { as: 'text' });
    case 'look': {
      const { attribute: _attribute, ...entry } = entryFor(property, to, {
        fields: { name: { attribute: property.attribute, as: 'text' } },
        constants: { strength: 100 },
      });
      return entry;
    }
    case 'curve':
      return entryFor(property, to, { as: 'points', separators: property.separators ?? flat });
    case 'triple':
      return entryFor(property, to, { as: 'numbers' });
    default:
      return property.type === 'word'
        ? entryFor(property, to, { names: wordsAs(property, setting) })
        : entryFor(property, to, {});
  }
}

/** Every word as what changes nothing, to begin with. */
const wordsAs = ({ words }: Property, setting: SettingDefinition | undefined): Record<string, unknown> =>
  Object.fromEntries(words.map((word) => [word, setting?.neutral ?? 0]));

/** As the value of a choice, and back. */
export const meaningValue = (meaning: Meaning): string =>
  meaning.is === 'setting' ? `setting ${meaning.entry.to}` : meaning.is;

export function meaningFrom(value: string, property: Property): Meaning {
  if (value.startsWith('setting '))
    return { is: 'setting', entry: firstEntry(property, value.slice('setting '.length)) };
  if (value === 'title') return { is: 'title' };
  return value === 'headings' ? { is: 'headings', separator: '/' } : { is: 'unknown' };
}

/** The ways in which a number goes through. */
export const ways = ['straight', 'table', 'exp2', 'log2'] as const;
export type Way = (typeof ways)[number];
export const wayWords: Readonly<Record<Way, string>> = {
  straight: 'times, plus',
  table: 'by a table',
  exp2: '2 to the power',
  log2: 'as a logarithm',
};

export function wayOf(rule: NumberRule): Way {
  if (rule.table) return 'table';
  if (rule.exp2) return 'exp2';
  return rule.log2 ? 'log2' : 'straight';
}

/** The entry with its numbers going another way; a table begins with the ends that were seen. */
export function goingBy(entry: MappingEntry, way: Way, { low, high }: Property): MappingEntry {
  const { table: _table, exp2: _exp2, log2: _log2, ...rest } = entry;
  if (way === 'exp2') return { ...rest, exp2: true };
  if (way === 'log2') return { ...rest, log2: true };
  if (way === 'straight') return rest;
  const { scale = 1, offset = 0, ...without } = rest;
  const ends = [low ?? -100, high ?? 100].sort((a, b) => a - b);
  const [from = -100, to = 100] = ends;
  const last = to > from ? to : from + 1;
  return {
    ...without,
    table: [
      [from, from * scale + offset],
      [last, last * scale + offset],
    ],
  };
}

/** "-100: 0.5, 0: 1, 100: 2.5" and back; null where it is no table. */
export const tableText = (table: readonly (readonly number[])[]): string =>
  table.map(([x, y]) => `${x}: ${y}`).join(', ');
export function tableFrom(text: string): [number, number][] | null {
  const pairs = text.split(',').map((pair) => pair.split(':').map((one) => (one.trim() === '' ? NaN : Number(one))));
  const isTable = pairs.length > 1 && pairs.every((pair) => pair.length === 2 && pair.every(Number.isFinite));
  return isTable ? (pairs as [number, number][]) : null;
}
