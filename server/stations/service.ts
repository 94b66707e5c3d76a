/** Stations: enrolment, what agents are told and what they report, and what a person sees of it. */
import type { ActionOf } from '@/core/activity/sentences';
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { must } from '@/core/must';
import { same } from '@/core/same';
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { v7 } from 'uuid';
import { enrolSchema } from '@/core/sync/protocol';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { changeEditors, fitting } from './editors-there';
import * as q from './queries';
import { updateKey } from './shipped-program';

export type { StationRow } from './queries';
export { listingKey } from './listing-key';
export { instructionsFor } from './instructions';
export { takeFilesPart, takeReport } from './reports';

const digest = (s: string): Buffer => createHash('sha256').update(s).digest();
const CODE_MINUTES = 30;
/** No letters or digits that look alike. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

export async function makeCode(sql: Sql, stationId: string): Promise<string> {
  const code = Array.from(
    { length: 12 },
    (_, i) => (i && i % 4 === 0 ? '-' : '') + must(ALPHABET[randomInt(ALPHABET.length)]),
  ).join('');
  await q.setCode(sql, stationId, digest(code), CODE_MINUTES);
  return code;
}

/** A new workstation and the one-time code for its agent. */
export async function addStation(
  person: Person,
  input: BodyOf<'POST /api/stations'>,
): Promise<{ id: string; code: string }> {
  allow(person, 'station.enrol');
  const added = checked(stationEndpoints['POST /api/stations'].body, input);
  return transaction(async (sql) => {
    if (await q.stationByName(sql, added.name))
      throw new Problem(
        'station-exists',
        `There is a station called ${added.name} already.`,
        'name',
        'Choose another name.',
      );
    await fitting(sql, { kind: 'workstation', system: added.system }, added.editors);
    const id = await createStation(sql, actorOf(person), {
      ...added,
      kind: 'workstation',
      hostId: null,
      position: 100,
    });
    return { id, code: await makeCode(sql, id) };
  });
}

/** A card in the reader of a workstation, for a camera. */
export async function addCard(
  person: Person,
  hostId: string,
  input: BodyOf<'POST /api/stations/:id/card'>,
): Promise<{ id: string }> {
  allow(person, 'station.enrol');
  const { name, camera } = checked(stationEndpoints['POST /api/stations/:id/card'].body, input);
  return transaction(async (sql) => {
    const host = await q.stationById(sql, hostId);
    if (!host) throw new Problem('not-found', 'There is no such station.', hostId, 'Go back to Stations.');
    if (host.kind === 'card' || host.retired_at)
      throw new Problem(
        'card-host',
        `${host.name} is ${host.retired_at ? 'retired' : 'a card itself'}, and has no reader.`,
        host.name,
        'Choose a workstation that is in use.',
      );
    if (await q.stationByName(sql, name))
      throw new Problem('station-exists', `There is a station called ${name} already.`, 'name', 'Choose another name.');
    await fitting(sql, { kind: 'card', system: host.system }, [camera]);
    const id = await createStation(sql, actorOf(person), {
      name,
      kind: 'card',
      system: host.system,
      person: '',
      hostId,
      editors: [camera],
      position: 100,
    });
    return { id };
  });
}

/**
 * Changes what a station is called, whose it is and which editors it has, or retires it and brings it back. The agent of a retired station is not
 * let in any more, and nothing is planned for it; what lies there stays.
 */
