/**
 * Writing presets: settings into the empty preset that a descriptor gives as a template, or into the very file that they
 * were read from, whose unknown properties stay. Each file is read again before it counts, and what reads otherwise is told.
 */
import { Problem } from '../problem';
import { storable } from '../text';
import {
  documentOf,
  openPreset,
  WHOLE,
  type About,
  type Container,
  type Form,
  type OpenPreset,
  type OpenStep,
} from './container';
import type { Settings } from './kinds';
import { applyMapping, type Mapping, type MappingEntry, type PropertyPlace, type ReadPreset } from './mapping';
import { deviation, stepsToWrite, type NotWritten, type StepToWrite } from './mapping-write';
import { settingById } from './settings';

/** A preset language, as a descriptor tells it. */
export interface Language {
  container: Container;
  form?: Form;
  template?: string;
  mapping: Mapping;
}

/** A setting that the file says otherwise than asked: rounded, or held to what the editor takes. */
export interface Changed {
  setting: string;
  asked: unknown;
  reads: unknown;
}

export interface WrittenPreset {
  bytes: Uint8Array;
  /** what the file says when it is read again */ read: ReadPreset;
  /** settings that are in the file, as asked or nearly so */ written: string[];
  changed: Changed[];
  left: NotWritten[];
}

/** Nearer than this, a number reads as it was asked. */
const SAME = 1e-9;

const attributesOf = (entry: MappingEntry): string[] => [
  ...(entry.attribute ? [entry.attribute] : []),
  ...Object.values(entry.fields ?? {}).map(({ attribute }) => attribute),
  ...(entry.sum ?? []).map(({ attribute }) => attribute),
];

/** Takes out what the mapping knows, so that what is unknown alone remains. */
function clear(open: OpenPreset, mapping: Mapping): void {
  const said = new Set([mapping.title?.step, mapping.headings?.step, ...(mapping.ignore ?? []), WHOLE]);
  for (const step of open.steps().reverse()) {
    const attributes = step.attributes();
    const entries = mapping.entries.filter(
      (entry) =>
        entry.step === step.name && Object.entries(entry.when ?? {}).every(([key, value]) => attributes[key] === value),
    );
    if (!entries.length) continue;
    entries.flatMap(attributesOf).forEach((attribute) => step.remove(attribute));
    const conditions = new Set(entries.flatMap((entry) => Object.keys(entry.when ?? {})));
    const remaining = Object.keys(step.attributes()).filter((attribute) => !conditions.has(attribute));
    const holdsOthers = open.steps().some(({ name }) => name.startsWith(`${step.name}/`));
    if (!remaining.length && !holdsOthers && !said.has(step.name)) open.drop(step);
  }
}

/** The step of the file into which one is written: one of its name that nothing was written into, and whose conditions agree. */
function placeFor(open: OpenPreset, step: StepToWrite, taken: Set<object>): OpenStep {
  const free = open.steps().find((one) => {
    if (one.name !== step.name || taken.has(one.source)) return false;
    const there = one.attributes();
    return Object.entries(step.when).every(([key, value]) => (there[key] ?? value) === value);
  });
  const place = free ?? open.add(step.name);
  taken.add(place.source);
  return place;
}

function writeAt(open: OpenPreset, place: PropertyPlace, text: string): void {
  const step = open.steps().find(({ name }) => name === place.step) ?? open.add(place.step);
  step.set(place.attribute, { text, json: text });
}

/** Without what no text file can hold: control characters but line breaks and tabs, halves of surrogate pairs. */
const writable = (text: string): string =>
  storable(text).replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\ufffe\uffff]/g, '');

/** As it can stand in the file; a heading that holds the sign between headings would become two. */
function writableAbout({ title, headings, identity }: Partial<About>, separator: string | undefined): Partial<About> {
  const heading = (text: string) =>
    separator?.trim() ? writable(text).split(separator.trim()).join('-') : writable(text);
  return {
    ...(title === undefined ? {} : { title: writable(title).replace(/\s+/g, ' ').trim() }),
    ...(headings ? { headings: headings.map(heading) } : {}),
    identity: Object.fromEntries(Object.entries(identity ?? {}).map(([part, text]) => [part, writable(text)])),
  };
}

