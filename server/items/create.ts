/** Makes items and versions; inside the caller's transaction. */
import { camerasInScope } from '@/core/item/forms';
import { v7 } from 'uuid';
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import type { Identity } from '@/core/item/identity';
import { assumedEncoding, type Encoding } from '@/core/look/look';
import { settingById } from '@/core/preset/settings';
import { Problem } from '@/core/problem';
import type { Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { effectOf } from '../copies/effect';
import { nameCame, referencesCameIn } from '../references/bind';
import * as q from './queries';

export interface NewVersion {
  kind: q.Kind;
  sha: Buffer;
  fileName: string;
  format: string;
  facts: unknown;
  selvedge: unknown;
  notes: string;
  variant?: string;
  internalId?: string;
  /** of a look, where it is known and nobody has to confirm it */ encoding?: Encoding;
  /** given where it is known already; else told from the facts */ content?: Buffer | null;
  fingerprint?: Buffer | null;
}
export interface NewItem extends NewVersion {
  title: string;
  headings: string[];
  shelfId: string;
  supplier: string;
  licenceId?: string | null;
  source?: unknown;
  origin?: string;
  creator?: string;
  rights?: string;
  /** of its scope, where whoever makes it knows better than the file */ result?: 'color' | 'monochrome';
}

/** Words of a version that people search by: the settings that it uses, its tables, its camera. */
export function wordsOf(facts: Record<string, unknown>): string {
  const settings = Object.keys((facts.settings ?? {}) as object).flatMap((id) => {
    const setting = settingById.get(id);
    return setting ? [setting.title, setting.family] : [];
  });
  const nodes = ((facts.nodes ?? []) as { kind: string }[]).map((n) => n.kind);
  const lenses = (facts.lenses ?? []) as string[];
  return [...settings, ...nodes, ...lenses, facts.camera, facts.fileTitle, facts.space]
    .filter((w) => typeof w === 'string')
    .join(' ')
    .slice(0, 20000);
}

/** The item, held until the transaction ends; throws a Problem for one that a file of this kind can be no version of. */
async function itemForVersion(sql: Sql, itemId: string, kind: string): Promise<void> {
  const item = await q.lockItem(sql, itemId);
  if (!item)
    throw new Problem(
      'not-found',
      'The item of which this would be a version is not there.',
      itemId,
      'Choose another.',
    );
  if (item.archived_at)
    throw new Problem(
      'item-archived',
      `${item.title} is in the archive: a new version of it would not be seen.`,
      item.title,
      'Bring it back first, or choose another item.',
    );
  if (item.kind !== kind)
    throw new Problem(
      'version-kind',
      `${item.title} is a ${item.kind}; a ${kind} cannot be a version of it.`,
      item.title,
      'Make it an item of its own, or choose one of its kind.',
    );
}

/** Adds a version to an item; the newest of its variant is what counts. */
export async function addVersion(sql: Sql, actor: Actor, itemId: string, newVersion: NewVersion): Promise<string> {
  const id = v7();
  await itemForVersion(sql, itemId, newVersion.kind);
  const known =
    newVersion.content !== undefined && newVersion.fingerprint !== undefined
      ? null
      : await effectOf(sql, newVersion.kind, newVersion.sha, newVersion.facts as Record<string, unknown>);
  await q.insertVersion(sql, {
    id,
    itemId,
    sha: newVersion.sha,
    fileName: newVersion.fileName.slice(0, 255),
    format: newVersion.format,
    facts: newVersion.facts,
    selvedge: newVersion.selvedge ?? known?.selvedge ?? null,
    encoding: newVersion.kind === 'look' ? (newVersion.encoding ?? assumedEncoding) : null,
    notes: newVersion.notes,
    authorId: actor.personId,
    variant: (newVersion.variant ?? '').slice(0, 80),
    internalId: newVersion.internalId ?? '',
    words: wordsOf(newVersion.facts as Record<string, unknown>),
    content: newVersion.content ?? known?.content ?? null,
    fingerprint:
      newVersion.fingerprint ?? (known?.fingerprint ? Buffer.from(bytesOfFingerprint(known.fingerprint)) : null),
  });
  const facts = newVersion.facts as Record<string, unknown>;
  if (newVersion.kind === 'preset') await referencesCameIn(sql, id, facts);
  else await nameCame(sql, newVersion.kind, [facts.fileTitle]);
  return id;
}

/** The shelf, which stays until the transaction ends; throws a Problem for one that nothing can be put on by hand. */
export async function shelfToPutOn(sql: Sql, id: string): Promise<{ name: string }> {
  await q.holdShelf(sql, id);
  const shelf = await q.shelfById(sql, id);
  if (!shelf) throw new Problem('shelf-unknown', 'The chosen shelf is not there.', id, 'Choose another shelf.');
  if (shelf.query)
    throw new Problem(
      'shelf-search',
      `${shelf.name} fills itself by a search; nothing can be put on it by hand.`,
      shelf.name,
      'Choose another shelf.',
    );
  return shelf;
}

/** As much of a file's facts as its item takes over. */
interface SaidInFile {
  settings?: { monochrome?: unknown };
  cameras?: string[] | null;
  fileScope?: { input?: unknown; result?: unknown } | null;
  identity?: Partial<Identity>;
}

function scopeOf(
  { kind, result }: NewItem,
  { fileScope, settings }: SaidInFile,
): { input: string | null; result: string | null } {
  const said = fileScope?.result;
  const stated = said === 'monochrome' || said === 'color' ? said : null;
  const made = kind === 'preset' && settings?.monochrome ? 'monochrome' : stated;
  const input = typeof fileScope?.input === 'string' ? fileScope.input : null;
  return { input: kind === 'camera-profile' ? 'camera data' : input, result: result ?? made };
}

/** Whoever brings an item may know better than its file who made it. */
const identityOf = ({ creator, rights }: NewItem, { identity = {} }: SaidInFile) => ({
  creator: creator || (identity.creator ?? ''),
  rights: rights || (identity.rights ?? ''),
  description: identity.description ?? '',
  webStatement: identity.webStatement ?? '',
  contact: identity.contact ?? '',
});

/** What an item that is made of another takes over: where it stands, and whose it is. */
export const takenOver = (item: q.ItemRow) => ({
  shelfId: item.shelf_id,
  supplier: item.supplier,
  licenceId: item.licence_id,
  source: item.source,
  origin: item.origin,
  creator: item.creator,
  rights: item.rights,
});

export async function createItem(
  sql: Sql,
  actor: Actor,
  newItem: NewItem,
): Promise<{ itemId: string; versionId: string }> {
  const itemId = v7();
  const facts = newItem.facts as SaidInFile;
  await shelfToPutOn(sql, newItem.shelfId);
  await q.insertItem(sql, {
    id: itemId,
    kind: newItem.kind,
    title: newItem.title.trim().slice(0, 200) || 'Untitled',
    headings: newItem.headings.slice(0, 4),
    shelfId: newItem.shelfId,
    supplier: newItem.supplier,
    scope: scopeOf(newItem, facts),
    cameras: Array.isArray(facts.cameras) ? facts.cameras : camerasInScope(facts.fileScope),
    licenceId: newItem.licenceId ?? null,
    source: newItem.source ?? {},
    origin: newItem.origin ?? (newItem.supplier ? 'bought' : 'house'),
    ...identityOf(newItem, facts),
  });
  const versionId = await addVersion(sql, actor, itemId, newItem);
  await nameCame(sql, newItem.kind, [newItem.title]);
  await record(sql, actor, 'item', itemId, 'made', null, { title: newItem.title, kind: newItem.kind });
  return { itemId, versionId };
}
