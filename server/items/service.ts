/** Items and shelves: what stands where, ribbons, encoding, approval. */
import type { BodyOf } from '@/core/api';
import { itemEndpoints } from '@/core/api/items';
import { versionEndpoints } from '@/core/api/versions';
import { type Look } from '@/core/look/look';
import { isPlain, encodingOfText, encodingText, type AssumedEncoding } from '@/core/look/assumed-encoding';
import { bytesOfFingerprint, fingerprint } from '@/core/look/fingerprint';
import { sampler } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
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
}

/** An item with its versions, the newest first. */
export async function itemFor(person: Person, id: string): Promise<ItemWithVersions> {
  allow(person, 'view');
  const sql = pool();
  const [item, versions] = await Promise.all([q.itemById(sql, id, person.id), q.versionsOf(sql, id)]);
  const [newest] = versions;
  if (!item || !newest) throw unknown(id);
  return { item, versions, newest };
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
  const [sources, results] = await Promise.all([q.sourcesOf(pool(), newest.id), q.resultsOf(pool(), item.id)]);
  return { sources, results };
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
  kind: q.Kind;
  sha256: Buffer;
  facts: Record<string, unknown>;
  title: string;
  encoding?: AssumedEncoding | null;
}

/** What its table is made from; throws a Problem for a version that has none. */
async function tableSource(version: LookSource, sql: Sql): Promise<TableSource> {
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
  return { kind: 'preset', title: version.title, settings, classes };
}

/** The look of a version, for sRGB values: as it is read in its encoding, or baked at 33 points from a preset for previews. */
export const lookOf = async (version: LookSource, sql: Sql = pool()): Promise<Look> =>
  compute('look', { source: await tableSource(version, sql), points: 0 });

/** The tables that were asked for last: a bench asks for the same from two workers at once. Another process makes its own. */
const tables = recentlyUsed<Look>(48);

/** The look of a version; with `points`, a 3D table of no more than so many points an axis, for small pictures. */
export function smallerLook(version: LookSource, points = 0): Promise<Look> {
  return tables(`${keyOf(version)} ${points}`, () => makeSmaller(version, points));
}

/** What a version's table is made from, in short. */
function keyOf({ kind, sha256, encoding }: LookSource): string {
  return `${kind} ${sha256.toString('hex')} ${encoding ? encodingText(encoding) : ''}`;
}

const makeSmaller = async (version: LookSource, points: number): Promise<Look> =>
  compute('look', { source: await tableSource(version, pool()), points });

/** A version's table for a browser; `as` reads it in another encoding ("Rec. 2020, linear, full"). The tag says what the answer depends on. */
export async function tableFor(
  person: Person,
  id: string,
  points: number,
  as: string,
): Promise<{ tag: string; make: () => Promise<Look> }> {
  const version = await versionFor(person, id);
  const reading = as ? encodingOfText(as) : null;
  if (as && !reading)
    throw new Problem('reading', `"${as.slice(0, 60)}" is no encoding.`, 'as', 'Choose primaries, transfer and range.');
  const read = reading ? { ...version, encoding: reading } : version;
  return {
    tag: `${version.sha256.toString('hex').slice(0, 32)} ${points} ${read.encoding ? encodingText(read.encoding) : ''}`,
    make: () => smallerLook(read, points),
  };
}

/** Those of items that were looked at last; they are the same each time. */
const inspections = recentlyUsed<Inspection>(512);

/** A look's health, or a preset's as the table that it makes; null where it is neither, or cannot be read. */
export async function inspectionOf(person: Person, versionId: string): Promise<Inspection | null> {
  const version = await versionFor(person, versionId);
  if (version.kind !== 'look' && version.kind !== 'preset') return null;
  try {
    return await inspections(keyOf(version), async () => compute('inspection', await tableSource(version, pool())));
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

/** A person says what the look's values mean; until then it is an assumption. */
export async function confirmEncoding(person: Person, versionId: string, input: unknown): Promise<void> {
  allow(person, 'item.edit');
  const encoding = { ...checked(versionEndpoints['POST /api/versions/:id/encoding'].body, input), assumed: false };
  await transaction(async (sql) => {
    const version = await q.versionById(sql, versionId);
    if (!version) throw unknown(versionId);
    if (version.kind !== 'look')
      throw new Problem(
        'encoding-kind',
        'Only looks have an encoding.',
        version.title,
        'Convert the preset into a look first.',
      );
    await q.setEncoding(sql, versionId, encoding, person.id);
    if (!isPlain(encoding) || (version.encoding && !isPlain(version.encoding))) {
      // what it does to colors is another thing now
      const evaluate = await lookOf({ ...version, encoding }, sql)
        .then(sampler)
        .catch((error: unknown) => {
          if (error instanceof Problem) return null;
          throw error;
        });
      if (evaluate)
        await q.setEffect(sql, versionId, selvedge(evaluate), Buffer.from(bytesOfFingerprint(fingerprint(evaluate))));
    }
    await record(sql, actorOf(person), 'item', version.item_id, 'encoding confirmed', version.encoding, encoding);
  });
}

/** Approves a draft. A look whose encoding is only assumed cannot be approved. For a start, one's own drafts may be. */
export async function approve(person: Person, versionId: string): Promise<void> {
  allow(person, 'item.approve');
  await transaction(async (sql) => {
    await q.lockItemOf(sql, versionId);
    const version = await q.versionById(sql, versionId);
    if (!version) throw unknown(versionId);
    if (version.status !== 'draft')
      throw new Problem(
        'status',
        `Version ${version.number} of ${version.title} is ${version.status} already.`,
        version.title,
        'Reload the page.',
      );
    if (version.kind === 'look' && version.encoding?.assumed !== false)
      throw new Problem(
        'encoding-assumed',
        `The encoding of ${version.title} is only assumed.`,
        version.title,
        'Confirm its encoding first, then approve it.',
      );
    await q.setStatus(sql, versionId, 'approved', person.id);
    await record(
      sql,
      actorOf(person),
      'item',
      version.item_id,
      'approved',
      { status: version.status },
      { status: 'approved', version: version.number },
    );
  });
}
