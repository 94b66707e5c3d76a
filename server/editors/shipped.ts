/**
 * Descriptors that ship with Etagere. Each is brought in once; where a studio has said otherwise since, its word counts, and
 * a newer one that ships is a proposal like any from outside.
 */
import { editorKey, parseDescriptor } from '@/core/editor/descriptor';
import { same } from '@/core/same';
import type { Actor } from '../activity/queries';
import type { Sql } from '../db/pool';
import { propose } from './proposals';
import * as q from './queries';
import { bringDescriptor } from './service';

/** @param where the name of the file that ships */
export async function bringShipped(sql: Sql, actor: Actor, value: unknown, where: string): Promise<void> {
  const shipped = parseDescriptor(value, where);
  const revisions = await q.revisionsOf(sql, shipped);
  if (revisions.some(({ descriptor }) => same(descriptor, shipped))) return;
  if (!revisions.some(({ byPerson }) => byPerson)) {
    await bringDescriptor(sql, actor, shipped, where);
    return;
  }
  const before = await q.proposalsFor(sql, shipped);
  if (before.some((proposal) => same(proposal, shipped))) return;
  await propose(sql, actor, shipped, { cameFrom: `Etagere, ${editorKey(shipped)} as it ships`, arrivalId: null });
}
