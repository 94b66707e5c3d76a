/** Confirming a rollout: what was planned is looked at again, since the world may have gone on meanwhile. */
import { Problem } from '@/core/problem';
import { counted } from '@/core/words';
import { transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { versionById } from '../items/queries';
import { allowSpread, type Going } from '../licences/spread';
import { actorOf, allow, type Person } from '../people/roles';
import { refuseOwnPlan } from '../studio/review';
import { proofLimits } from '../studio/service';
import { missing } from './leave';
import { beyond, refuseBeyond } from './proofs';
import type { Version } from './plan';
import * as q from './queries';

/** Throws where a version cannot be rolled out: it is not approved, or retired, or its item is archived. */
export function refuseUnfit(version: Version): void {
  if (version.archived_at)
    throw new Problem(
      'item-archived',
      `${version.title} is archived, and what is archived is not rolled out.`,
      version.title,
      'Bring it back first, or leave it out.',
    );
  if (version.status !== 'approved')
    throw new Problem(
      'not-approved',
      `Version ${version.number} of ${version.title} is ${version.status === 'draft' ? 'a draft' : version.status}, and only approved versions are rolled out.`,
      version.title,
      version.status === 'draft'
        ? 'Approve it first, or leave it out.'
        : 'Plan the rollout anew, with another version.',
    );
}

/** What is written where, by the versions as they stand now. */
async function goingBy(sql: Sql, steps: readonly q.StepRow[]): Promise<Going[]> {
  const versions = new Map<string, Version>();
  const going: Going[] = [];
  for (const step of steps) {
    if (!step.version_id || step.do_what !== 'put') continue;
    const version = versions.get(step.version_id) ?? (await versionById(sql, step.version_id));
    if (!version)
      throw new Problem('not-found', 'A planned version is not there any more.', step.path, 'Plan it again.');
    versions.set(version.id, version);
    going.push({ ...version, station_id: step.station_id });
  }
  for (const version of versions.values()) refuseUnfit(version);
  return going;
}

function tell(places: readonly { station: string; path: string }[]): string {
  return places
    .slice(0, 3)
    .map(({ station, path }) => `${path} at ${station}`)
    .join(', ');
}

async function refuseOutdated(sql: Sql, rollout: q.RolloutRow): Promise<void> {
  const changed = await q.changedSince(sql, rollout.id);
  if (changed.length)
    throw new Problem(
      'rollout-outdated',
      `${counted(changed.length, 'file')} changed at the stations since this was planned: ${tell(changed)}.`,
      rollout.title,
      'Plan it again, and look at what it would do now.',
    );
  const taken = await q.takenByOthers(sql, rollout.id);
  if (taken.length)
    throw new Problem(
      'rollout-overlaps',
      `Another rollout that is under way writes the same: ${tell(taken)}.`,
      rollout.title,
      'Wait until it is through, or leave out there what cannot be carried out; then plan this one again.',
    );
}

/** The station that a rollout goes to before the rest. */
export interface First {
  station: string;
  /** the rest goes by itself once all is listed there; else it waits for a word */ goesOn: boolean;
}

/** Throws where nothing is written at the station, so that there would be nothing to look at before the rest goes. */
async function goesFirst(
  sql: Sql,
  rollout: q.RolloutRow,
  steps: readonly q.StepRow[],
  { station, goesOn }: First,
): Promise<void> {
  if (!steps.some((step) => step.station_id === station && step.do_what !== 'none'))
    throw new Problem(
      'rollout-first',
      'At the station that is to be first, this rollout writes nothing.',
      rollout.title,
      'Choose another one of its stations.',
    );
  await q.setFirst(sql, rollout.id, station, goesOn);
}

/** Nothing is put off for longer: what was looked at then would be long past. */
const LONGEST_WAIT_MS = 31 * 24 * 3600e3;

/** Throws where the time is past, or so far away that nobody would remember. */
function refuseTime({ title }: q.RolloutRow, at: Date): void {
  const wait = at.getTime() - Date.now();
  if (wait > 0 && wait <= LONGEST_WAIT_MS) return;
  throw new Problem(
    'rollout-time',
    wait <= 0 ? 'The time at which it is to begin is past.' : 'A rollout begins within 31 days, or is planned later.',
    title,
    'Choose another time, or let it begin at once.',
  );
}

/** How a rollout goes once it is confirmed; left out, to all stations at once. */
export interface Manner {
  /** the station that it goes to before the rest */ first?: First | null;
  /** nothing of it is written before then */ at?: Date | null;
}

/** Lets the agents carry a plan out. Throws where it is not what may be done now, and says why. */
export async function confirmRollout(
  person: Person,
  id: string,
  { first = null, at = null }: Manner = {},
): Promise<void> {
  allow(person, 'rollout.confirm');
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw missing(id);
    if (rollout.status === 'planning')
      throw new Problem(
        'rollout-planning',
        'This rollout is still being planned.',
        rollout.title,
        'Wait until every file is shown.',
      );
    if (rollout.status !== 'planned')
      throw new Problem(
        'rollout-settled',
        `This rollout is ${rollout.status} already.`,
        rollout.title,
        'Reload the page.',
      );
    if ((await q.pendingSteps(sql, id)) === 0)
      throw new Problem(
        'rollout-empty',
        'There is nothing to write: everything is there already or cannot go there.',
        rollout.title,
        'Choose other items or stations.',
      );
    await refuseOwnPlan(sql, person, rollout);
    const steps = await q.stepsOf(sql, id);
    const going = await goingBy(sql, steps);
    const within = await proofLimits(sql);
    const far = beyond(steps, within);
    refuseBeyond(person, far, within);
    await allowSpread(sql, person, going, { withSeats: true });
    await refuseOutdated(sql, rollout);
    if (first) await goesFirst(sql, rollout, steps, first);
    if (at) {
      refuseTime(rollout, at);
      await q.setStart(sql, id, at);
    }
    await q.setRollout(sql, id, 'confirmed', person.id);
    await record(
      sql,
      actorOf(person),
      'rollout',
      id,
      'confirmed',
      { status: 'planned' },
      {
        status: 'confirmed',
        ...(far.length ? { beyond: far.length } : {}),
        ...(at ? { at: at.toISOString() } : {}),
      },
    );
  });
}
