/** Where no agent is, people carry a rollout out by its sheet, and say so: what they say is noted as theirs. */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { transaction } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { isKeptByHand } from '../stations/by-hand';
import { stationById } from '../stations/queries';
import { moveBase } from './base';
import { missing, settleIfOver } from './leave';
import * as q from './queries';

/** Settles what waits at a station as done by hand. */
export async function noteByHand(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/rollouts/:id/by-hand'>,
): Promise<{ done: number }> {
  allow(person, 'rollout.confirm');
  const { station: stationId } = checked(rolloutEndpoints['POST /api/rollouts/:id/by-hand'].body, input);
  return transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw missing(id);
    const station = await stationById(sql, stationId);
    const agent = station?.host_id ? await stationById(sql, station.host_id) : station;
    if (station && agent && !isKeptByHand(agent))
      throw new Problem(
        'agent-there',
        `An agent is at ${agent.name}, and carries the rollout out itself.`,
        station.name,
        'Wait until it reports, or leave out what it cannot do.',
      );
    const waiting = (await q.stepsOf(sql, id)).filter(
      (step) => step.station_id === stationId && step.outcome === null && step.do_what !== 'none',
    );
    if (!station || rollout.status !== 'confirmed' || !waiting.length)
      throw new Problem('rollout-settled', 'Nothing of that waits any more.', rollout.title, 'Reload the page.');
    const at = new Date().toISOString();
    for (const step of waiting) {
      await q.settleStep(sql, step.id, 'done', `done by hand, as ${person.name} says`, step.expect);
      await moveBase(sql, step, id, rollout.undoes !== null, at);
    }
    const told = { station: station.name, operations: waiting.length };
    await record(sql, actorOf(person), 'rollout', id, 'done by hand', null, told);
    await settleIfOver(sql, rollout, actorOf(person));
    return { done: waiting.length };
  });
}
