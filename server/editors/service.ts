/** Editors: their descriptors. */
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { taking, thingsToPlace, type Taking } from '@/core/editor/takings';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

export const descriptors = (sql: Sql = pool()): Promise<readonly Descriptor[]> => q.allDescriptors(sql);

/** Takes a descriptor as the newest revision of its editor, at once: for what is ours. From outside, it is proposed (`proposals.ts`). */
export async function bringDescriptor(sql: Sql, actor: Actor, value: unknown, where: string): Promise<Descriptor> {
  const descriptor = parseDescriptor(value, where);
  await q.upsertEditor(sql, descriptor);
  await q.insertRevision(sql, descriptor, actor.personId);
  await record(sql, actor, 'editor', editorKey(descriptor), 'described');
  return descriptor;
}

export function find(all: readonly Descriptor[], id: string, version: string): Descriptor {
  const descriptor = all.find((x) => x.editor === id && x.version === version);
  if (!descriptor)
    throw new Problem(
      'editor-unknown',
      `There is no descriptor for ${id} ${version}.`,
      `${id}@${version}`,
      'Bring its descriptor in under Studio.',
    );
  return descriptor;
}

export const listEditors = (person: Person) => {
  allow(person, 'view');
  return q.editorRows(pool());
};

/** Which editor takes which kind of item. */
export async function listTakings(
  person: Person,
): Promise<{ editors: { key: string; title: string }[]; rows: { name: string; cells: Taking[] }[] }> {
  allow(person, 'view');
  const all = await q.allDescriptors(pool());
  return {
    editors: all.map((d) => ({ key: editorKey(d), title: d.title })),
    rows: thingsToPlace(all).map((t) => ({ name: t.name, cells: all.map((d) => taking(d, t)) })),
  };
}

/** A descriptor as JSON, to be sent out or to begin another from; the newest, or one revision. */
export async function descriptorJson(person: Person, key: string, number: number | null): Promise<string> {
  allow(person, 'view');
  const [id = '', version = ''] = key.split('@');
  const descriptor = await q.revision(pool(), id, version, number);
  if (!descriptor) throw new Problem('editor-unknown', 'There is no such descriptor.', key, 'Go back to Studio.');
  return JSON.stringify(descriptor, null, 2) + '\n';
}
