/** An item's fields while they are edited, and what is sent of them when another person has changed them meanwhile. */
import {
  filledSource,
  itemFieldNames,
  itemFields,
  type EditableItem,
  type ItemFieldName,
  type ItemScope,
  type ItemSource,
} from '@/core/item/fields';
import { same } from '@/core/same';

/** Lists are text while they are typed; everything else is what it is. */
export type EditForm = Record<ItemFieldName, unknown>;

export interface FieldConflict {
  field: string;
  base: unknown;
  mine: unknown;
  theirs: unknown;
}
/** What a person saw when they began. */
export interface Seen {
  revision: number;
  base: Record<string, unknown>;
}

const spaced = { '/': ' / ', ',': ', ' } as const;

export function formOf(item: EditableItem): EditForm {
  const entries = itemFieldNames.map((name) => {
    const { shape } = itemFields[name];
    return [name, shape.is === 'list' ? (item[name] as string[]).join(spaced[shape.between]) : item[name]];
  });
  return Object.fromEntries(entries) as EditForm;
}

export function itemOf(form: EditForm): EditableItem {
  const entries = itemFieldNames.map((name) => {
    const { shape } = itemFields[name];
    if (shape.is === 'list') return [name, partsOf(String(form[name]), shape.between)];
    if (shape.is === 'whole') return [name, Number(form[name]) || 0];
    if (shape.is === 'scope') return [name, scopeOf(form[name] as ItemScope)];
    if (shape.is === 'source') return [name, filledSource(form[name] as ItemSource)];
    if (shape.is === 'licence') return [name, form[name] || null];
    return [name, form[name]];
  });
  return Object.fromEntries(entries) as unknown as EditableItem;
}

const partsOf = (text: string, between: string): string[] =>
  text
    .split(between)
    .map((part) => part.trim())
    .filter(Boolean);

const scopeOf = (scope: ItemScope): ItemScope => ({ input: scope.input || null, result: scope.result || null });

/** What holds now for the fields in conflict is what the person has seen, once both were shown. */
export const seenWith = (start: Seen, revision: number, conflicts: readonly FieldConflict[]): Seen => ({
  revision,
  base: { ...start.base, ...Object.fromEntries(conflicts.map(({ field, theirs }) => [field, theirs])) },
});

/** Only what this person changed is sent, so that nothing else of the item is written over; and each field that was in conflict. */
export function changedSince(
  item: EditableItem,
  seen: Seen,
  conflicts: readonly FieldConflict[],
  takeTheirs: ReadonlySet<string>,
): Record<string, unknown> {
  const inConflict = new Map(conflicts.map((one) => [one.field, one.theirs]));
  const mine: Record<string, unknown> = {};
  for (const name of itemFieldNames) {
    const value = takeTheirs.has(name) && inConflict.has(name) ? inConflict.get(name) : item[name];
    if (inConflict.has(name) || !same(value, seen.base[name])) mine[name] = value;
  }
  return mine;
}

/** A field's value in words, for choosing between two. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (Array.isArray(value)) return value.join(' / ') || 'nothing';
  if (typeof value === 'object') return Object.values(value).filter(Boolean).join(', ') || 'any';
  return String(value as string | number);
}
