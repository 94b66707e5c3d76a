/** Many items changed at once: what is typed in the form, and what is asked of the server. */
import type { BulkEdit } from '@/core/api/items';
import { filledSource, type SourcePart } from '@/core/item/fields';

export interface BulkForm {
  find: string;
  replace: string;
  /** of titles, with placeholders */ pattern: string;
  /** between "/" */ headings: string;
  /** between commas */ addTags: string;
  removeTags: string;
  /** '' leaves it, 'any' leaves it open */ input: string;
  result: string;
  cameras: string;
  /** '' leaves it, 'none' notes none */ licence: string;
  description: string;
  supplier: string;
  /** '' leaves it */ origin: string;
  /** parts that are typed; the others stay */ source: Partial<Record<SourcePart, string>>;
}

export const emptyForm: BulkForm = {
  find: '',
  replace: '',
  pattern: '',
  headings: '',
  addTags: '',
  removeTags: '',
  input: '',
  result: '',
  cameras: '',
  licence: '',
  description: '',
  supplier: '',
  origin: '',
  source: {},
};

const listed = (text: string, between: string): string[] =>
  text
    .split(between)
    .map((part) => part.trim())
    .filter(Boolean);

const openOr = (value: string): string | null => (value === 'any' ? null : value);

/** The fields that all of the items get, as far as they were typed. */
function fieldsOf(form: BulkForm): Record<string, unknown> {
  const fields: Record<string, unknown> = {};
  const cameras = form.cameras.trim();
  if (form.headings.trim()) fields.headings = listed(form.headings, '/');
  if (cameras) fields.cameras = cameras === 'any' ? [] : listed(cameras, ',');
  if (form.licence) fields.licence_id = form.licence === 'none' ? null : form.licence;
  if (form.description.trim()) fields.description = form.description.trim();
  if (form.supplier.trim()) fields.supplier = form.supplier.trim();
  if (form.origin) fields.origin = form.origin;
  const source = filledSource(form.source);
  if (Object.keys(source).length) fields.source = source;
  if (form.input || form.result)
    fields.scope = {
      ...(form.input ? { input: openOr(form.input) } : {}),
      ...(form.result ? { result: openOr(form.result) } : {}),
    };
  return fields;
}

export function changeOf(items: readonly string[], form: BulkForm): BulkEdit {
  const set = fieldsOf(form);
  const { find, replace, pattern } = form;
  return {
    items: [...items],
    ...(find || pattern ? { title: { find, replace, pattern } } : {}),
    ...(Object.keys(set).length ? { set } : {}),
    addTags: listed(form.addTags, ','),
    removeTags: listed(form.removeTags, ','),
  };
}

/** Whether anything is asked for at all. */
export const changesSomething = (change: BulkEdit): boolean =>
  !!change.set || !!change.title || !!change.addTags?.length || !!change.removeTags?.length;
