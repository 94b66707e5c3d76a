/** A plan leaves camera profiles out where their camera is not used; a word that it is brings them in. */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { distinct } from '@/core/lists';
import { Problem } from '@/core/problem';
import { usersOf } from '@/core/records/used-there';
import { pool, transaction } from '../db/pool';
import { cameras as camerasOfStudio } from '../gear/queries';
import { checked } from '../input';
import { versionById } from '../items/queries';
import { allow, type Person } from '../people/roles';
import { moveCameras } from '../stations/cameras-there';
import { stationById } from '../stations/queries';
import { missing } from './leave';
import { planAgain } from './planning';
import * as q from './queries';

/** The bodies of what a plan leaves out at a station since nobody uses them there. */
async function bodiesLeftOut(rollout: string, station: string): Promise<string[]> {
  const steps = (await q.stepsOf(pool(), rollout)).filter(
    (step) => step.station_id === station && step.decision === 'camera-unused',
  );
  const versions = await Promise.all(
    distinct(steps.map((step) => step.version_id ?? '')).map((id) => versionById(pool(), id)),
  );
  return distinct(versions.flatMap((version) => version?.cameras ?? []));
}

/** Says that the cameras of what was left out at a station are used there, and works the plan out again. */
export async function sayCameraUsed(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/rollouts/:id/used'>,
): Promise<void> {
  allow(person, 'rollout.plan');
  const asked = checked(rolloutEndpoints['POST /api/rollouts/:id/used'].body, input);
  const rollout = await q.rolloutById(pool(), id);
  if (!rollout) throw missing(id);
  const bodies = rollout.status === 'planned' ? await bodiesLeftOut(id, asked.station) : [];
  if (!bodies.length)
    throw new Problem('rollout-settled', 'Nothing of that is left out any more.', rollout.title, 'Reload the page.');
  const known = usersOf(await camerasOfStudio(pool()), bodies);
  if (!known.length)
    throw new Problem(
      'camera-unlisted',
      `The studio’s list of cameras has no ${bodies.join(', ')}.`,
      rollout.title,
      'Add it in Gear, then say that it is used there.',
    );
  await transaction(async (sql) => {
    const station = await stationById(sql, asked.station);
    if (!station) throw new Problem('not-found', 'There is no such station.', asked.station, 'Reload the page.');
    await moveCameras(sql, person, station, { came: known.map((camera) => camera.id), went: [] });
  });
  await planAgain(person, id);
}
