/** Planning a rollout: asked for in a request, worked out by a job, written down as steps all at once. */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { v7 } from 'uuid';
import { array, object, string, type InferType } from 'yup';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { uuid } from '@/core/uuid';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { checked } from '../input';
import { versionById } from '../items/queries';
import { jobById } from '../jobs/queries';
import { addJob, Cancelled, jobLives, type JobContext } from '../jobs/service';
import { allowSpread } from '../licences/spread';
import { actorOf, allow, type Person } from '../people/roles';
import { stations, type StationRow } from '../stations/queries';
import { refuseUnfit } from './confirm';
import { goingTo, planSteps, type Version } from './plan';
import * as q from './queries';

/** What the job is told: the choice as it was made, and the rollout that waits for its steps. */
const jobSchema = object({
  rollout: uuid().required(),
  versions: array().of(uuid().required()).required(),
  stations: array().of(uuid().required()).required(),
  over: array().of(string().required()).default([]),
});

/** The chosen versions, each once. Throws where one is not there or not approved. */
async function chosenVersions(sql: Sql, ids: readonly string[]): Promise<Version[]> {
  const versions: Version[] = [];
  for (const id of new Set(ids)) {
    const version = await versionById(sql, id);
    if (!version) throw new Problem('not-found', 'A chosen version is not there.', id, 'Choose again.');
    refuseUnfit(version);
    versions.push(version);
  }
  return versions;
}

/** All stations, and of them those that are chosen. Throws where none is left. */
async function chosenStations(sql: Sql, ids: readonly string[]): Promise<{ all: StationRow[]; chosen: StationRow[] }> {
  const all = await stations(sql);
  const chosen = all.filter((station) => ids.includes(station.id) && station.retired_at === null);
  if (!chosen.length)
    throw new Problem('not-found', 'None of the chosen stations is there.', 'stations', 'Choose again.');
  return { all, chosen };
}

function titleFor(versions: readonly Version[]): string {
  const first = must(versions[0]).title;
  return versions.length === 1 ? first : `${first} and ${versions.length - 1} more`;
}

/**
 * Begins a plan of exact file operations and answers with its rollout; a job works them out. What can be refused at once
 * is. Nothing is written anywhere until the rollout is confirmed.
 * @param over paths where ours goes over what was changed there; where there are some, nothing else is planned
 */
export async function planRollout(
  person: Person,
  input: BodyOf<'POST /api/rollouts'>,
  over: readonly string[] = [],
): Promise<string> {
  allow(person, 'rollout.plan');
  const choice = checked(rolloutEndpoints['POST /api/rollouts'].body, input);
  const id = v7();
  await transaction(async (sql) => {
    const versions = await chosenVersions(sql, choice.versions);
    const { all, chosen } = await chosenStations(sql, choice.stations);
    const going = await goingTo(sql, versions, chosen, all);
    await allowSpread(
      sql,
      person,
      going.map(({ version, station }) => ({ ...version, station_id: station.id })),
      { withSeats: false },
    );
    const title = choice.title || titleFor(versions);
    const jobId = await addJob(
      sql,
      'plan',
      `Plan ${title}`,
      {
        rollout: id,
        versions: choice.versions,
        stations: choice.stations,
        over: [...over],
      } satisfies InferType<typeof jobSchema>,
      person.id,
    );
    await q.insertRollout(sql, { id, title, personId: person.id, undoes: null, status: 'planning', jobId });
    await record(sql, actorOf(person), 'rollout', id, 'begun', null, { title });
  });
  return id;
}

/**
 * Works a plan out from its beginning: its job has failed, nobody goes on with it, or the stations have changed since. What
 * was planned and not confirmed is forgotten.
 */
export async function planAgain(person: Person, id: string): Promise<void> {
  allow(person, 'rollout.plan');
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw new Problem('not-found', 'There is no such rollout.', id, 'Go back to Rollouts.');
    const before = rollout.job_id ? await jobById(sql, rollout.job_id) : undefined;
    if (!before && rollout.status === 'planned')
      throw new Problem(
        'rollout-settled',
        'This plan was made at once, and is not worked out again.',
        rollout.title,
        'Drop it, and plan it anew where you began it.',
      );
    if (!before || (rollout.status !== 'planning' && rollout.status !== 'planned'))
      throw new Problem(
        'rollout-settled',
        'Only a plan that was not confirmed is worked out again.',
        rollout.title,
        'Plan another rollout instead.',
      );
    if (rollout.status === 'planning' && (await jobLives(sql, before.id)))
      throw new Problem(
        'rollout-planning',
        'This rollout is still being planned.',
        rollout.title,
        'Wait until every file is shown.',
      );
    await q.clearSteps(sql, id);
    await q.setRollout(sql, id, 'planning');
    await q.setJob(sql, id, await addJob(sql, 'plan', before.title, before.payload, person.id));
    await record(sql, actorOf(person), 'rollout', id, 'begun again', null, { title: rollout.title });
  });
}

/**
 * The job: works the steps out, then writes them down in one transaction. Run again after a kill, it makes the same steps,
 * and tables that were baked before are there already.
 */
export async function workOutPlan({ id, payload, progress }: JobContext): Promise<{ steps: number }> {
  const choice = checked(jobSchema, payload);
  const sql = pool();
  const versions = await chosenVersions(sql, choice.versions);
  const { all, chosen } = await chosenStations(sql, choice.stations);
  const steps = await planSteps(sql, versions, chosen, all, choice.over, progress);
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, choice.rollout, true);
    // dropped while it was being planned, or given to another job
    if (rollout?.status !== 'planning' || rollout.job_id !== id) throw new Cancelled();
    await q.insertSteps(sql, rollout.id, steps);
    await q.setRollout(sql, rollout.id, 'planned');
    const writing = steps.filter((step) => step.do_what !== 'none').length;
    const planner = { personId: rollout.person_id, name: rollout.person };
    await record(sql, planner, 'rollout', rollout.id, 'planned', null, { title: rollout.title, steps: writing });
  });
  return { steps: steps.length };
}
