/**
 * Mappings: an editor's properties ↔ common settings, as data. An entry takes the steps of one name (and, with `when`,
 * of certain attribute values) and says to which setting an attribute goes and through which numbers.
 */
import { identityIn, type Identity } from '../item/identity';
import { Problem } from '../problem';
import type { ClassOverrides } from './bake';
import { WHOLE, type Step, type StepDocument } from './container';
import type { LookReference, SettingClass, Settings } from './kinds';
import { through, type NumberRule } from './number-rule';
import { isNeutral, settingById } from './settings';

export interface FieldRule extends NumberRule {
  attribute: string;
  as?: 'number' | 'text';
  default?: number | string;
}

export interface MappingEntry extends NumberRule {
  step: string;
  /** attributes that must have these values; where the entry writes, it writes them too */
  when?: Record<string, string>;
  attribute?: string;
  /** Setting id; "id.field" reaches into an object. */
  to: string;
  as?: 'number' | 'numbers' | 'points' | 'text';
  /** For points: how they are written; the same sign twice for a flat list of numbers. */
  separators?: { point: string; pair: string };
  /** What each word that the property may be stands for. */
  names?: Record<string, unknown>;
  /** One number that stands in several properties: their sum. The first ones are written in whole steps, the last has the rest. */
  sum?: FieldRule[];
  /** Object values (or, with `list`, one item of a list) are put together from several attributes; names that are numbers make a list. */
  fields?: Record<string, FieldRule>;
  constants?: Record<string, number | string>;
  list?: boolean;
  /** The value when the step is there at all. */
  constant?: unknown;
  class?: SettingClass;
  reason?: string;
}

/** Where a language keeps something that is said of the preset. */
export interface PropertyPlace {
  step: string;
  attribute: string;
}

export interface Mapping {
  title?: PropertyPlace;
  headings?: PropertyPlace & { separator: string };
  identity?: Partial<Record<keyof Identity, PropertyPlace>>;
  /** steps that say nothing of a picture */ ignore?: string[];
  /** whether settings that change nothing are written too; left out without */ defaults?: 'written' | 'left-out';
  entries: MappingEntry[];
}

export interface ReadPreset {
  name: string;
  headings: string[];
  identity: Partial<Identity>;
  settings: Settings;
  classes: ClassOverrides;
  references: { kind: 'look' | 'camera-profile'; name: string; strength?: number }[];
  /** properties that no entry knows, by step and attribute */ unknown: Record<string, string>;
}

const remedy =
  'Export the preset anew from the editor that made it, or correct the mapping in the editor’s descriptor.';

function number(text: string, step: Step, attribute: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new Problem(
      'preset-number',
      `"${text.slice(0, 30)}" is no number, for ${placeOf(step.name, attribute)}.`,
      step.where,
      remedy,
    );
  return value;
}

/** How a property is called where somebody reads it: "lamp.stops", or its name alone where it belongs to the document. */
export const placeOf = (step: string, attribute: string): string =>
  step === WHOLE ? attribute : `${step}.${attribute}`;

/** Where points are put apart, and the two numbers of each. */
export const separatorsOf = (entry: MappingEntry): { point: string; pair: string } =>
  entry.separators ?? { point: ' ', pair: ',' };

const partsOf = (text: string, separator: string): string[] =>
  text
    .split(separator)
    .map((part) => part.trim())
    .filter(Boolean);

function pointsOf(entry: MappingEntry, text: string, step: Step): number[][] {
  const { point, pair } = separatorsOf(entry);
  const read = (part: string) => through(entry, number(part, step, entry.attribute ?? ''));
  if (point !== pair) return partsOf(text, point).map((one) => partsOf(one, pair).map(read));
  const flat = partsOf(text, point).map(read);
  return flat.flatMap((x, index) => (index % 2 ? [] : [[x, flat[index + 1] ?? NaN]]));
}

/** The value that a word stands for. */
function namedValue(entry: MappingEntry, text: string, step: Step): unknown {
  if (Object.hasOwn(entry.names!, text)) return structuredClone(entry.names![text]);
  const known = Object.keys(entry.names!).join(', ');
  throw new Problem(
    'preset-word',
    `"${text.slice(0, 30)}" is none of ${known}, for ${placeOf(step.name, entry.attribute ?? '')}.`,
    step.where,
    remedy,
  );
}

/** An object, or a list where its fields are numbered, of several attributes; undefined where one is missing. */
function gathered(entry: MappingEntry, step: Step, used: Set<string>): unknown {
  const out: Record<string, number | string> = { ...entry.constants };
  for (const [field, rule] of Object.entries(entry.fields!)) {
    const raw = step.attributes[rule.attribute];
    used.add(rule.attribute);
    if (raw === undefined) {
      if (rule.default === undefined) return undefined;
      out[field] = rule.default;
    } else out[field] = rule.as === 'text' ? raw : through(rule, number(raw, step, rule.attribute));
  }
  return isNumbered(entry) ? Object.keys(out).map((_, index) => out[index]) : out;
}

/** Whether an entry's fields are the numbers of a list. */
export const isNumbered = ({ fields }: MappingEntry): boolean =>
  !!fields && Object.keys(fields).every((field) => /^\d+$/.test(field));

