/** Versions of an item: what differs between two, and a new one with the title written into the file. */
import { lensDifference, type LensDifference } from '@/core/lens/records';
import { neutralRamps, pixelDistance, presetCurves, straight } from '@/core/look/compare';
import type { Look } from '@/core/look/look';
import { residual } from '@/core/look/residual';
import { sampler } from '@/core/look/sample';
import { settingChanges, type SettingChange } from '@/core/pack/likeness';
import { recognise } from '@/core/recognise';
import { writeTitle } from '@/core/pack/write-title';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import sharp from 'sharp';
import { getBlob, putBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../events';
import { framePicture, listFrames } from '../frames/service';
import { actorOf, allow, type Person } from '../people/roles';
import { addVersion } from './create';
import { effectOf } from './effect';
import * as q from './queries';
import { lookOf, versionFor } from './service';

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
/** What two versions do differently on a frame at 320 pixels. */
async function onFrame(
  person: Person,
  frame: string,
  look: Look,
  b: Look,
): Promise<{ mean: number; p95: number; max: number }> {
  const { data } = await sharp(await framePicture(person, frame, 320))
    .removeAlpha()
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return pixelDistance(data, look, b);
}

export async function compareVersions(person: Person, olderId: string, newerId: string): Promise<VersionDifference> {
  allow(person, 'view');
  const [version, b] = await Promise.all([versionFor(person, olderId), versionFor(person, newerId)]);
  if (version.item_id !== b.item_id)
    throw new Problem(
      'versions-apart',
      'These are versions of two items.',
      version.title,
      'Choose two versions of one item.',
    );
  const fa = (version.facts.settings ?? {}) as Settings;
  const fb = (b.facts.settings ?? {}) as Settings;
  const out: VersionDifference = {
    older: { number: version.number, id: version.id },
    newer: { number: b.number, id: b.id },
    settings: version.kind === 'preset' ? settingChanges(fa, fb) : [],
    references: null,
    facts: [],
    curves: [],
    color: null,
    frames: [],
    records: null,
  };
  const skip = new Set([
    ...(version.kind === 'lens-database' ? ['lenses', 'mounts'] : []),
    'settings',
    'classes',
    'unknown',
    'comments',
    'warnings',
    'references',
    'evidence',
    'corrections',
  ]);
  for (const key of new Set([...Object.keys(version.facts), ...Object.keys(b.facts)]))
    if (!skip.has(key) && JSON.stringify(version.facts[key]) !== JSON.stringify(b.facts[key]))
      out.facts.push({ name: key, before: said(version.facts[key]), after: said(b.facts[key]) });
  const refer = (v: typeof version): string[] =>
    ((v.facts.references ?? []) as { kind?: string; name?: string }[])
      .map((r) => [r.kind?.replace('-', ' '), r.name].filter(Boolean).join(' '))
      .sort();
  const [ra, rb] = [refer(version), refer(b)];
  if (version.kind === 'preset' && ra.join() !== rb.join())
    out.references = { before: ra, after: rb, alone: !out.settings.length };
  if (version.format !== b.format) out.facts.push({ name: 'format', before: version.format, after: b.format });
  if (version.kind === 'lens-database') {
    const [bytes, y] = await Promise.all([getBlob(version.sha256), getBlob(b.sha256)]);
    out.records = lensDifference(bytes, y);
  }
  if (version.kind !== 'look' && version.kind !== 'preset') return out;
  const [la, lb] = await Promise.all(
    [lookOf(version), lookOf(b)].map((p) =>
      p.catch((error: unknown) => {
        if (error instanceof Problem) return null;
        throw error;
      }),
    ),
  );
  if (!la || !lb) return out;
  const r = residual(sampler(la), sampler(lb));
  const ca = version.kind === 'preset' ? presetCurves(fa) : neutralRamps(la);
  const cb = b.kind === 'preset' ? presetCurves(fb) : neutralRamps(lb);
  out.color = { mean: r.meanDeltaE, p95: r.p95DeltaE, max: r.maxDeltaE };
  for (const name of new Set([...ca, ...cb].map((c) => c.name))) {
    const x = ca.find((c) => c.name === name)?.points ?? straight;
    const y = cb.find((c) => c.name === name)?.points ?? straight;
    if (JSON.stringify(x) !== JSON.stringify(y)) out.curves.push({ name, older: x, newer: y });
  }
  if (la.kind === '3d' && lb.kind === '3d')
    for (const frame of (await listFrames(person)).slice(0, 6))
      out.frames.push({ id: frame.id, name: frame.name, ...(await onFrame(person, frame.id, la, lb)) });
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
    const after = Buffer.from(writeTitle(newest.format, before, item.title, item.headings, known));
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
      notes: `title and headings written into the file of version ${newest.number}`,
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
