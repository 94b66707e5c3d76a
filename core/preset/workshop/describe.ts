/** A descriptor that is put together in the workshop: of an editor that nobody has described, or of one whose mapping grows. */
import type { Accepts } from '../../editor/accepts';
import { editorKey, type Descriptor } from '../../editor/descriptor';
import type { System } from '../../editor/place-schema';
import type { Container, Form } from '../container';
import type { MappingEntry, PropertyPlace } from '../mapping';
import type { Property } from './survey';
import type { Recognise } from './samples';

/** What a person says of a new editor. */
export interface EditorSaid {
  title: string;
  version: string;
  /** of its preset files, as ".hpreset" */ extension: string;
  /** where its presets lie, by system; none where it is only read and converted */ folders: Partial<
    Record<System, string>
  >;
  /** how its files are known */ recognise: Recognise;
}

/** "Halyard Pro" as an identifier: halyard-pro. */
export const editorIdOf = (title: string): string =>
  title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 40);

const PLACE = 'presets';

function presetsTaken(descriptor: Descriptor, extension: string): Accepts {
  return {
    kind: 'preset',
    language: editorKey(descriptor),
    place: PLACE,
    extension,
    headings: 'folder',
    writer: { asIs: true },
  };
}

/** A new editor with an empty mapping. Its own file of what it lists is not known, so that nothing is said to be listed. */
export function newDescriptor(said: EditorSaid, container: Container, form: Form | undefined): Descriptor {
  const { title, version, extension, folders, recognise } = said;
  const systems = Object.keys(folders) as System[];
  const descriptor: Descriptor = {
    editor: editorIdOf(title),
    version,
    title,
    kind: 'editor',
    systems: systems.length ? systems : ['linux', 'macos', 'windows'],
    sees: 'launch',
    listing: {},
    places: {},
    accepts: [],
    presets: { container, ...(form ? { form } : {}), recognise, mapping: { entries: [] } },
  };
  if (!systems.length) return descriptor;
  return { ...descriptor, places: { [PLACE]: folders }, accepts: [presetsTaken(descriptor, extension)] };
}

/** Whether an entry takes a property as its own. */
export const takesProperty = (entry: MappingEntry, { step, when, attribute }: Property): boolean =>
  entry.step === step &&
  Object.entries(when).every(([key, value]) => (entry.when?.[key] ?? value) === value) &&
  [
    entry.attribute,
    ...Object.values(entry.fields ?? {}).map((rule) => rule.attribute),
    ...(entry.sum ?? []).map((rule) => rule.attribute),
  ].includes(attribute);

const isAt = (place: PropertyPlace | undefined, { step, attribute }: Property): boolean =>
  place?.step === step && place.attribute === attribute;

/** What a property stands for in a mapping. */
export type Meaning =
  | { is: 'setting'; entry: MappingEntry }
  | { is: 'title' }
  | { is: 'headings'; separator: string }
  /** tells the language */
  | { is: 'mark' }
  | { is: 'unknown' };

export function meaningOf({ presets }: Descriptor, property: Property): Meaning {
  if (!presets) return { is: 'unknown' };
  const { mapping, recognise } = presets;
  if (isAt(mapping.title, property)) return { is: 'title' };
  if (isAt(mapping.headings, property)) return { is: 'headings', separator: mapping.headings?.separator ?? '/' };
  const entry = mapping.entries.find((one) => takesProperty(one, property));
  if (entry) return { is: 'setting', entry };
  const isMark = recognise.section === property.step && recognise.key === property.attribute;
  return isMark || mapping.ignore?.includes(property.step) ? { is: 'mark' } : { is: 'unknown' };
}

type Presets = NonNullable<Descriptor['presets']>;

/**
 * The descriptor in which a property stands for something else. The first entry that takes it is the one that is shown, and
 * the one that gives way; others that take it too stay as they are.
 */
export function withMeaning(descriptor: Descriptor, property: Property, meaning: Meaning): Descriptor {
  if (!descriptor.presets) return descriptor;
  const { title, headings, entries, ...rest } = descriptor.presets.mapping;
  const place = { step: property.step, attribute: property.attribute };
  const shown = entries.findIndex((entry) => takesProperty(entry, property));
  const given = meaning.is === 'setting' ? [meaning.entry] : [];
  const mapping: Presets['mapping'] = {
    ...(title && !isAt(title, property) ? { title } : {}),
    ...(headings && !isAt(headings, property) ? { headings } : {}),
    ...rest,
    ...(meaning.is === 'title' ? { title: place } : {}),
    ...(meaning.is === 'headings' ? { headings: { ...place, separator: meaning.separator } } : {}),
    entries: shown < 0 ? [...entries, ...given] : entries.toSpliced(shown, 1, ...given),
  };
  return { ...descriptor, presets: { ...descriptor.presets, mapping } };
}

/** An entry for a property, by a rule. */
export function entryFor(
  { step, when, attribute }: Property,
  to: string,
  rule: Omit<MappingEntry, 'step' | 'when' | 'attribute' | 'to'>,
): MappingEntry {
  return { step, ...(Object.keys(when).length ? { when } : {}), attribute, to, ...rule };
}
