/** Items and shelves: what stands where, ribbons, encoding, approval. */
import { v7 } from 'uuid';
import { number, object, string } from 'yup';
import { readCube } from '@/core/look/cube';
import type { Look } from '@/core/look/look';
import { bake, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../events';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../people/service';
import * as q from './queries';

export type { ItemRow, LineRow, ShelfRow, SpineRow, VersionRow } from './queries';

export const listShelves = (person: Person) => { allow(person, 'view'); return q.shelves(pool()); };

export async function addShelf(person: Person, input: { name: string; note?: string }): Promise<string> {
  allow(person, 'shelf.edit');
  const s = checked(object({ name: string().trim().required('A shelf needs a name.').max(120), note: string().max(300).default('') }).noUnknown(), input), id = v7();
  await transaction(async (sql) => {
    await q.insertShelf(sql, { id, name: s.name, note: s.note, position: (await q.lastShelfPosition(sql)) + 1 });
    await record(sql, actorOf(person), 'shelf', id, 'made', null, { name: s.name });
  });
  return id;
}

export interface SpineQuery { words?: string; kind?: string | null; status?: string | null; ribbon?: boolean; shelf?: string | null; perShelf?: number }

/** The first 24 of each shelf, or the first 600 of one; how many there are in all is said with each. */
export async function listSpines(person: Person, f: SpineQuery): Promise<q.SpineRow[]> {
  allow(person, 'view');
  const kind = f.kind === 'look' || f.kind === 'preset' ? f.kind : null, status = ['draft', 'approved', 'retired'].includes(f.status ?? '') ? f.status! : null;
  const shelf = /^[0-9a-f-]{36}$/.test(f.shelf ?? '') ? f.shelf! : null;
  const filter: Omit<q.SpineFilter, 'alike'> = { person: person.id, words: (f.words ?? '').trim().slice(0, 100), kind, status, ribbon: !!f.ribbon, shelf, perShelf: shelf ? 600 : (f.perShelf ?? 24) };
  const exact = await q.spines(pool(), { ...filter, alike: false });
  // a slip of the finger is forgiven only where nothing is spelled that way
  return exact.length || filter.words.length < 4 ? exact : q.spines(pool(), { ...filter, alike: true });
}

const unknown = (id: string): Problem => new Problem('not-found', 'There is no such item.', id, 'Go back to Shelves; it may have been archived.');

export async function itemFor(person: Person, id: string) {
  allow(person, 'view');
  const sql = pool(), item = await q.itemById(sql, id, person.id);
  if (!item) throw unknown(id);
  const versions = await q.versionsOf(sql, id), newest = versions[0]!;
  const [sources, results, placed, packs] = await Promise.all([q.sourcesOf(sql, newest.id), q.resultsOf(sql, id), q.placedOf(sql, id), q.packsOf(sql, id)]);
  return { item, versions, newest, sources, results, placed, packs };
}

export async function versionFor(person: Person, id: string) {
  allow(person, 'view');
  const v = await q.versionById(pool(), id);
  if (!v) throw unknown(id);
  return v;
}

/** The look of a version: as it is, or baked at 33 points from a preset for previews. */
export async function lookOf(v: { kind: q.Kind; sha256: Buffer; facts: Record<string, unknown>; title: string }, sql: Sql = pool()): Promise<Look> {
  if (v.kind === 'look') return readCube(await getBlob(v.sha256, sql));
  return bake(v.facts.settings as Settings, 33, v.title, v.facts.classes as ClassOverrides).look;
}

export async function setRibbon(person: Person, itemId: string, input: { on: boolean; whose: 'mine' | 'house' }): Promise<void> {
  allow(person, input.whose === 'house' ? 'ribbon.house' : 'ribbon.own');
  await transaction(async (sql) => {
    if (!(await q.itemById(sql, itemId, person.id))) throw unknown(itemId);
    const owner = input.whose === 'house' ? null : person.id;
    if (input.on) await q.ribbonOn(sql, itemId, owner, person.id); else await q.ribbonOff(sql, itemId, owner);
    await record(sql, actorOf(person), 'item', itemId, input.on ? 'ribbon set' : 'ribbon taken off', null, { whose: input.whose });
  });
}

const encodingSchema = object({
  primaries: string().oneOf(['sRGB', 'Display P3', 'Rec. 2020', 'ProPhoto']).required(), transfer: string().oneOf(['sRGB', 'linear', 'gamma 2.2', 'gamma 2.4']).required(),
  range: string().oneOf(['full', 'legal']).required(), referred: string().oneOf(['display', 'scene']).required(), white: string().oneOf(['D65', 'D50']).required(),
}).noUnknown();

/** A person says what the look's values mean; until then it is an assumption. */
export async function confirmEncoding(person: Person, versionId: string, input: Record<string, string>): Promise<void> {
  allow(person, 'item.edit');
  const encoding = { ...checked(encodingSchema, input), assumed: false };
  await transaction(async (sql) => {
    const v = await q.versionById(sql, versionId);
    if (!v) throw unknown(versionId);
    if (v.kind !== 'look') throw new Problem('encoding-kind', 'Only looks have an encoding.', v.title, 'Convert the preset into a look first.');
    await q.setEncoding(sql, versionId, encoding, person.id);
    await record(sql, actorOf(person), 'item', v.item_id, 'encoding confirmed', v.encoding, encoding);
  });
}

/** Approves a draft. A look whose encoding is only assumed cannot be approved. For a start, one's own drafts may be. */
export async function approve(person: Person, versionId: string): Promise<void> {
  allow(person, 'item.approve');
  await transaction(async (sql) => {
    const v = await q.versionById(sql, versionId);
    if (!v) throw unknown(versionId);
    if (v.status !== 'draft') throw new Problem('status', `Version ${v.number} of ${v.title} is ${v.status} already.`, v.title, 'Reload the page.');
    if (v.kind === 'look' && v.encoding?.assumed !== false) throw new Problem('encoding-assumed', `The encoding of ${v.title} is only assumed.`, v.title, 'Confirm its encoding first, then approve it.');
    await q.setStatus(sql, versionId, 'approved', person.id);
    await record(sql, actorOf(person), 'item', v.item_id, 'approved', { status: v.status }, { status: 'approved', version: v.number });
  });
}

export async function describeItem(person: Person, id: string, input: { revision: number; title: string; description: string }): Promise<void> {
  allow(person, 'item.edit');
  const i = checked(object({ revision: number().integer().required(), title: string().trim().required('An item needs a title.').max(200), description: string().max(4000).default('') }).noUnknown(), input);
  await transaction(async (sql) => {
    const before = await q.itemById(sql, id, person.id);
    if (!before) throw unknown(id);
    if (!(await q.renameItem(sql, id, i.revision, i.title, i.description))) throw new Problem('edited-meanwhile', 'Someone else changed this item while you did.', before.title, 'Reload the page, look at their change, and make yours again.');
    await record(sql, actorOf(person), 'item', id, 'described', { title: before.title, description: before.description }, { title: i.title, description: i.description });
  });
}

