/** What presets refer to: which item is meant, who says so, and what rendering with it takes. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { referenceEndpoints } from '@/core/api/references';
import { notRendered, split, type ClassOverrides } from '@/core/preset/bake';
import type { LookReference, Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { getBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import * as items from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import type { CalledSource } from '../threads/tasks';
import * as q from './queries';

export type References = AnswerOf<'GET /api/versions/:id/references'>['references'];

const stateOf = (row: q.ReferenceRow): References[number]['state'] => {
  if (row.item_id) return row.archived_at ? 'archived' : 'bound';
  return row.meant.length ? 'ambiguous' : 'missing';
};

const told = (row: q.ReferenceRow): References[number] => ({
  kind: row.kind,
  name: row.name,
  state: stateOf(row),
  item: row.item_id && row.title ? { id: row.item_id, title: row.title } : null,
  twice: row.twice,
  versionId: row.newest_version_id,
  meant: row.meant,
});

/** What a version of a preset refers to, and whether that is known. */
export async function referencesOf(person: Person, versionId: string): Promise<References> {
  allow(person, 'view');
  return (await q.referencesOf(pool(), [versionId])).map(told);
}

/** Says which item a name means, for this version and for others of the item that nobody has said it of. */
export async function bindReference(
  person: Person,
  versionId: string,
  input: BodyOf<'POST /api/versions/:id/references'>,
): Promise<void> {
  allow(person, 'item.edit');
  const { kind, itemId } = checked(referenceEndpoints['POST /api/versions/:id/references'].body, input);
  await transaction(async (sql) => {
    const had = await q.referenceOf(sql, versionId, kind);
    const version = await items.versionById(sql, versionId);
    if (!had || !version)
      throw new Problem('not-found', 'This preset refers to nothing of that kind.', versionId, 'Reload the page.');
    const meant = await items.itemById(sql, itemId, person.id);
    if (meant?.kind !== kind || meant.archived_at)
      throw new Problem('reference-kind', 'That item is not there, or of another kind.', had.name, 'Choose another.');
    await q.bindTo(sql, versionId, kind, itemId, person.id);
    await record(
      sql,
      actorOf(person),
      'item',
      version.item_id,
      'reference bound',
      { name: had.name, item: had.item_id },
      { name: had.name, item: itemId, title: meant.title },
    );
  });
}

/** A preset's facts, as far as they say what it does. */
interface PresetFacts {
  settings: Settings;
  classes: ClassOverrides;
}

export interface Called {
  versionId: string;
  title: string;
  /** percent */ strength: number;
}

/** The look that a preset calls, where one is bound to its name. */
export async function calledBy(sql: Sql, versionId: string, settings: Settings): Promise<Called | null> {
  const look = settings.look as LookReference | undefined;
  if (!look) return null;
  const [row] = (await q.referencesOf(sql, [versionId])).filter(({ kind }) => kind === 'look');
  if (!row?.newest_version_id || !row.title) return null;
  return { versionId: row.newest_version_id, title: row.title, strength: look.strength };
}

/** Its file, for the threads that compute. */
export async function calledSource(sql: Sql, versionId: string, settings: Settings): Promise<CalledSource | null> {
  const called = await calledBy(sql, versionId, settings);
  const version = called && (await items.versionById(sql, called.versionId));
  if (!version) return null;
  return { bytes: await getBlob(version.sha256, sql), encoding: version.encoding, strength: called.strength / 100 };
}

export interface PresetShown {
  /** the point settings, which are evaluated */ settings: Settings;
  called: Called | null;
  /** titles of the settings that are not rendered */ notShown: string[];
  /** names that no item is bound to */ missing: string[];
}

/** The same for a screen. */
export async function presetShownFor(
  person: Person,
  version: { id: string; kind: string; facts: Record<string, unknown> },
): Promise<PresetShown | null> {
  allow(person, 'view');
  return version.kind === 'preset' ? presetShown(pool(), version.id, version.facts) : null;
}

/** What the picture of a file does not show, by its facts; nothing of what is no preset. */
export function notShownOf(kind: string, facts: Record<string, unknown>): string[] {
  const { settings, classes } = facts as Partial<PresetFacts>;
  return kind === 'preset' && settings ? notRendered(settings, classes) : [];
}

/** What pictures of a version do not show; nothing of what is no preset. */
export async function leftOutOfPictures(
  person: Person,
  versionId: string,
): Promise<Pick<PresetShown, 'notShown' | 'missing'>> {
  const version = await items.versionById(pool(), versionId);
  const shown = version && (await presetShownFor(person, version));
  return { notShown: shown?.notShown ?? [], missing: shown?.missing ?? [] };
}

/** How a preset is rendered here, and what of it is not. */
export async function presetShown(sql: Sql, versionId: string, facts: Record<string, unknown>): Promise<PresetShown> {
  const { settings, classes } = facts as unknown as PresetFacts;
  const called = await calledBy(sql, versionId, settings);
  const look = settings.look as LookReference | undefined;
  return {
    settings: split(settings, classes).kept,
    called,
    notShown: notRendered(settings, classes),
    missing: look && !called ? [look.name] : [],
  };
}
