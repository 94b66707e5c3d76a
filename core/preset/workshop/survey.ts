/**
 * What sample presets of an unknown language say: every property with its type, its range and how often it stands, as a
 * person needs it to tell which setting it is.
 */
import { placeOf, type MappingEntry } from '../mapping';
import type { Step, StepDocument } from '../container';

/** How a property's values are written. */
export type PropertyType = 'number' | 'numbers' | 'points' | 'word' | 'text';

export interface Separators {
  point: string;
  pair: string;
}

export interface Property {
  /** such as `lamp.stops`, or `line[on=red].through` where steps of one name are told apart by a property */ key: string;
  step: string;
  when: Record<string, string>;
  attribute: string;
  type: PropertyType;
  /** how many samples say it */ samples: number;
  /** of numbers; null for what is none */ low: number | null;
  high: number | null;
  /** whether every number is whole */ whole: boolean;
  /** of words, each that was seen, in order of the alphabet */ words: string[];
  /** of points */ separators: Separators | null;
  /** some values as they stand in the samples */ examples: string[];
}

const MOST_WORDS = 24;
const LONGEST_WORD = 40;
const MOST_EXAMPLES = 3;

const isNumber = (text: string): boolean => text.trim() !== '' && Number.isFinite(Number(text));
const partsOf = (text: string, separator: string): string[] =>
  text
    .split(separator)
    .map((part) => part.trim())
    .filter(Boolean);

/** Between points and between the two numbers of each, as programs write them. */
const notations: readonly Separators[] = [
  { point: ';', pair: ':' },
  { point: ';', pair: ',' },
  { point: ' ', pair: ',' },
  { point: ' ', pair: ':' },
  { point: ',', pair: ':' },
  { point: '|', pair: ',' },
  { point: ',', pair: ' ' },
];

const arePoints = (text: string, { point, pair }: Separators): boolean => {
  const points = partsOf(text, point);
  return (
    points.length > 1 &&
    points.every((one) => {
      const numbers = partsOf(one, pair);
      return numbers.length === 2 && numbers.every(isNumber);
    })
  );
};

const areNumbers = (text: string): boolean => {
  const parts = text.split(/[\s,;]+/).filter(Boolean);
  return parts.length > 1 && parts.every(isNumber);
};

/** The notation in which every value is a list of points; null where there is none. */
const notationOf = (values: readonly string[]): Separators | null =>
  notations.find((notation) => values.every((value) => arePoints(value, notation))) ?? null;

function typeOf(values: readonly string[]): { type: PropertyType; separators: Separators | null } {
  if (values.every(isNumber)) return { type: 'number', separators: null };
  const separators = notationOf(values);
  if (separators) return { type: 'points', separators };
  if (values.every((value) => areNumbers(value) || isNumber(value))) return { type: 'numbers', separators: null };
  const different = new Set(values);
  const areWords = different.size <= MOST_WORDS && values.every((value) => value.length <= LONGEST_WORD);
  return { type: areWords ? 'word' : 'text', separators: null };
}

/** Every number of the values, of lists too. */
const numbersIn = (values: readonly string[]): number[] =>
  values.flatMap((value) =>
    value
      .split(/[\s,;:|]+/)
      .filter(isNumber)
      .map(Number),
  );

/**
 * The property by which steps of one name are told apart, as `on` of `<line on="red"/>` and `<line on="blue"/>`: a word that
 * each of them has, and no two in one sample alike. Null where they are not told apart.
 */
function toldApartBy(samples: readonly StepDocument[], name: string): string | null {
  const groups = samples.map(({ steps }) => steps.filter((step) => step.name === name)).filter((group) => group.length);
  if (!groups.some((group) => group.length > 1)) return null;
  const attributes = Object.keys(groups[0]?.[0]?.attributes ?? {});
  const tells = (attribute: string): boolean =>
    groups.every((group) => {
      const values = group.map((step) => step.attributes[attribute]);
      return values.every((value) => value !== undefined && !isNumber(value)) && new Set(values).size === values.length;
    });
  return attributes.find(tells) ?? null;
}

interface Found {
  step: string;
  when: Record<string, string>;
  attribute: string;
  values: string[];
  samples: Set<StepDocument>;
}

const keyOf = (step: Step, when: Record<string, string>, attribute: string): string => {
  const conditions = Object.entries(when).map(([key, value]) => `[${key}=${value}]`);
  return conditions.length ? `${step.name}${conditions.join('')}.${attribute}` : placeOf(step.name, attribute);
};

function summary(key: string, { step, when, attribute, values, samples }: Found): Property {
  const { type, separators } = typeOf(values);
  const numbers = type === 'word' || type === 'text' ? [] : numbersIn(values);
  const different = [...new Set(values)];
  return {
    key,
    step,
    when,
    attribute,
    type,
    separators,
    samples: samples.size,
    low: numbers.length ? numbers.reduce((least, one) => Math.min(least, one)) : null,
    high: numbers.length ? numbers.reduce((most, one) => Math.max(most, one)) : null,
    whole: numbers.length > 0 && numbers.every(Number.isInteger),
    words: type === 'word' ? different.sort() : [],
    examples: different.slice(0, MOST_EXAMPLES).map((value) => value.slice(0, 120)),
  };
}

/** The conditions by which a mapping tells steps of a name apart already; else what the samples show. */
function conditionsOf(samples: readonly StepDocument[], mapped: readonly MappingEntry[], name: string): string[] {
  const known = mapped.filter(({ step }) => step === name).flatMap(({ when }) => Object.keys(when ?? {}));
  if (known.length) return [...new Set(known)];
  const by = toldApartBy(samples, name);
  return by === null ? [] : [by];
}

/** The conditions that hold for a step. */
const whenOf = ({ attributes }: Step, conditions: readonly string[]): Record<string, string> =>
  Object.fromEntries(
    conditions.flatMap((key) => {
      const value = attributes[key];
      return value === undefined ? [] : [[key, value]];
    }),
  );

/**
 * Every property of the samples, in the order in which it first stands.
 * @param mapped what is mapped already: its conditions tell steps apart
 */
export function surveyOf(samples: readonly StepDocument[], mapped: readonly MappingEntry[] = []): Property[] {
  const found = new Map<string, Found>();
  const apart = new Map<string, string[]>();
  for (const sample of samples)
    for (const step of sample.steps) {
      const conditions = apart.get(step.name) ?? conditionsOf(samples, mapped, step.name);
      apart.set(step.name, conditions);
      const when = whenOf(step, conditions);
      for (const [attribute, value] of Object.entries(step.attributes)) {
        if (conditions.includes(attribute)) continue;
        const key = keyOf(step, when, attribute);
        const known = found.get(key) ?? { step: step.name, when, attribute, values: [], samples: new Set() };
        known.values.push(value);
        known.samples.add(sample);
        found.set(key, known);
      }
    }
  return [...found].map(([key, one]) => summary(key, one));
}
