/**
 * Editors find by name what a preset calls. Here a rename loosens nothing, at a station it does: presets that call an item
 * are told before it is renamed, and written anew with the name that it has then.
 */
import type { AnswerOf } from '@/core/api';
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import { languageIn } from '@/core/preset/convert';
import type { LookReference, Settings } from '@/core/preset/kinds';
import { writePreset } from '@/core/preset/write';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { record } from '../activity/queries';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { addVersion } from '../items/create';
import * as items from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

const titleOf = (language: string, known: readonly Descriptor[]): string =>
  known.find((one) => editorKey(one) === language)?.title ?? language;

/** Presets whose newest version calls the item, each with the name by which it does. */
export async function referringPresets(
  person: Person,
  itemId: string,
): Promise<AnswerOf<'GET /api/items/:id/referring'>['presets']> {
  allow(person, 'view');
  const [rows, known] = await Promise.all([q.referringTo(pool(), itemId), descriptors()]);
  return rows.map((row) => ({
    itemId: row.item_id,
    title: row.title,
    name: row.name,
    editor: titleOf(row.format, known),
  }));
}

/** The settings with the name that the item has now. */
function renamed(settings: Settings, kind: q.ReferenceKind, name: string): Settings {
  if (kind === 'camera-profile') return { ...settings, cameraProfile: name };
  return { ...settings, look: { ...(settings.look as LookReference), name } };
}

/** Writes one preset anew, into its own file, whose unknown properties stay; answers with what it could not say. */
async function writeAnew(
  sql: Sql,
  person: Person,
  row: q.ReferringRow,
  name: string,
  known: readonly Descriptor[],
): Promise<string | null> {
  const version = await items.versionById(sql, row.version_id);
  const editor = known.find((one) => editorKey(one) === row.format);
  if (!version || !editor) return `${row.title}: its editor is not described here`;
  const settings = renamed(version.facts.settings as Settings, row.kind, name);
  const original = new Uint8Array(await getBlob(version.sha256, sql));
  const written = writePreset(languageIn(editor), settings, {}, editor.title, original);
  const [not] = written.left;
  if (not) return `${row.title}: ${not.setting}, since ${not.reason}`;
  const id = await addVersion(sql, actorOf(person), row.item_id, {
    kind: 'preset',
    sha: await putBlob(sql, Buffer.from(written.bytes)),
    fileName: version.file_name,
    format: row.format,
    facts: recognise(version.file_name, written.bytes, known).facts,
    selvedge: null,
    notes: `calls ${name}, which was called ${row.name} before`,
    variant: version.variant,
  });
  await items.insertLineage(sql, id, version.id, { tool: 'reference', from: row.name, to: name });
  await record(sql, actorOf(person), 'item', row.item_id, 'reference written anew', { name: row.name }, { name });
  return null;
}

/** Writes all presets anew that call the item by another name than it has. */
export async function renameInPresets(person: Person, itemId: string): Promise<{ written: number; left: string[] }> {
  allow(person, 'item.edit');
  const known = await descriptors();
  return transaction(async (sql) => {
    const item = await items.itemById(sql, itemId, person.id);
    if (!item) throw new Problem('not-found', 'There is no such item.', itemId, 'Go back to Shelves.');
    const rows = (await q.referringTo(sql, itemId)).filter(({ name }) => name !== item.title);
    const left: string[] = [];
    for (const row of rows) {
      const why = await writeAnew(sql, person, row, item.title, known);
      if (why) left.push(why);
    }
    return { written: rows.length - left.length, left };
  });
}
