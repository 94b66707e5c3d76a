/** Editors: their descriptors. */
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../db/pool';
import { record, type Actor } from '../events';
import * as q from './queries';

export const descriptors = (sql: Sql = pool()): Promise<Descriptor[]> => q.allDescriptors(sql);

export async function bringDescriptor(sql: Sql, actor: Actor, value: unknown, where: string): Promise<Descriptor> {
  const d = parseDescriptor(value, where);
  await q.upsertEditor(sql, d);
  await q.insertRevision(sql, d, actor.personId);
  await record(sql, actor, 'editor', editorKey(d), 'described');
  return d;
}

export function find(all: readonly Descriptor[], id: string, version: string): Descriptor {
  const d = all.find((x) => x.editor === id && x.version === version);
  if (!d) throw new Problem('editor-unknown', `There is no descriptor for ${id} ${version}.`, `${id}@${version}`, 'Bring its descriptor in under Studio.');
  return d;
}
