/** Items and shelves: what stands where, ribbons, encoding, approval. */
import { createHash } from 'node:crypto';
import { newestForms } from '@/core/item/forms';
import type { BodyOf } from '@/core/api';
import { itemEndpoints } from '@/core/api/items';
import { type Look } from '@/core/look/look';
import { encodingOfText, encodingText, type AssumedEncoding } from '@/core/look/assumed-encoding';
import { type Inspection } from '@/core/look/inspect';
import { type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { recentlyUsed } from '@/core/recently-used';
import { getBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { calledBy, calledSource, presetShown, type PresetShown } from '../references/service';
import { compute } from '../threads/computing';
import type { TableSource } from '../threads/tasks';
import * as q from './queries';

export type { ItemRow, LineRow, SavedSearch, ShelfRow, VersionRow } from './queries';
export type { SpineRow } from '../search/service';

export const listShelves = (person: Person) => {
  allow(person, 'view');
  return q.shelves(pool(), person.id);
};

const unknown = (id: string): Problem =>
  new Problem('not-found', 'There is no such item.', id, 'Go back to Shelves; it may have been archived.');

export interface ItemWithVersions {
  item: q.ItemRow;
  versions: q.VersionRow[];
  newest: q.VersionRow;
  /** the newest version of each form, the plain one first */ forms: q.VersionRow[];
}

/** An item with its versions, the newest first. */
export async function itemFor(person: Person, id: string): Promise<ItemWithVersions> {
  allow(person, 'view');
  const sql = pool();
  const [item, versions] = await Promise.all([q.itemById(sql, id, person.id), q.versionsOf(sql, id)]);
  const [newest] = versions;
  if (!item || !newest) throw unknown(id);
  return { item, versions, newest, forms: newestForms(versions) };
}

/** That a person has looked at an item: it stands among those that were used lately. */
export async function noteView(person: Person, id: string): Promise<void> {
  allow(person, 'view');
  await q.used(pool(), id, person.id);
}

/** What a version was made from, and what was made from its item. */
export async function lineageOf(
  person: Person,
  { item, newest }: ItemWithVersions,
): Promise<{ sources: q.LineRow[]; results: q.LineRow[] }> {
  allow(person, 'view');
  const lines = await q.linesOf(pool(), newest.id, item.id);
  return {
    sources: lines.filter(({ side }) => side === 'source'),
    results: lines.filter(({ side }) => side === 'result'),
  };
}

/** Where an item is placed. */
export const placementsOf = (person: Person, id: string) => {
  allow(person, 'view');
  return q.placedOf(pool(), id);
};

/** The arrivals in which an item came. */
export const packsOf = (person: Person, id: string) => {
  allow(person, 'view');
  return q.packsOf(pool(), id);
};

export async function versionFor(person: Person, id: string) {
  allow(person, 'view');
  const version = await q.versionById(pool(), id);
  if (!version) throw unknown(id);
  return version;
}

/** As much of a version as its look is made from. */
export interface LookSource {
  /** where it is held: what a preset calls is bound by version */ id?: string;
  kind: q.Kind;
  sha256: Buffer;
  facts: Record<string, unknown>;
  title: string;
  encoding?: AssumedEncoding | null;
}

/** What its table is made from; throws a Problem for a version that has none. */
export async function tableSource(version: LookSource, sql: Sql = pool()): Promise<TableSource> {
  if (version.kind === 'look')
    return { kind: 'look', bytes: await getBlob(version.sha256, sql), encoding: version.encoding ?? null };
  if (version.kind !== 'preset')
    throw new Problem(
      'preview-kind',
      'Items of this kind have no look to be shown.',
      version.title,
      'Open its facts instead.',
    );
  const { settings, classes } = version.facts as { settings: Settings; classes: ClassOverrides };
  const called = version.id ? await calledSource(sql, version.id, settings) : null;
  return { kind: 'preset', title: version.title, settings, classes, called };
}

/** The look of a version, for sRGB values: as it is read in its encoding, or baked at 33 points from a preset for previews. */
export const lookOf = async (version: LookSource, sql: Sql = pool()): Promise<Look> =>
  compute('look', { source: await tableSource(version, sql), points: 0 });

/** The tables that were asked for last: a bench asks for the same from two workers at once. Another process makes its own. */
const tables = recentlyUsed<Look>(48);

/** The look of a version; with `points`, a 3D table of no more than so many points an axis, for small pictures. */
export async function smallerLook(version: LookSource, points = 0): Promise<Look> {
  return tables(`${await keyOf(version)} ${points}`, () => makeSmaller(version, points));
}

/** What a version's table is made from, in short: its file, how that is read, and the look that a preset calls. */
async function keyOf({ id, kind, sha256, encoding, facts }: LookSource): Promise<string> {
  const called = kind === 'preset' && id ? await calledBy(pool(), id, facts.settings as Settings) : null;
  const calls = called ? `${called.versionId} ${called.strength}` : '';
  return `${kind} ${sha256.toString('hex')} ${encoding ? encodingText(encoding) : ''}${calls}`;
}

const makeSmaller = async (version: LookSource, points: number): Promise<Look> =>
  compute('look', { source: await tableSource(version, pool()), points });

/** What a browser renders an item by: a table, or a preset's settings, which it evaluates itself. */
export type Rendering = { kind: 'table'; look: Look } | { kind: 'preset'; preset: PresetShown };

/** A version as a browser renders it; `as` reads a look in another encoding ("Rec. 2020, linear, full"). The tag says what the answer depends on. */
export async function renderingFor(
  person: Person,
  id: string,
  points: number,
  as: string,
): Promise<{ tag: string; make: () => Promise<Rendering> }> {
  const version = await versionFor(person, id);
  if (version.kind === 'preset') {
    const preset = await presetShown(pool(), version.id, version.facts);
    const tag = createHash('sha256').update(JSON.stringify(preset)).digest('hex').slice(0, 40);
    return { tag, make: async () => ({ kind: 'preset', preset }) };
  }
  const reading = as ? encodingOfText(as) : null;
  if (as && !reading)
    throw new Problem('reading', `"${as.slice(0, 60)}" is no encoding.`, 'as', 'Choose primaries, transfer and range.');
  const read = reading ? { ...version, encoding: reading } : version;
  return {
    tag: `${version.sha256.toString('hex').slice(0, 32)} ${points} ${read.encoding ? encodingText(read.encoding) : ''}`,
    make: async () => ({ kind: 'table', look: await smallerLook(read, points) }),
  };
}

/** Those of items that were looked at last; they are the same each time. */
const inspections = recentlyUsed<Inspection>(512);

/** The health of what a version does, as a route asks for it: `inspectionOf`. */
export const inspectionById = async (person: Person, versionId: string): Promise<Inspection | null> =>
  inspectionOf(person, await versionFor(person, versionId));

/**
 * A look's health, or a preset's as the table that it makes; null where it is neither, or cannot be read.
 * @param before what is waited for where it has to be computed
 */
export async function inspectionOf(
  person: Person,
  version: LookSource,
  before: () => Promise<unknown> = async () => {},
): Promise<Inspection | null> {
  allow(person, 'view');
  if (version.kind !== 'look' && version.kind !== 'preset') return null;
  try {
    return await inspections(await keyOf(version), async () => {
      await before();
      return compute('inspection', await tableSource(version, pool()));
    });
  } catch (error) {
    if (error instanceof Problem) return null;
    throw error;
  }
}

export async function setRibbon(
  person: Person,
  itemId: string,
  asked: BodyOf<'POST /api/items/:id/ribbon'>,
): Promise<void> {
  const input = checked(itemEndpoints['POST /api/items/:id/ribbon'].body, asked);
  allow(person, input.whose === 'house' ? 'ribbon.house' : 'ribbon.own');
  await transaction(async (sql) => {
    if (!(await q.itemById(sql, itemId, person.id))) throw unknown(itemId);
    const owner = input.whose === 'house' ? null : person.id;
    if (input.on) await q.ribbonOn(sql, itemId, owner, person.id);
    else await q.ribbonOff(sql, itemId, owner);
    await record(sql, actorOf(person), 'item', itemId, input.on ? 'ribbon set' : 'ribbon taken off', null, {
      whose: input.whose,
    });
  });
}