/** Says title, headings and identity where the language has a place for them: a property of its own, or the container's. */
function sayAbout(open: OpenPreset, mapping: Mapping, said: Partial<About>): void {
  const about = writableAbout(said, mapping.headings?.separator);
  open.say({
    ...(mapping.title ? {} : { title: about.title }),
    ...(mapping.headings ? {} : { headings: about.headings }),
    identity: about.identity ?? {},
  });
  if (mapping.title && about.title !== undefined) writeAt(open, mapping.title, about.title);
  if (mapping.headings && about.headings)
    writeAt(open, mapping.headings, about.headings.join(mapping.headings.separator));
  for (const [part, place] of Object.entries(mapping.identity ?? {})) {
    const text = about.identity?.[part as keyof About['identity']];
    if (text) writeAt(open, place, text);
  }
}

function opened(language: Language, original: Uint8Array | undefined, editor: string): OpenPreset {
  const { container, form, template, mapping } = language;
  if (original) {
    const open = openPreset(container, original, form);
    clear(open, mapping);
    return open;
  }
  if (!template)
    throw new Problem(
      'preset-template',
      `${editor} gives no empty preset, so that none can be written for it.`,
      'presets.template',
      'Add an empty preset to the editor’s descriptor as its template.',
    );
  return openPreset(container, new TextEncoder().encode(template), form);
}

/** Says title, headings and identity in a file of the language; all else in it stays. */
export function writeAbout(language: Language, bytes: Uint8Array, about: Partial<About>): Uint8Array {
  const open = openPreset(language.container, bytes, language.form);
  sayAbout(open, language.mapping, about);
  return open.bytes();
}

/** What the file says otherwise than asked. What is missing altogether is a fault of the mapping, and refused. */
function compare(settings: Settings, left: readonly NotWritten[], read: ReadPreset, editor: string): Changed[] {
  const notWritten = new Set(left.map(({ setting }) => setting));
  const changed: Changed[] = [];
  for (const [setting, asked] of Object.entries(settings)) {
    if (notWritten.has(setting)) continue;
    const reads = read.settings[setting] ?? settingById.get(setting)?.neutral;
    const off = deviation(asked, reads);
    if (off > SAME) changed.push({ setting, asked, reads });
  }
  const odd = Object.keys(read.settings).filter((setting) => settings[setting] === undefined);
  if (odd.length)
    throw new Problem(
      'preset-write-check',
      `The preset for ${editor} was written, but reads ${odd.join(', ')} where nothing was asked.`,
      'presets.mapping',
      'Correct the mapping or the template in the editor’s descriptor: two entries write the same property, or the template is no empty preset.',
    );
  return changed;
}

/**
 * @param settings those that are to be written; neutral ones say nothing
 * @param original a file of the same language, whose unknown properties ride along
 * @param editor its title, for messages
 */
export function writePreset(
  language: Language,
  settings: Settings,
  about: Partial<About>,
  editor: string,
  original?: Uint8Array,
): WrittenPreset {
  const { steps, left } = stepsToWrite(language.mapping, settings);
  const open = opened(language, original, editor);
  const taken = new Set<object>();
  for (const step of steps) {
    const place = placeFor(open, step, taken);
    for (const [attribute, value] of Object.entries(step.attributes)) place.set(attribute, value);
  }
  sayAbout(open, language.mapping, about);
  const bytes = open.bytes();
  const read = applyMapping(language.mapping, documentOf(openPreset(language.container, bytes, language.form)));
  const changed = compare(settings, left, read, editor);
  const notWritten = new Set(left.map(({ setting }) => setting));
  const written = Object.keys(settings).filter((setting) => !notWritten.has(setting));
  return { bytes, read, written, changed, left };
}
