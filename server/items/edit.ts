/** Editing what an item is called and what is said of it: one, with another person's change merged, or many at once. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { itemEndpoints, type BulkEdit, type BulkRow, type LeftOut } from '@/core/api/items';
import { fileName } from '@/core/editor/file-name';
import {
  fieldWord,
  filledSource,
  itemChangeSchema,
  itemFields,
  type ItemChange,
  type ItemScope,
} from '@/core/item/fields';
import { titleByPattern } from '@/core/item/title-pattern';
import { mergeFields, type FieldConflict } from '@/core/merge';
import { Problem } from '@/core/problem';
import { same } from '@/core/same';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { editsBetween, record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { nameCame } from '../references/bind';
import * as q from './queries';

/** Two people changed the same field, differently: both values, so that the second can merge. */
export class EditConflict extends Problem {
  constructor(
    title: string,
    readonly who: string,
    readonly revision: number,
    readonly fields: FieldConflict[],
  ) {
    super(
      'edited-meanwhile',
      `${who || 'Someone else'} changed ${fields.map((one) => fieldWord(one.field)).join(' and ')} of this item while you did.`,
      title,
      'Choose which to keep; nothing of either is lost until you do.',
    );
  }
  override toJSON() {
    return { ...super.toJSON(), revision: this.revision, fields: this.fields, who: this.who };
  }
}

export type { ItemChange } from '@/core/item/fields';

function checkedChange(input: unknown): ItemChange {
  const change = checked(itemChangeSchema, input) as ItemChange;
  const asked = input as object;
  const out = Object.fromEntries(Object.entries(change).filter(([k]) => k in asked)) as ItemChange;
  if (out.source) out.source = filledSource(out.source);
  return out;
}

const pick = (row: object, keys: string[]): Record<string, unknown> =>
  Object.fromEntries(keys.map((k) => [k, (row as Record<string, unknown>)[k] ?? null]));
const gone = (id: string): Problem =>
  new Problem('not-found', 'There is no such item.', id, 'Go back to Shelves; it may have been archived.');

/**
 * Changes an item. `base` is what the person saw when they began: a change by someone else meanwhile is merged where it
 * touched other fields, and refused with both values where it touched the same.
 */
export async function editItem(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/items/:id'>,
): Promise<{ revision: number; merged: string[]; who: string }> {
  allow(person, 'item.edit');
  const mine = checkedChange(input.mine);
  return transaction(async (sql) => {
    const before = await q.itemById(sql, id, person.id, true);
    if (!before) throw gone(id);
    const keys = Object.keys(mine);
    const theirs = pick(before, keys);
    if (before.revision === input.revision) {
      await write(sql, person, before, mine);
      return { revision: before.revision + 1, merged: [], who: '' };
    }
    const outcome = mergeFields(input.base ?? {}, mine, theirs);
    const who = await q.lastEditor(sql, id, person.id);
    if (outcome.conflicts.length) throw new EditConflict(before.title, who, before.revision, outcome.conflicts);
    await write(sql, person, before, outcome.merged as ItemChange);
    return { revision: before.revision + 1, merged: outcome.kept, who };
  });
}

/** Least, usual and most in their order; the same three, at 100 %, where an item takes no strength at all. */
function checkStrength({
  strength_least: least,
  strength_usual: usual,
  strength_most: most,
}: {
  strength_least: number;
  strength_usual: number;
  strength_most: number;
}): void {
  const refuse = (message: string, remedy: string) => {
    throw new Problem('input-invalid', message, 'strength', remedy);
  };
  if (least > most) refuse('The least strength is above the most.', 'Correct one of them.');
  if (least === most && (least !== 100 || usual !== 100))
    refuse(
      'What takes no strength is as made: 100 %.',
      'Set least, usual and most to 100, or let least and most differ.',
    );
}

/** Answers the number of the event that tells of it; null where nothing differs. */
async function write(sql: Sql, person: Person, before: q.ItemRow, change: ItemChange): Promise<number | null> {
  const keys = Object.keys(change) as (keyof ItemChange)[];
  const changed = keys.filter((k) => !same(before[k as keyof q.ItemRow], change[k]));
  if (!changed.length) return null;
  if (changed.some((k) => k.startsWith('strength_'))) checkStrength({ ...before, ...change });
  await q.updateItem(sql, before.id, Object.fromEntries(changed.map((k) => [k, change[k]])));
  if (changed.includes('title')) await nameCame(sql, before.kind, [change.title]);
  return record(
    sql,
    actorOf(person),
    'item',
    before.id,
    changed.includes('title') ? 'renamed' : 'described',
    pick(before, changed),
    pick(change, changed),
  );
}

function newTitle(rule: NonNullable<BulkEdit['title']>, item: q.ItemRow, place: number): string {
  const title = rule.find ? item.title.split(rule.find).join(rule.replace ?? '') : item.title;
  return titleByPattern(rule.pattern ?? '', {
    title,
    place,
    camera: item.cameras[0] ?? '',
    supplier: item.supplier,
    heading: item.headings.at(-1) ?? '',
  });
}

const openScope: ItemScope = { input: null, result: null };

/** Without what was left away. */
const said = <Parts extends object>(parts: Parts): Partial<Parts> =>
  Object.fromEntries(Object.entries(parts).filter(([, value]) => value !== undefined)) as Partial<Parts>;

