/**
 * A descriptor as it is being written: as it stands, line breaks and empty lines included, and what it comes to when it is
 * proposed. All changes are made here, each on the whole, so that a form of many parts keeps one value.
 */
import type { Accepts, SizeRule, TableWriter, Writer } from '@/core/editor/accepts';
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import { Problem, type ToldProblem } from '@/core/problem';
import { isDrawable } from './drawable';

export type Templates = Partial<Record<System, string>>;

/** An editor of which nothing is known yet. */
export const emptyDescriptor = (): Descriptor => ({
  editor: '',
  version: '1',
  title: '',
  kind: 'editor',
  systems: ['macos', 'windows', 'linux'],
  sees: 'launch',
  listing: {},
  places: {},
  accepts: [],
});

/** The short name of an editor, from how people call it. */
export const editorIdFrom = (title: string): string =>
  title
    .toLowerCase()
    .replace(/\b[0-9][0-9.]*$/, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 40);

const filled = (templates: Templates): Templates =>
  Object.fromEntries(
    Object.entries(templates).flatMap(([system, path]) => (path.trim() ? [[system, path.trim()]] : [])),
  );
const lines = (all: readonly string[]): string[] => all.map((line) => line.trim()).filter(Boolean);

function cleanedTaking(accepts: Accepts): Accepts {
  const { formats, import: steps, meets, names, most, ...rest } = accepts;
  const kept = lines(formats ?? []);
  const conditions = meets && Object.keys(meets).length ? meets : undefined;
  return {
    ...rest,
    ...(kept.length ? { formats: kept } : {}),
    ...(steps && lines(steps).length ? { import: lines(steps) } : {}),
    ...(conditions ? { meets: conditions } : {}),
    ...(names && Object.keys(names).length ? { names } : {}),
    ...(most ? { most } : {}),
  };
}

/** Without what was left empty: what is proposed. */
export function cleaned(draft: Descriptor): Descriptor {
  const { cameras, honours, notes, writesBack, ...rest } = draft;
  return {
    ...rest,
    title: draft.title.trim(),
    listing: filled(draft.listing),
    places: Object.fromEntries(Object.entries(draft.places).map(([name, templates]) => [name, filled(templates)])),
    accepts: draft.accepts.map(cleanedTaking),
    ...(cameras === undefined ? {} : { cameras: cameras === 'all' ? cameras : lines(cameras) }),
    ...(honours ? { honours } : {}),
    ...(notes?.trim() ? { notes } : {}),
    ...(writesBack ? { writesBack } : {}),
  };
}

export type Checked = { descriptor: Descriptor; problem: null } | { descriptor: null; problem: ToldProblem };

/** What is proposed, or the first rule that it breaks. */
export function checked(draft: Descriptor): Checked {
  try {
    // what the form cannot draw has no lines that it left empty
    return { descriptor: parseDescriptor(isDrawable(draft) ? cleaned(draft) : draft), problem: null };
  } catch (error) {
    if (error instanceof Problem) return { descriptor: null, problem: error.toJSON() };
    throw error;
  }
}

/** A taking with a part of it said, or without. */
export function withPart<Part extends keyof Accepts>(
  accepts: Accepts,
  part: Part,
  value: Accepts[Part] | undefined,
): Accepts {
  const { [part]: _before, ...rest } = accepts;
  return (value === undefined ? rest : { ...rest, [part]: value }) as Accepts;
}

/** A descriptor from JSON that somebody typed; a sentence where it is none. It may still break rules. */
export function fromText(text: string): { draft: Descriptor } | { fault: string } {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return { fault: `This is no JSON: ${(error as Error).message}.` };
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { fault: 'A descriptor is an object: it begins with { and ends with }.' };
  // the form takes the parts for granted that every descriptor has; all else is for the check to say
  return { draft: { ...emptyDescriptor(), ...(value as object) } };
}

