/** How fast a confirmed rollout goes: to one station first and then to the rest, halted and gone on with, or stopped. */
import { Problem } from '@/core/problem';
import { counted } from '@/core/words';
import type { ActionOf } from '@/core/activity/sentences';
import { record } from '../activity/queries';
import { transaction, type Sql } from '../db/pool';
import { actorOf, allow, type Person } from '../people/roles';
import { missing, settleIfOver } from './leave';
import * as q from './queries';

type Pace = 'pause' | 'resume' | 'begin' | 'release' | 'stop';

interface Change {
  /** why it cannot be done now; null where it can */ hindrance: (rollout: q.RolloutRow) => string | null;
  says: ActionOf<'rollout'>;
  change: (sql: Sql, rollout: q.RolloutRow, person: Person) => Promise<unknown>;
}

const underWay = ({ status }: q.RolloutRow): string | null =>
  status === 'confirmed' ? null : 'Only a rollout that is under way can be halted, gone on with or stopped.';

const changes: Record<Pace, Change> = {
  pause: {
    hindrance: (rollout) => underWay(rollout) ?? (rollout.paused_at ? 'This rollout is halted already.' : null),
    says: 'paused',
    change: (sql, { id }) => q.setPaused(sql, id, true),
  },
  resume: {
    hindrance: (rollout) => underWay(rollout) ?? (rollout.paused_at ? null : 'This rollout is not halted.'),
    says: 'resumed',
    change: (sql, { id }) => q.setPaused(sql, id, false),
  },
  begin: {
    hindrance: (rollout) =>
      underWay(rollout) ??
      (rollout.starts_at && rollout.starts_at.getTime() > Date.now() ? null : 'This rollout has begun already.'),
    says: 'begun early',
    change: (sql, { id }) => q.setStart(sql, id, null),
  },
  release: {
    hindrance: (rollout) =>
      underWay(rollout) ??
      (rollout.first_station_id && !rollout.released_at ? null : 'This rollout goes to all of its stations already.'),
    says: 'rest let go',
    change: releaseRest,
  },
  stop: {
    hindrance: underWay,
    says: 'stopped',
    change: (sql, { id }, person) => q.leaveSteps(sql, id, null, null, person.name),
  },
};

/** The rest goes once nothing waits at the first station, so that there was something to look at. */
async function releaseRest(sql: Sql, rollout: q.RolloutRow): Promise<void> {
  const waiting = (await q.stepsOf(sql, rollout.id)).filter(
    (step) => step.station_id === rollout.first_station_id && step.outcome === null && step.do_what !== 'none',
  );
  if (waiting.length)
    throw new Problem(
      'rollout-first',
      `At the first station ${counted(waiting.length, 'file')} ${waiting.length === 1 ? 'waits' : 'wait'} still.`,
      rollout.title,
      'Wait until they are there, and look whether all is well; or leave out there what cannot be carried out.',
    );
  await q.release(sql, rollout.id);
}

/** Throws where it cannot be done now. What an agent has in hand it finishes. */
export async function setPace(person: Person, id: string, pace: Pace): Promise<void> {
  allow(person, 'rollout.confirm');
  const { hindrance, says, change } = changes[pace];
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw missing(id);
    const why = hindrance(rollout);
    if (why) throw new Problem('rollout-settled', why, rollout.title, 'Reload the page.');
    await change(sql, rollout, person);
    await record(sql, actorOf(person), 'rollout', id, says);
    await settleIfOver(sql, rollout, actorOf(person));
  });
}