/** The sum of what several properties say; undefined where none is there. */
function summed(rules: readonly FieldRule[], step: Step, used: Set<string>): number | undefined {
  let sum: number | undefined;
  for (const rule of rules) {
    used.add(rule.attribute);
    const raw = step.attributes[rule.attribute];
    if (raw !== undefined) sum = (sum ?? 0) + through(rule, number(raw, step, rule.attribute));
  }
  return sum === undefined ? undefined : Math.round(sum * 1e9) / 1e9;
}

function valueOf(entry: MappingEntry, step: Step, used: Set<string>): unknown {
  if (entry.constant !== undefined) return structuredClone(entry.constant);
  if (entry.fields) return gathered(entry, step, used);
  if (entry.sum) return summed(entry.sum, step, used);
  const name = entry.attribute!;
  const raw = step.attributes[name];
  if (raw === undefined) return undefined;
  used.add(name);
  if (entry.names) return namedValue(entry, raw, step);
  switch (entry.as ?? 'number') {
    case 'text':
      return raw;
    case 'numbers':
      return raw
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map((part) => through(entry, number(part, step, name)));
    case 'points':
      return pointsOf(entry, raw, step);
    default:
      return through(entry, number(raw, step, name));
  }
}

const isFor = (entry: MappingEntry, step: Step): boolean =>
  entry.step === step.name && Object.entries(entry.when ?? {}).every(([key, value]) => step.attributes[key] === value);

/** What one entry of the mapping makes of a step; the attributes that it read are added to `used`. */
function take(entry: MappingEntry, step: Step, used: Set<string>, settings: Settings, classes: ClassOverrides): void {
  Object.keys(entry.when ?? {}).forEach((key) => used.add(key));
  const value = valueOf(entry, step, used);
  if (value === undefined) return;
  const [id, field] = entry.to.split('.') as [string, string | undefined];
  if (field) {
    const holder = (settings[id] ??= {}) as Record<string, unknown>;
    if (entry.list) ((holder[field] ??= []) as unknown[]).push(value);
    else holder[field] = value;
  } else if (entry.list) ((settings[id] ??= []) as unknown[]).push(value);
  else if (settings[id] === undefined || entry.constant === undefined) settings[id] = value;
  if (entry.class) classes[id] = { class: entry.class, ...(entry.reason ? { reason: entry.reason } : {}) };
  const bad = entry.list ? null : settingById.get(id)?.check(settings[id]);
  if (bad && !field)
    throw new Problem(
      'preset-value',
      `${settingById.get(id)!.title} ${bad}; the file gives ${JSON.stringify(value).slice(0, 60)}.`,
      step.where,
      remedy,
    );
}

/** What a property says that a mapping gives a place to; it is used then, and no unknown one. */
function saidAt(place: PropertyPlace | undefined, step: Step, used: Set<string>): string | undefined {
  if (place?.step !== step.name) return undefined;
  const said = step.attributes[place.attribute];
  if (said !== undefined) used.add(place.attribute);
  return said || undefined;
}

/** The settings that a document's steps come to, with what they say of the preset besides. */
interface Taken {
  name: string;
  headings: string[];
  identity: Partial<Record<keyof Identity, string>>;
  settings: Settings;
  classes: ClassOverrides;
  unknown: Record<string, string>;
}

function takeStep(mapping: Mapping, step: Step, taken: Taken): void {
  const used = new Set<string>();
  if (mapping.ignore?.includes(step.name)) Object.keys(step.attributes).forEach((attribute) => used.add(attribute));
  taken.name = saidAt(mapping.title, step, used) ?? taken.name;
  const headings = saidAt(mapping.headings, step, used);
  if (headings !== undefined) taken.headings = partsOf(headings, mapping.headings!.separator);
  for (const [part, place] of Object.entries(mapping.identity ?? {}) as [keyof Identity, PropertyPlace][])
    taken.identity[part] = saidAt(place, step, used) ?? taken.identity[part] ?? '';
  for (const entry of mapping.entries) if (isFor(entry, step)) take(entry, step, used, taken.settings, taken.classes);
  for (const [key, value] of Object.entries(step.attributes))
    if (!used.has(key)) taken.unknown[placeOf(step.name, key)] = value.slice(0, 2000);
}

/** Steps → common settings. A value outside its setting's range is refused with the step's place. */
export function applyMapping(mapping: Mapping, doc: StepDocument): ReadPreset {
  const { title: name, headings, identity } = doc;
  const taken: Taken = { name, headings, identity: { ...identity }, settings: {}, classes: {}, unknown: {} };
  for (const step of doc.steps) takeStep(mapping, step, taken);
  const { settings } = taken;
  for (const [id, value] of Object.entries(settings)) {
    const bad = settingById.get(id)?.check(value);
    if (bad) throw new Problem('preset-value', `${settingById.get(id)!.title}: ${bad}.`, 'the whole preset', remedy);
    if (isNeutral(id, value)) delete settings[id];
  }
  return { ...taken, identity: identityIn(taken.identity), references: referencesOf(settings) };
}

/** The other items that settings refer to, by name. */
export function referencesOf(settings: Settings): ReadPreset['references'] {
  const look = settings.look as LookReference | undefined;
  const profile = settings.cameraProfile;
  return [
    ...(look ? [{ kind: 'look' as const, name: look.name, strength: look.strength }] : []),
    ...(typeof profile === 'string' ? [{ kind: 'camera-profile' as const, name: profile }] : []),
  ];
}