const freeName = (taken: readonly string[], name: string): string => {
  if (!taken.includes(name)) return name;
  for (let n = 2; ; n++) if (!taken.includes(`${name}-${n}`)) return `${name}-${n}`;
};

export const withPlace = (draft: Descriptor): Descriptor => ({
  ...draft,
  places: { ...draft.places, [freeName(Object.keys(draft.places), 'place')]: {} },
});

/** A place by another name, also where things are said to go into it; as it was, where that name is another's. */
export function withPlaceCalled(draft: Descriptor, from: string, to: string): Descriptor {
  if (from === to || to in draft.places) return draft;
  return {
    ...draft,
    places: Object.fromEntries(
      Object.entries(draft.places).map(([name, templates]) => [name === from ? to : name, templates]),
    ),
    accepts: draft.accepts.map((one) => (one.place === from ? { ...one, place: to } : one)),
  };
}

export const withPlaceAt = (draft: Descriptor, name: string, templates: Templates): Descriptor => ({
  ...draft,
  places: { ...draft.places, [name]: templates },
});

export const withoutPlace = (draft: Descriptor, name: string): Descriptor => ({
  ...draft,
  places: Object.fromEntries(Object.entries(draft.places).filter(([one]) => one !== name)),
});

const usualTable: TableWriter = {
  codec: 'cube',
  size: { exact: 33 },
  encoding: { primaries: 'srgb', transfer: 'srgb' },
};

export const withTaking = (draft: Descriptor): Descriptor => ({
  ...draft,
  accepts: [
    ...draft.accepts,
    {
      kind: 'look',
      place: Object.keys(draft.places)[0] ?? '',
      extension: '.cube',
      headings: 'none',
      writer: { table: usualTable },
    },
  ],
});

export const withTakingAs = (draft: Descriptor, n: number, accepts: Accepts): Descriptor => ({
  ...draft,
  accepts: draft.accepts.map((one, at) => (at === n ? accepts : one)),
});

export const withoutTaking = (draft: Descriptor, n: number): Descriptor => ({
  ...draft,
  accepts: draft.accepts.filter((_, at) => at !== n),
});

/** How a file comes to be, as the form says it; archives and entries of bundles have forms of their own, as JSON. */
export type Way = 'as it is' | 'as a table' | 'by a form of its own';
export function wayOf({ asIs, table }: Writer): Way {
  if (asIs) return 'as it is';
  return table ? 'as a table' : 'by a form of its own';
}
export const writerOf = (way: Exclude<Way, 'by a form of its own'>): Writer =>
  way === 'as it is' ? { asIs: true } : { table: usualTable };

/** Points as people write them: "33", "2 to 48", "2 to 48, best 33"; an empty rule for what is none of these. */
export function sizeFrom(text: string): SizeRule {
  const found = /^\s*(\d{1,3})(?:\s*(?:to|–|-)\s*(\d{1,3})(?:\s*,\s*best\s+(\d{1,3}))?)?\s*$/i.exec(text);
  if (!found) return {};
  const [, least, most, best] = found.map((number) => (number === undefined ? undefined : Number(number)));
  if (most === undefined) return least === undefined ? {} : { exact: least };
  return { ...(least === undefined ? {} : { min: least }), max: most, ...(best === undefined ? {} : { prefer: best }) };
}
export function sizeWords({ exact, min, max, prefer }: SizeRule): string {
  if (exact !== undefined) return String(exact);
  if (max === undefined) return '';
  return `${min ?? 2} to ${max}${prefer === undefined ? '' : `, best ${prefer}`}`;
}

export type Transfer = TableWriter['encoding']['transfer'];
export const transferName = (transfer: Transfer): 'srgb' | 'linear' | 'log' =>
  typeof transfer === 'object' ? 'log' : transfer;
export const transferNamed = (name: string): Transfer => {
  if (name === 'log') return { log: { below: -9, above: 4 } };
  return name === 'linear' ? 'linear' : 'srgb';
};