export async function changeStation(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/stations/:id'>,
): Promise<void> {
  allow(person, 'station.enrol');
  const change = checked(stationEndpoints['PATCH /api/stations/:id'].body, input);
  await transaction(async (sql) => {
    const before = await q.stationById(sql, id);
    if (!before) throw new Problem('not-found', 'There is no such station.', id, 'Go back to Stations.');
    const named = await q.stationByName(sql, change.name);
    if (named && named.id !== id)
      throw new Problem(
        'station-exists',
        `There is a station called ${change.name} already.`,
        'name',
        'Choose another name.',
      );
    await q.updateStation(sql, id, change);
    await q.retireCards(sql, id, change.retired);
    await changeEditors(sql, actorOf(person), before, change);
    if (change.groups && !same(change.groups, before.groups))
      await record(sql, actorOf(person), 'station', id, 'grouped', listed(before.groups), listed(change.groups));
    if (
      change.name === before.name &&
      change.person === before.person &&
      change.retired === (before.retired_at !== null)
    )
      return;
    await record(
      sql,
      actorOf(person),
      'station',
      id,
      stationChange(before.retired_at !== null, change.retired),
      { name: before.name, person: before.person },
      { name: change.name, person: change.person },
    );
  });
}

const listed = (groups: readonly string[]) => ({ groups: groups.join(', ') });

function stationChange(wasRetired: boolean, retired: boolean): ActionOf<'station'> {
  if (wasRetired === retired) return 'renamed';
  return retired ? 'retired' : 'brought back';
}

export async function createStation(
  sql: Sql,
  actor: Actor,
  station: {
    name: string;
    kind: 'workstation' | 'card';
    system: string;
    person: string;
    hostId: string | null;
    editors: string[];
    position: number;
  },
): Promise<string> {
  const id = v7();
  await q.insertStation(sql, { id, ...station });
  for (const entry of station.editors) {
    const [editor, version] = entry.split('@') as [string, string];
    await q.insertStationEditor(sql, id, editor, version);
  }
  await record(sql, actor, 'station', id, 'added', null, { name: station.name });
  return id;
}

export async function newCode(person: Person, stationId: string): Promise<string> {
  allow(person, 'station.enrol');
  return transaction(async (sql) => {
    if (!(await q.stationById(sql, stationId)))
      throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
    await record(sql, actorOf(person), 'station', stationId, 'code made');
    return makeCode(sql, stationId);
  });
}

/** An agent with the station's token, wherever it runs, is not let in any more; it is enrolled anew with a new code. */
export async function revokeToken(person: Person, stationId: string): Promise<void> {
  allow(person, 'station.enrol');
  await transaction(async (sql) => {
    if (!(await q.stationById(sql, stationId)))
      throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
    await q.dropToken(sql, stationId);
    await record(sql, actorOf(person), 'station', stationId, 'token revoked');
  });
}

/** An agent trades its code for a token of its own; the code is then used up. */
export async function enrol(
  input: unknown,
): Promise<{ station: string; name: string; token: string; updateKey: string }> {
  const enrolment = checked(enrolSchema, input);
  const token = randomBytes(32).toString('base64url');
  return transaction(async (sql) => {
    const station = await q.takeCode(
      sql,
      digest(enrolment.code.trim().toUpperCase()),
      digest(token),
      enrolment.agentVersion,
    );
    if (!station)
      throw new Problem(
        'enrol-code',
        'This code is wrong, used up, or older than half an hour.',
        'code',
        'Have a new one made on the station’s page.',
      );
    if (station.system !== enrolment.system)
      throw new Problem(
        'enrol-system',
        `The station ${station.name} is a ${station.system} one, and the agent says ${enrolment.system}.`,
        'system',
        'Enrol with the right system, or correct the station.',
      );
    await record(sql, { personId: null, name: `agent of ${station.name}` }, 'station', station.id, 'enrolled', null, {
      host: enrolment.host,
    });
    return { station: station.id, name: station.name, token, updateKey: await updateKey() };
  });
}

export async function stationOfToken(header: string | null): Promise<q.StationRow> {
  const token = /^Bearer ([\w-]{20,100})$/.exec(header ?? '')?.[1];
  const station = token ? await q.stationByToken(pool(), digest(token)) : undefined;
  if (!station)
    throw new Problem(
      'agent-unknown',
      'This agent is not enrolled, or its token was revoked.',
      'authorization',
      'Enrol it again with a new code.',
    );
  return station;
}
