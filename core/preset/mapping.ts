/**
 * Mappings: an editor's properties ↔ common settings, as data. An entry takes the steps of one name (and, with `when`,
 * of certain attribute values) and says to which setting an attribute goes and through which numbers.
 */
import { Problem } from '../problem';
import type { ClassOverrides } from './bake';
import type { LookReference, SettingClass, Settings } from './kinds';
import { isNeutral, settingById } from './settings';
import type { Step, StepDocument } from './steps';

/** value → table (piecewise linear) or scale·value + offset, then log2 or 2^ where asked. */
export interface NumberRule {
  scale?: number;
  offset?: number;
  table?: [number, number][];
  log2?: boolean;
  exp2?: boolean;
}

export interface FieldRule extends NumberRule {
  attribute: string;
  as?: 'number' | 'text';
  default?: number | string;
}

export interface MappingEntry extends NumberRule {
  step: string;
  when?: Record<string, string>;
  attribute?: string;
  /** Setting id; "id.field" reaches into an object. */
  to: string;
  as?: 'number' | 'numbers' | 'points' | 'text';
  /** For points: scale of both coordinates, and how they are written. */
  separators?: { point: string; pair: string };
  /** Object values (or, with `list`, one item of a list) are put together from several attributes. */
  fields?: Record<string, FieldRule>;
  constants?: Record<string, number | string>;
  list?: boolean;
  /** The value when the step is there at all. */
  constant?: unknown;
  class?: SettingClass;
  reason?: string;
}

export interface Mapping {
  title?: { step: string; attribute: string };
  headings?: { step: string; attribute: string; separator: string };
  ignore?: string[];
  entries: MappingEntry[];
}

export interface ReadPreset {
  name: string;
  headings: string[];
  settings: Settings;
  classes: ClassOverrides;
  references: { kind: 'look' | 'camera-profile'; name: string; strength?: number }[];
  unknown: Record<string, string>;
}

function through(rule: NumberRule, x: number): number {
  let v: number;
  if (rule.table) {
    const table = rule.table;
    const up = table.findIndex((p) => p[0] >= x);
    if (up === 0) v = table[0]![1];
    else if (up < 0) v = table[table.length - 1]![1];
    else {
      const below = table[up - 1]!;
      const above = table[up]!;
      v = below[1] + ((above[1] - below[1]) * (x - below[0])) / (above[0] - below[0]);
    }
  } else v = x * (rule.scale ?? 1) + (rule.offset ?? 0);
  if (rule.log2) v = Math.log2(v);
  if (rule.exp2) v = 2 ** v;
  return Math.round(v * 1e9) / 1e9;
}

const remedy =
  'Export the preset anew from the editor that made it, or correct the mapping in the editor’s descriptor.';

function number(text: string, step: Step, attribute: string): number {
  const v = Number(text);
  if (text.trim() === '' || !Number.isFinite(v))
    throw new Problem(
      'preset-number',
      `"${text.slice(0, 30)}" is no number, for ${step.name}.${attribute}.`,
      step.where,
      remedy,
    );
  return v;
}

function valueOf(entry: MappingEntry, step: Step, used: Set<string>): unknown {
  if (entry.constant !== undefined) return structuredClone(entry.constant);
  if (entry.fields) {
    const out: Record<string, number | string> = { ...entry.constants };
    for (const [field, rule] of Object.entries(entry.fields)) {
      const raw = step.attributes[rule.attribute];
      used.add(rule.attribute);
      if (raw === undefined) {
        if (rule.default === undefined) return undefined;
        out[field] = rule.default;
      } else out[field] = rule.as === 'text' ? raw : through(rule, number(raw, step, rule.attribute));
    }
    return out;
  }
  const name = entry.attribute!;
  const raw = step.attributes[name];
  if (raw === undefined) return undefined;
  used.add(name);
  switch (entry.as ?? 'number') {
    case 'text':
      return raw;
    case 'numbers':
      return raw
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map((t) => through(entry, number(t, step, name)));
    case 'points':
      return raw
        .split(entry.separators?.point ?? ' ')
        .map((p) => p.trim())
        .filter(Boolean)
        .map((p) => p.split(entry.separators?.pair ?? ',').map((t) => through(entry, number(t, step, name))));
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

/** Steps → common settings. A value outside its setting's range is refused with the step's place. */
export function applyMapping(mapping: Mapping, doc: StepDocument): ReadPreset {
  const settings: Settings = {};
  const classes: ClassOverrides = {};
  const unknown: Record<string, string> = {};
  let name = doc.title;
  let headings = doc.headings;
  for (const step of doc.steps) {
    const used = new Set<string>();
    if (mapping.ignore?.includes(step.name)) Object.keys(step.attributes).forEach((a) => used.add(a));
    if (mapping.title?.step === step.name && step.attributes[mapping.title.attribute]) {
      name = step.attributes[mapping.title.attribute]!;
      used.add(mapping.title.attribute);
    }
    if (mapping.headings?.step === step.name && step.attributes[mapping.headings.attribute] !== undefined) {
      headings = step.attributes[mapping.headings.attribute]!.split(mapping.headings.separator)
        .map((h) => h.trim())
        .filter(Boolean);
      used.add(mapping.headings.attribute);
    }
    for (const entry of mapping.entries) if (isFor(entry, step)) take(entry, step, used, settings, classes);
    for (const [key, value] of Object.entries(step.attributes))
      if (!used.has(key)) unknown[`${step.name}.${key}`] = value.slice(0, 2000);
  }
  for (const [id, value] of Object.entries(settings)) {
    const bad = settingById.get(id)?.check(value);
    if (bad) throw new Problem('preset-value', `${settingById.get(id)!.title}: ${bad}.`, 'the whole preset', remedy);
    if (isNeutral(id, value)) delete settings[id];
  }
  return { name, headings, settings, classes, references: referencesOf(settings), unknown };
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
