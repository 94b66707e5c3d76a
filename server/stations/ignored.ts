/** What lies at a station, is not ours, and is of no interest: it is told of no more until somebody changes it. */
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './ignored-queries';
import { stationById } from './queries';

export async function setIgnored(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/ignored'>,
): Promise<void> {
  allow(person, 'arrival.make');
  const { verb, paths } = checked(stationEndpoints['POST /api/stations/:id/ignored'].body, input);
  await transaction(async (sql) => {
    const station = isUuid(stationId) ? await stationById(sql, stationId) : undefined;
    if (!station) throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
    const agent = station.host_id ?? station.id;
    const files =
      verb === 'ignore' ? await q.ignore(sql, agent, paths, person.id) : await q.tellAgain(sql, agent, paths);
    if (!files)
      throw new Problem(
        'found-nothing',
        `None of these files lies on ${station.name} so now.`,
        station.name,
        'Reload the page, and look again.',
      );
    await record(sql, actorOf(person), 'station', station.id, verb === 'ignore' ? 'ignored' : 'told again', null, {
      files,
    });
  });
}

/** Paths at a station of which nobody wants to hear. */
export async function ignoredThere(person: Person, agentId: string): Promise<ReadonlySet<string>> {
  allow(person, 'view');
  return new Set(await q.ignoredAt(pool(), agentId));
}
