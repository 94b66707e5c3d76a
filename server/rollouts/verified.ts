/** Rollouts whose rest goes by itself, once the editors of the first station list all of it. */
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { log } from '../log';
import { stationsByIds } from '../stations/queries';
import { viewsOf, type StationView } from '../stations/views';
import { settleIfOver } from './leave';
import * as q from './queries';

const OURSELVES = { personId: null, name: 'Etagere' };

/** What was written there, each file listed by its editor as it was written; what went wrong there waits for a person. */
function isVerified(steps: readonly q.StepRow[], { rows }: StationView): boolean {
  if (steps.some(({ outcome }) => outcome !== 'done')) return false;
  return steps
    .filter((step) => step.do_what === 'put' && step.version_id)
    .every((step) => rows.some((row) => row.path === step.path && row.base === step.sha && row.state === 'listed'));
}

async function letGoWhereVerified(id: string): Promise<void> {
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout?.goes_on || !rollout.first_station_id || rollout.released_at || rollout.paused_at) return;
    if (rollout.status !== 'confirmed') return;
    const steps = (await q.stepsOf(sql, id)).filter(
      (step) => step.station_id === rollout.first_station_id && step.do_what !== 'none',
    );
    const [view] = await viewsOf(sql, await stationsByIds(sql, [rollout.first_station_id]));
    if (!view || !isVerified(steps, view)) return;
    await q.release(sql, id);
    await record(sql, OURSELVES, 'rollout', id, 'verified', null, { station: rollout.first_station });
    await settleIfOver(sql, rollout, OURSELVES);
  });
}

/** Looks at each that waits for its first station; one that cannot be looked at holds no other up. */
export async function letVerifiedGo(): Promise<void> {
  for (const id of await q.toBeVerified(pool()))
    await letGoWhereVerified(id).catch((error: unknown) =>
      log.error({ err: error, rollout: id }, 'looking whether a rollout is verified'),
    );
}
