/** Editors: their descriptors. */
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { taking, thingsToPlace, type Taking } from '@/core/editor/takings';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

export const descriptors = (sql: Sql = pool()): Promise<Descriptor[]> => q.allDescriptors(sql);

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

/** Brings a descriptor in by itself; through Intake, it comes with an arrival. */
export async function describeEditor(person: Person, text: string): Promise<{ editor: string; version: string }> {
  allow(person, 'arrival.accept');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Problem(
      'descriptor-json',
      `This is no JSON: ${(error as Error).message.slice(0, 120)}`,
      'descriptor',
      'Correct it and bring it in again.',
    );
  }
  const descriptor = await transaction((sql) => bringDescriptor(sql, actorOf(person), value, 'descriptor'));
  return { editor: descriptor.editor, version: descriptor.version };
}
