/**
 * What can be said of an item, field by field. Checks, changes, the form, the columns of the database and the words of the
 * activity follow from this list: a field is added here, and by a column of its name.
 */
import { array, mixed, number, object, string, type AnySchema, type StringSchema } from 'yup';
import { uuid } from '../uuid';

export interface ItemScope {
  input: string | null;
  result: string | null;
}

export const scopeInputs = ['camera data', 'rendered SDR', 'rendered HDR'] as const;
export const scopeResults = ['color', 'monochrome'] as const;
export const origins = ['house', 'bought', 'free', 'built in', 'measured', 'maker-like'] as const;

/** Where something came from, part by part, with its label in forms; what is not known is left away. */
export const sourceParts = [
  { part: 'address', label: 'Address', most: 500, type: 'text' },
  { part: 'author', label: 'Author', most: 200, type: 'text' },
  { part: 'date', label: 'Date', most: 40, type: 'date' },
  { part: 'receipt', label: 'Receipt', most: 200, type: 'text' },
  { part: 'price', label: 'Price', most: 60, type: 'text' },
  { part: 'access', label: 'How to get at it again', most: 400, type: 'text' },
] as const;
export type SourcePart = (typeof sourceParts)[number]['part'];
export type ItemSource = Partial<Record<SourcePart, string>>;

/** Without the parts that are empty, in the order of their definition. */
export const filledSource = (source: ItemSource): ItemSource =>
  Object.fromEntries(
    sourceParts.flatMap(({ part }) => {
      const value = source[part]?.trim();
      return value ? [[part, value]] : [];
    }),
  );

/** What a source may hold; parts that are not known are missing. */
export const sourceSchema = object(
  Object.fromEntries(
    sourceParts.map(({ part, label, most }) => [
      part,
      string().trim().max(most, `${label}: at most ${most} characters.`),
    ]),
  ) as Record<SourcePart, StringSchema<string | undefined>>,
).noUnknown();

/** What a field holds, with its limits. */
export type Shape =
  /** a line of at most so many characters; never empty where it is needed */
  | { is: 'line'; most: number; needed?: string }
  | { is: 'text'; most: number }
  | { is: 'whole'; least: number; most: number }
  /** at most so many entries, each of at most so many characters */
  | { is: 'list'; between: '/' | ','; most: number; length: number }
  | { is: 'choice'; of: readonly string[] }
  | { is: 'licence' }
  | { is: 'scope' }
  | { is: 'source' };

export interface ItemField {
  /** in forms */ label: string;
  /** in the activity, and where two changes meet */ word: string;
  shape: Shape;
  /** how many of a form's four columns it takes */ span: 1 | 2 | 4;
}

const line = (word: string, label: string, most: number, span: 1 | 2 | 4 = 1) => ({
  word,
  label,
  span,
  shape: { is: 'line', most } as const,
});
const text = (word: string, label: string, most: number) => ({
  word,
  label,
  span: 4 as const,
  shape: { is: 'text', most } as const,
});
const list = (word: string, label: string, between: '/' | ',', most: number, length: number) => ({
  word,
  label,
  span: 2 as const,
  shape: { is: 'list', between, most, length } as const,
});
const whole = (word: string, label: string, least: number, most: number) => ({
  word,
  label,
  span: 1 as const,
  shape: { is: 'whole', least, most } as const,
});