function changeFor(edit: BulkEdit, item: q.ItemRow, place: number): ItemChange {
  const out: ItemChange = { ...edit.set };
  // what is said of the scope is added to what was said before
  if (out.scope) out.scope = { ...openScope, ...item.scope, ...said(out.scope) };
  if (out.source) out.source = filledSource({ ...item.source, ...said(out.source) });
  if (edit.title) out.title = newTitle(edit.title, item, place);
  if (edit.addTags?.length || edit.removeTags?.length)
    out.tags = [...new Set([...item.tags.filter((t) => !edit.removeTags?.includes(t)), ...(edit.addTags ?? [])])];
  return out;
}

function titleProblem(title: string): string | null {
  if (!title) return 'the title would be empty';
  const { most } = itemFields.title.shape;
  return title.length > most ? `the title would be longer than ${most} characters` : null;
}

/** What a change of many would do: each title, what else changes, and each file name that results in every editor. */
export async function previewBulk(person: Person, input: BodyOf<'POST /api/items/bulk'>): Promise<BulkRow[]> {
  allow(person, 'item.edit');
  const edit = checked(itemEndpoints['POST /api/items/bulk'].body, input);
  const sql = pool();
  const rows = await q.itemsByIds(sql, edit.items, person.id);
  const all = await descriptors(sql);
  const formats = await q.newestFormats(sql, edit.items);
  const taken = new Map<string, Set<string>>();
  return rows.map((item, i) => {
    const change = changeFor(edit, item, i + 1);
    const title = change.title ?? item.title;
    const files: BulkRow['files'] = [];
    for (const descriptor of all) {
      const accepts = descriptor.accepts.find(
        (x) => x.kind === item.kind && (x.kind !== 'preset' || x.language === formats.get(item.id)),
      );
      if (!accepts) continue;
      const key = `${descriptor.editor}@${descriptor.version}`;
      const names = taken.get(key) ?? new Set<string>();
      const name = fileName(title || 'item', accepts.extension, accepts.names, names);
      names.add(name.toLowerCase());
      taken.set(key, names);
      files.push({ editor: descriptor.title, name, altered: name !== title + accepts.extension });
    }
    const changes = (Object.keys(change) as (keyof ItemChange)[])
      .filter((field) => field !== 'title' && !same(item[field as keyof q.ItemRow], change[field]))
      .map(fieldWord);
    return {
      id: item.id,
      kind: item.kind,
      before: item.title,
      after: title,
      changes,
      files,
      problem: titleProblem(title),
    };
  });
}

/** Changes many items at once, all or none. */
export async function applyBulk(
  person: Person,
  input: BodyOf<'POST /api/items/bulk'>,
): Promise<AnswerOf<'POST /api/items/bulk'>> {
  allow(person, 'item.edit');
  const edit = checked(itemEndpoints['POST /api/items/bulk'].body, input);
  return transaction(async (sql) => {
    const rows = await q.itemsByIds(sql, edit.items, person.id, true);
    const events: number[] = [];
    for (const [i, item] of rows.entries()) {
      const change = checkedChange(changeFor(edit, item, i + 1));
      const event = await write(sql, person, item, change);
      if (event !== null) events.push(event);
    }
    return { changed: rows.length, undo: { first: events[0] ?? 0, last: events.at(-1) ?? 0 } };
  });
}

/**
 * Takes a change of many back that the same person made: every field that still is as it was left then. What somebody has
 * changed since stays, and is told.
 */
export async function undoBulk(
  person: Person,
  input: BodyOf<'POST /api/items/bulk/undo'>,
): Promise<AnswerOf<'POST /api/items/bulk/undo'>> {
  allow(person, 'item.edit');
  const { first, last } = checked(itemEndpoints['POST /api/items/bulk/undo'].body, input);
  return transaction(async (sql) => {
    const edits = await editsBetween(sql, person.id, first, last);
    const rows = await q.itemsByIds(sql, [...new Set(edits.map((edit) => edit.id))], person.id, true);
    const items = new Map(rows.map((row) => [row.id, row]));
    const left: LeftOut[] = [];
    let changed = 0;
    for (const { id, before, after } of edits) {
      const item = items.get(id);
      if (!item) continue;
      const isAsLeft = (field: string): boolean => same(item[field as keyof q.ItemRow], after[field]);
      const back = Object.fromEntries(Object.entries(before).filter(([field]) => isAsLeft(field)));
      const since = Object.keys(before).filter((field) => !isAsLeft(field));
      if (since.length)
        left.push({ id, title: item.title, why: `${since.map(fieldWord).join(' and ')} changed since` });
      if ((await write(sql, person, item, back)) !== null) changed++;
    }
    return { changed, left };
  });
}

/** Puts items into the archive, or brings them back. What is placed on stations stays there until it is removed by a rollout. */
export async function archiveItems(
  person: Person,
  input: BodyOf<'POST /api/items/archive'>,
): Promise<{ changed: number }> {
  allow(person, 'item.archive');
  const { items, archived } = checked(itemEndpoints['POST /api/items/archive'].body, input) as {
    items: string[];
    archived: boolean;
  };
  return transaction(async (sql) => {
    const changed = await q.archive(sql, items, archived);
    for (const item of changed)
      await record(
        sql,
        actorOf(person),
        'item',
        item.id,
        archived ? 'archived' : 'restored',
        { archived: !archived, title: item.title },
        { archived, title: item.title },
      );
    return { changed: changed.length };
  });
}
