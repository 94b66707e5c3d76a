/** Editing what an item is called and what is said of it: one, with another person's change merged, or many at once. */
import type { BodyOf } from '@/core/api';
import { itemEndpoints, type BulkEdit, type BulkRow } from '@/core/api/items';
import { fileName } from '@/core/editor/file-name';
import { fieldWord, itemChangeSchema, itemFields, type ItemChange, type ItemScope } from '@/core/item/fields';
import { mergeFields, type FieldConflict } from '@/core/merge';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
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

async function write(sql: Sql, person: Person, before: q.ItemRow, change: ItemChange): Promise<void> {
  const keys = Object.keys(change) as (keyof ItemChange)[];
  const changed = keys.filter(
    (k) => JSON.stringify(before[k as keyof q.ItemRow] ?? null) !== JSON.stringify(change[k] ?? null),
  );
  if (!changed.length) return;
  if (changed.some((k) => k.startsWith('strength_'))) checkStrength({ ...before, ...change });
  await q.updateItem(sql, before.id, Object.fromEntries(changed.map((k) => [k, change[k]])));
  await record(
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
  const base = rule.find ? item.title.split(rule.find).join(rule.replace ?? '') : item.title;
  const with_ = rule.pattern || '{title}';
  return with_
    .replace(
      /\{(title|n|camera|supplier|heading)\}/g,
      (_, key: string) =>
        ({
          title: base,
          n: String(place),
          camera: item.cameras[0] ?? '',
          supplier: item.supplier,
          heading: item.headings[item.headings.length - 1] ?? '',
        })[key] ?? '',
    )
    .replace(/\s+/g, ' ')
    .trim();
}

const openScope: ItemScope = { input: null, result: null };

/** Without what was left away. */
const said = (scope: Partial<ItemScope>): Partial<ItemScope> =>
  Object.fromEntries(Object.entries(scope).filter(([, value]) => value !== undefined));

function changeFor(edit: BulkEdit, item: q.ItemRow, place: number): ItemChange {
  const out: ItemChange = { ...edit.set };
  // what is said of the scope is added to what was said before
  if (out.scope) out.scope = { ...openScope, ...item.scope, ...said(out.scope) };
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
      .filter(
        (field) =>
          field !== 'title' &&
          JSON.stringify(item[field as keyof q.ItemRow] ?? null) !== JSON.stringify(change[field] ?? null),
      )
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
export async function applyBulk(person: Person, input: BodyOf<'POST /api/items/bulk'>): Promise<{ changed: number }> {
  allow(person, 'item.edit');
  const edit = checked(itemEndpoints['POST /api/items/bulk'].body, input);
  return transaction(async (sql) => {
    const rows = await q.itemsByIds(sql, edit.items, person.id, true);
    for (const [i, item] of rows.entries()) {
      const change = checkedChange(changeFor(edit, item, i + 1));
      await write(sql, person, item, change);
    }
    return { changed: rows.length };
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
