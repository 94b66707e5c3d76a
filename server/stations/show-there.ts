/** Somebody who looks at a path in Etagere, at the workstation where it lies, has the agent show it in the file manager. */
import { v7 } from 'uuid';
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { Problem } from '@/core/problem';
import { showsPaths, shownSchema } from '@/core/sync/protocol';
import { isUuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import { stationById, type StationRow } from './queries';
import * as q from './show-queries';

/** The one whose agent has the file: a card is in the reader of another. */
async function agentOf(id: string): Promise<StationRow> {
  const station = isUuid(id) ? await stationById(pool(), id) : undefined;
  const agent = station?.host_id ? await stationById(pool(), station.host_id) : station;
  if (!station || !agent) throw new Problem('not-found', 'There is no such station.', id, 'Go back to Stations.');
  return agent;
}

/** Asks the agent; what was asked there before is given up. */
export async function showThere(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/stations/:id/show'>,
): Promise<void> {
  allow(person, 'station.show');
  const { path } = checked(stationEndpoints['POST /api/stations/:id/show'].body, input);
  const agent = await agentOf(id);
  if (agent.retired_at || !agent.enrolled || !showsPaths(agent.agent_version))
    throw new Problem(
      'show-agent',
      agent.agent_version && agent.enrolled
        ? `The agent of ${agent.name} is of version ${agent.agent_version}, and shows nothing in the file manager.`
        : `No agent is at ${agent.name}.`,
      agent.name,
      'Copy the path instead, and open it by hand.',
    );
  if (!(await q.liesThere(pool(), agent.id, path)))
    throw new Problem('not-found', 'Nothing lies there, as the agent last told.', path, 'Reload the page.');
  await q.askToShow(pool(), { stationId: agent.id, id: v7(), path, personId: person.id });
}

/** What became of what was asked last; null where nothing was. */
export async function whatWasShown(person: Person, id: string) {
  allow(person, 'station.show');
  return (await q.whatWasShown(pool(), (await agentOf(id)).id)) ?? null;
}

/** An agent tells that it has shown a path, or why it could not. What nobody waits for is passed over. */
export async function takeShown(agent: StationRow, id: string, input: unknown): Promise<void> {
  const { fault } = checked(shownSchema, input);
  if (!isUuid(id)) return;
  await transaction(async (sql) => {
    const path = await q.noteShown(sql, agent.id, id, fault);
    if (path === null) return;
    const actor = { personId: null, name: `agent of ${agent.name}` };
    await record(sql, actor, 'station', agent.id, fault ? 'not shown there' : 'shown there', null, { path, fault });
  });
}
