/** References are bound as presets and what they name come in, inside the caller's transaction. */
import type { Sql } from '../db/pool';
import { bindAsBefore, bindWaiting, dropOtherReferences, insertReference, type ReferenceKind } from './queries';

interface Said {
  kind?: unknown;
  name?: unknown;
}

const isReference = (said: Said): said is { kind: ReferenceKind; name: string } =>
  (said.kind === 'look' || said.kind === 'camera-profile') && typeof said.name === 'string' && said.name.trim() !== '';

/** What a new preset refers to: as an earlier version of it did, else the one item that the name can mean. */
export async function referencesCameIn(sql: Sql, versionId: string, facts: Record<string, unknown>): Promise<void> {
  const said = (Array.isArray(facts.references) ? (facts.references as Said[]) : []).filter(isReference);
  if (!said.length) return;
  for (const { kind, name } of said) await insertReference(sql, versionId, kind, name);
  await bindAsBefore(sql, versionId);
  for (const { kind, name } of said) await bindWaiting(sql, kind, [name]);
}

/** The same where a mapping reads a preset otherwise than before: names that it still says stay bound as they were. */
export async function referencesReadAnew(sql: Sql, versionId: string, facts: Record<string, unknown>): Promise<void> {
  const said = (Array.isArray(facts.references) ? (facts.references as Said[]) : []).filter(isReference);
  await dropOtherReferences(sql, versionId, said);
  await referencesCameIn(sql, versionId, facts);
}

/** An item came, or has another name: presets that waited for it are bound. */
export async function nameCame(sql: Sql, kind: string, names: readonly unknown[]): Promise<void> {
  if (kind !== 'look' && kind !== 'camera-profile') return;
  const said = names.filter((name): name is string => typeof name === 'string' && name.trim() !== '');
  if (said.length) await bindWaiting(sql, kind, said);
}
