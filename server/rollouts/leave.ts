/** What a station cannot carry out is left out of a rollout, so that neither its own undoing nor what comes after it is held up. */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { Problem } from '@/core/problem';
import { transaction, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { stationById } from '../stations/queries';
import * as q from './queries';

export const missing = (id: string): Problem =>
  new Problem('not-found', 'There is no such rollout.', id, 'Go back to Rollouts.');

/** Closes a confirmed rollout of which nothing waits any more; where it undoes another, that one is undone. */
export async function settleIfOver(sql: Sql, rollout: q.RolloutRow, actor: Actor): Promise<void> {
  if (rollout.status !== 'confirmed' || (await q.pendingSteps(sql, rollout.id)) > 0) return;
  await q.setRollout(sql, rollout.id, 'done');
  await record(sql, actor, 'rollout', rollout.id, 'done');
  if (!rollout.undoes) return;
  await q.setRollout(sql, rollout.undoes, 'undone');
  await record(sql, actor, 'rollout', rollout.undoes, 'undone');
}

/**
 * Leaves out what waits at a station: all of it, or the steps that are named. An agent that is at it is told to stop; what
 * it has done already by then counts as done.
 */
export async function leaveOut(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/rollouts/:id/leave'>,
): Promise<{ left: number }> {
  allow(person, 'rollout.confirm');
  const { station, steps } = checked(rolloutEndpoints['POST /api/rollouts/:id/leave'].body, input);
  return transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw missing(id);
    const left = rollout.status === 'confirmed' ? await q.leaveSteps(sql, id, station, steps, person.name) : 0;
    if (left === 0)
      throw new Problem('rollout-settled', 'Nothing of that waits any more.', rollout.title, 'Reload the page.');
    const name = (await stationById(sql, station))?.name ?? '';
    await record(sql, actorOf(person), 'rollout', id, 'left out', null, { station: name, operations: left });
    await settleIfOver(sql, rollout, actorOf(person));
    return { left };
  });
}
