/** Versions of an item: what differs between two, and a new one with the title written into the file. */
import { identityOfItem } from '@/core/item/identity';
import type { LensDifference } from '@/core/lens/records';
import { neutralRamps, presetCurves, straight } from '@/core/look/compare';
import type { Look } from '@/core/look/look';
import { settingChanges, type SettingChange } from '@/core/pack/likeness';
import { recognise } from '@/core/recognise';
import { writeTitle } from '@/core/pack/write-title';
import type { Settings } from '@/core/preset/kinds';
import { must } from '@/core/must';
import { orNull, Problem } from '@/core/problem';
import sharp from 'sharp';
import { getBlob, putBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../activity/queries';
import { framePicture, listFrames } from '../frames/service';
import { actorOf, allow, type Person } from '../people/roles';
import { addVersion } from '../items/create';
import { effectOf } from '../copies/effect';
import { compute } from '../threads/computing';
import * as q from '../items/queries';
import { lookOf, versionFor } from '../items/service';

export interface VersionDifference {
  older: { number: number; id: string };
  newer: { number: number; id: string };
  settings: SettingChange[];
  /** what they refer to, where that differs; `alone`: and no setting does */ references: {
    before: string[];
    after: string[];
    alone: boolean;
  } | null;
  facts: { name: string; before: string; after: string }[];
  /** Curves of both, as code values 0…1 in and out: the presets' own, else the neutral ramps of the tables. */
  curves: { name: string; older: [number, number][]; newer: [number, number][] }[];
  /** Of a lens database, record by record. */ records: LensDifference | null;
  color: { mean: number; p95: number; max: number } | null;
  frames: { id: string; name: string; mean: number; p95: number; max: number }[];
}

const said = (value: unknown): string => {
  if (value === undefined || value === null) return '–';
  if (typeof value === 'number') return String(Number(value.toFixed(4)));
  if (Array.isArray(value)) return value.map(said).join(', ');
  if (typeof value === 'object')
    return Object.entries(value)
      .map(([k, x]) => `${k} ${said(x)}`)
      .join('; ');
  return String(value as string | boolean);
};
/** A frame at 320 pixels, as RGBA. */
const smallPicture = async (person: Person, frame: string): Promise<Uint8Array> =>
  sharp(await framePicture(person, frame, 320))
    .removeAlpha()
    .ensureAlpha()
    .raw()
    .toBuffer();

type Held = Awaited<ReturnType<typeof versionFor>>;

/** Facts that are told in another way, or by which two files do not differ in what they do. */
const TOLD_ELSEWHERE = [
  'settings',
  'classes',
  'unknown',
  'comments',
  'warnings',
  'references',
  'evidence',
  'corrections',
];

function factChanges(older: Held, newer: Held): VersionDifference['facts'] {
  const skipped = new Set([...TOLD_ELSEWHERE, ...(older.kind === 'lens-database' ? ['lenses', 'mounts'] : [])]);
  const changes = [...new Set([...Object.keys(older.facts), ...Object.keys(newer.facts)])]
    .filter((name) => !skipped.has(name) && JSON.stringify(older.facts[name]) !== JSON.stringify(newer.facts[name]))
    .map((name) => ({ name, before: said(older.facts[name]), after: said(newer.facts[name]) }));
  if (older.format !== newer.format) changes.push({ name: 'format', before: older.format, after: newer.format });
  return changes;
}

/** By kind and name, in the order of the alphabet. */
function referencesIn(version: Held): string[] {
  return ((version.facts.references ?? []) as { kind?: string; name?: string }[])
    .map((r) => [r.kind?.replace('-', ' '), r.name].filter(Boolean).join(' '))
    .sort();
}

function referenceChange(older: Held, newer: Held, alone: boolean): VersionDifference['references'] {
  const before = referencesIn(older);
  const after = referencesIn(newer);
  return older.kind === 'preset' && before.join() !== after.join() ? { before, after, alone } : null;
}

const settingsOf = (version: Held): Settings => (version.facts.settings ?? {}) as Settings;

function curveChanges(older: Held, newer: Held, olderLook: Look, newerLook: Look): VersionDifference['curves'] {
  const before = older.kind === 'preset' ? presetCurves(settingsOf(older)) : neutralRamps(olderLook);
  const after = newer.kind === 'preset' ? presetCurves(settingsOf(newer)) : neutralRamps(newerLook);
  const pointsOf = (curves: typeof before, name: string) => curves.find((c) => c.name === name)?.points ?? straight;
  return [...new Set([...before, ...after].map((curve) => curve.name))]
    .map((name) => ({ name, older: pointsOf(before, name), newer: pointsOf(after, name) }))
    .filter((curve) => JSON.stringify(curve.older) !== JSON.stringify(curve.newer));
}

/** The look of a version, or null where none can be had of it. */
const lookOrNull = (version: Held): Promise<Look | null> => orNull(lookOf(version));

/** What differs between two versions of one item: settings, references, other facts, curves, and color on frames. */
export async function compareVersions(person: Person, olderId: string, newerId: string): Promise<VersionDifference> {
  allow(person, 'view');
  const [older, newer] = await Promise.all([versionFor(person, olderId), versionFor(person, newerId)]);
  if (older.item_id !== newer.item_id)
    throw new Problem(
      'versions-apart',
      'These are versions of two items.',
      older.title,
      'Choose two versions of one item.',
    );
  const settings = older.kind === 'preset' ? settingChanges(settingsOf(older), settingsOf(newer)) : [];
  const out: VersionDifference = {
    older: { number: older.number, id: older.id },
    newer: { number: newer.number, id: newer.id },
    settings,
    references: referenceChange(older, newer, !settings.length),
    facts: factChanges(older, newer),
    curves: [],
    color: null,
    frames: [],
    records: null,
  };
  if (older.kind === 'lens-database') {
    const [before, after] = await Promise.all([getBlob(older.sha256), getBlob(newer.sha256)]);
    out.records = await compute('lensDifference', { older: before, newer: after });
  }
  if (older.kind !== 'look' && older.kind !== 'preset') return out;
  const [before, after] = await Promise.all([lookOrNull(older), lookOrNull(newer)]);
  if (!before || !after) return out;
  const onFrames = before.kind === '3d' && after.kind === '3d' ? (await listFrames(person)).slice(0, 6) : [];
  const pictures = await Promise.all(onFrames.map((frame) => smallPicture(person, frame.id)));
  out.curves = curveChanges(older, newer, before, after);
  const apart = await compute('apart', { before, after, pictures });
  out.color = apart.color;
  out.frames = onFrames.map(({ id, name }, n) => ({ id, name, ...must(apart.pictures[n]) }));
  return out;
}

/** A new version whose file carries the item's own title and headings; all else in it is as it was. */
export async function writeIntoFile(person: Person, itemId: string): Promise<{ versionId: string }> {
  allow(person, 'item.edit');
  const known = await descriptors();
  return transaction(async (sql) => {
    const item = await q.itemById(sql, itemId, person.id, true);
    const newest = item ? (await q.versionsOf(sql, itemId))[0] : undefined;
    if (!item || !newest) throw new Problem('not-found', 'There is no such item.', itemId, 'Go back to Shelves.');
    const before = await getBlob(newest.sha256, sql);
    const after = Buffer.from(
      writeTitle(newest.format, before, item.title, item.headings, known, identityOfItem(item)),
    );
    if (after.equals(before))
      throw new Problem('write-same', 'The file says so already.', newest.file_name, 'There is nothing to write.');
    const recognised = recognise(newest.file_name, after, known);
    const [was, is] = await Promise.all([
      effectOf(sql, item.kind, newest.sha256, newest.facts),
      (async () => {
        const sha = await putBlob(sql, after);
        return { sha, ...(await effectOf(sql, item.kind, sha, recognised.facts)) };
      })(),
    ]);
    if (recognised.format !== newest.format || (was.content && !is.content?.equals(was.content)))
      throw new Error('writing a title changed what the file does');
    const versionId = await addVersion(sql, actorOf(person), itemId, {
      kind: item.kind,
      sha: is.sha,
      fileName: newest.file_name,
      format: recognised.format,
      facts: recognised.facts,
      selvedge: newest.selvedge,
      notes: `title, headings and rights written into the file of version ${newest.number}`,
      internalId: '',
    });
    if (newest.encoding) await q.setEncoding(sql, versionId, newest.encoding, person.id);
    await record(
      sql,
      actorOf(person),
      'item',
      itemId,
      'title written into the file',
      { version: newest.number },
      { title: item.title, headings: item.headings },
    );
    return { versionId };
  });
}

/** Retires a version: no longer offered, still resolved. */
export async function retire(person: Person, versionId: string): Promise<void> {
  allow(person, 'item.approve');
  await transaction(async (sql) => {
    await q.lockItemOf(sql, versionId);
    const version = await q.versionById(sql, versionId);
    if (!version) throw new Problem('not-found', 'There is no such version.', versionId, 'Reload the page.');
    if (version.status === 'retired')
      throw new Problem(
        'status',
        `Version ${version.number} of ${version.title} is retired already.`,
        version.title,
        'Reload the page.',
      );
    await q.setStatus(sql, versionId, 'retired', null);
    await record(
      sql,
      actorOf(person),
      'item',
      version.item_id,
      'retired',
      { status: version.status, version: version.number },
      { status: 'retired', version: version.number },
    );
  });
}