/** In the order in which a form shows them. */
export const itemFields = {
  title: { ...line('title', 'Title', 200, 2), shape: { is: 'line', most: 200, needed: 'An item needs a title.' } },
  short_title: line('short title', 'Short title', 60),
  sort_title: line('sorting name', 'Sorted as, where not by its title', 200, 2),
  position: whole('position', 'Position number', 0, 9999),
  headings: list('headings', 'Headings, from the outermost, with /', '/', 4, 80),
  tags: list('tags', 'Tags, with commas', ',', 40, 60),
  description: text('description', 'Description', 4000),
  intention: line('intention', 'What it is meant to do, to be held against what it does', 1000, 4),
  cameras: list('cameras', 'Cameras, with commas; none for any', ',', 60, 120),
  scope: { word: 'scope', label: 'Scope', span: 2, shape: { is: 'scope' } },
  lenses: list('lenses', 'Lenses, with commas', ',', 60, 160),
  origin: { word: 'origin', label: 'Origin', span: 1, shape: { is: 'choice', of: origins } },
  licence_id: { word: 'licence', label: 'Licence', span: 1, shape: { is: 'licence' } },
  supplier: line('supplier', 'Supplier', 200),
  source: { word: 'source', label: 'Source', span: 4, shape: { is: 'source' } },
  creator: line('creator', 'Creator', 200),
  rights: line('rights', 'Rights', 400),
  contact: line('contact', 'Contact', 300),
  web_statement: line('web statement', 'Web statement', 500),
  strength_least: whole('least strength', 'Least strength, %', 0, 400),
  strength_usual: whole('usual strength', 'Usual strength, %', 0, 400),
  strength_most: whole('most strength', 'Most strength, %', 1, 400),
  notes: text('notes', 'Notes', 8000),
} as const satisfies Record<string, ItemField>;

export type ItemFieldName = keyof typeof itemFields;
export const itemFieldNames = Object.keys(itemFields) as ItemFieldName[];

type ValueOf<S extends Shape> = S['is'] extends 'line' | 'text' | 'choice'
  ? string
  : S['is'] extends 'whole'
    ? number
    : S['is'] extends 'list'
      ? string[]
      : S['is'] extends 'licence'
        ? string | null
        : S['is'] extends 'source'
          ? ItemSource
          : ItemScope;

/** What is said of an item, all of it. */
export type EditableItem = { -readonly [K in ItemFieldName]: ValueOf<(typeof itemFields)[K]['shape']> };
/** Some of it, said anew. */
export type ItemChange = Partial<EditableItem>;

export const isItemField = (name: string): name is ItemFieldName => name in itemFields;

/** A field in words, also one that is not among these (any more). */
export const fieldWord = (name: string): string =>
  isItemField(name) ? itemFields[name].word : name.replaceAll('_', ' ');

function schemaOf(shape: Shape): AnySchema {
  switch (shape.is) {
    case 'line': {
      const schema = string().max(shape.most);
      return shape.needed ? schema.trim().min(1, shape.needed) : schema;
    }
    case 'text':
      return string().max(shape.most);
    case 'whole':
      return number().integer().min(shape.least).max(shape.most);
    case 'list':
      return array().of(string().trim().min(1).max(shape.length).required()).max(shape.most);
    case 'choice':
      return string().oneOf([...shape.of]);
    case 'licence':
      return uuid().nullable();
    case 'source':
      return sourceSchema.default(undefined);
    case 'scope':
      return object({
        input: string()
          .oneOf([...scopeInputs])
          .nullable(),
        result: string()
          .oneOf([...scopeResults])
          .nullable(),
      })
        .noUnknown()
        .default(undefined);
  }
}

/** Checks a change; fields that it does not name stay away from it. */
export const itemChangeSchema = object(
  Object.fromEntries(itemFieldNames.map((name) => [name, schemaOf(itemFields[name].shape)])),
).noUnknown();

/** Of a row that holds more, what can be said of an item. */
export const editableOf = (row: EditableItem): EditableItem =>
  Object.fromEntries(itemFieldNames.map((name) => [name, row[name]])) as unknown as EditableItem;

/** The same for a form, in which lists are typed as text. */
export const itemFormSchema = object(
  Object.fromEntries(
    itemFieldNames.map((name) => {
      const { shape } = itemFields[name];
      return [name, ['list', 'licence', 'scope', 'source'].includes(shape.is) ? mixed().nullable() : schemaOf(shape)];
    }),
  ),
);
