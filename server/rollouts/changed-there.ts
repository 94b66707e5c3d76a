/** What becomes of files of ours that somebody changed or took away at a station: theirs stays, ours goes there again, or theirs comes in. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { record } from '../activity/queries';
import { transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import * as stations from '../stations/queries';
import { takeInAt } from '../stations/station-arrival';
import { placedAt, type PlacedThere } from './placed-there';
import { planRollout } from './planning';

type Answer = AnswerOf<'POST /api/stations/:id/changed'>;

/** Nothing is written: the files are looked after no longer. */
async function keepTheirs(sql: Sql, person: Person, { station, placements }: PlacedThere): Promise<void> {
  for (const { path } of placements) await stations.dropPlacement(sql, station.id, path);
  await record(sql, actorOf(person), 'station', station.id, 'theirs kept', null, { files: placements.length });
}

export async function decideChanged(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/changed'>,
): Promise<Answer> {
  allow(person, 'rollout.plan');
  const { verb, paths } = checked(stationEndpoints['POST /api/stations/:id/changed'].body, input);
  if (verb === 'put') {
    const { station, placements } = await transaction((sql) => placedAt(sql, stationId, paths));
    const versions = [...new Set(placements.flatMap(({ version_id }) => version_id ?? []))];
    const title = `Ours again at ${station.name}`;
    const rollout = await planRollout(person, { title, versions, stations: [station.id] }, paths);
    return { rollout, arrival: null };
  }
  return transaction(async (sql) => {
    const changed = await placedAt(sql, stationId, paths);
    if (verb === 'keep') {
      await keepTheirs(sql, person, changed);
      return { rollout: null, arrival: null };
    }
    return { rollout: null, ...(await takeInAt(sql, person, changed.station, paths)) };
  });
}
