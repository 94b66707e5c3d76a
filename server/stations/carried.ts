/**
 * A workstation without a way to the server: what its agent would be told is carried there as a signed file, and what it
 * would say comes back as a sealed one (core/sync/carried.ts). Its answer goes through the same doors as an agent's own words.
 */
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { zipSync } from 'fflate';
import { v7 } from 'uuid';
import type { Schema } from 'yup';
import { distinct } from '@/core/lists';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import {
  ANSWER,
  answerSchema,
  CARRIED,
  CARRIED_FORM,
  carriedWords,
  contentName,
  membersOf,
  MOST_CARRIED,
  PROGRAM,
  sayingSchemas,
  SEAL,
  SIGNATURE,
  type Carried,
  type CarriedEnrolment,
  type Members,
  type Saying,
} from '@/core/sync/carried';
import { carriedName } from '@/core/sync/carried-name';
import { AGENT_VERSION, type Instructions, type Plan } from '@/core/sync/protocol';
import { record } from '../activity/queries';
import { bytesOf, getBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { programOf } from '../program';
import { planFor, takeResults } from '../rollouts/service';
import { takePicture, takePictureFault } from '../sightings/result';
import * as carriedRows from './carried-queries';
import { instructionsFor } from './instructions';
import { stationById, type StationRow } from './queries';
import { takeFilesPart, takeReport } from './reports';
import { signed, updateKey } from './shipped-program';
import { takeContent } from './station-arrival';

export { MOST_ZIP } from '@/core/sync/carried';

async function workstation(sql: Sql, id: string): Promise<StationRow> {
  const station = await stationById(sql, id);
  if (!station) throw new Problem('not-found', 'There is no such station.', id, 'Go back to Stations.');
  if (station.kind === 'card' || station.retired_at)
    throw new Problem(
      'carried-to',
      `Nothing is carried to ${station.name}: it ${station.retired_at ? 'is retired' : 'is a card'}.`,
      station.name,
      'Choose a workstation that is in use; what is for its cards goes along.',
    );
  return station;
}

/** Gives the station its token where no agent has one yet, or none has been heard of since a file gave it one. */
async function enrolment(sql: Sql, station: StationRow, server: string): Promise<CarriedEnrolment | null> {
  const token = randomBytes(32).toString('base64url');
  const hash = createHash('sha256').update(token).digest();
  if (!(await carriedRows.giveToken(sql, station.id, hash, AGENT_VERSION))) return null;
  return { server, token, system: station.system, updateKey: await updateKey() };
}

/** The contents that a plan and the pictures need, by hash. */
async function contentsFor(station: StationRow, told: Instructions, plan: Plan | null): Promise<Map<string, Buffer>> {
  const puts = (plan?.operations ?? []).flatMap(({ sha256, size }) => (sha256 ? [{ sha256, size }] : []));
  const pictures = (told.pictures ?? []).flatMap(({ asked }) => asked);
  const sizes = new Map([...puts, ...pictures].map(({ sha256, size }) => [sha256, size]));
  const sum = [...sizes.values()].reduce((all, size) => all + size, 0);
  if (sum > MOST_CARRIED)
    throw new Problem(
      'carried-size',
      `What waits at ${station.name} has ${Math.ceil(sum / 2 ** 20)} MB; at most ${MOST_CARRIED / 2 ** 20} MB are carried at once.`,
      station.name,
      'Plan it in parts, or bring the workstation into the network for once.',
    );
  const contents = new Map<string, Buffer>();
  for (const sha256 of sizes.keys()) contents.set(sha256, await getBlob(bytesOf(sha256)));
  return contents;
}

const howTo = (file: string): string =>
  [
    'For the workstation to which this file was carried. It needs Node.js 20 or newer.',
    '',
    'In a terminal, in the account of the person who works there, in the folder of this file:',
    '',
    `  unzip -o "${file}" ${PROGRAM}        (Windows: tar -xf "${file}" ${PROGRAM})`,
    `  node ${PROGRAM} carry "${file}"`,
    '',
    'It writes an answer beside this file. Carry that back, and give it to Etagere on the page of the station.',
    'Whoever has this file can act as the agent of the station: leave no copy of it lying about.',
    '',
  ].join('\n');

/** @param server the address under which the studio's server is known */
export async function makeCarried(
  person: Person,
  stationId: string,
  server: string,
): Promise<{ name: string; bytes: Uint8Array }> {
  allow(person, 'station.enrol');
  const id = v7();
  const { station, enrolled } = await transaction(async (sql) => {
    const station = await workstation(sql, stationId);
    const enrolled = await enrolment(sql, station, server);
    return { station: must(await stationById(sql, stationId)), enrolled };
  });
  // what the agent gets of its own program, it takes out of the file itself
  const { program: _, ...instructions } = await instructionsFor(station);
  const plan = await planFor(station);
  const contents = await contentsFor(station, instructions, plan);
  const operations = plan?.operations.length ?? 0;
  await transaction(async (sql) => {
    const madeBy = person.id;
    const rolloutId = plan?.id ?? null;
    await carriedRows.insertCarried(sql, { id, stationId, rolloutId, operations, madeBy, enrols: enrolled !== null });
    await record(sql, actorOf(person), 'station', stationId, 'carried file made', null, { operations });
  });
  const carried: Carried = {
    form: CARRIED_FORM,
    id,
    station: station.id,
    name: station.name,
    made: new Date().toISOString(),
    instructions,
    plan,
    ...(enrolled ? { enrolment: enrolled } : {}),
  };
  const json = Buffer.from(JSON.stringify(carried));
  const name = carriedName(station.name);
  const files: Record<string, Uint8Array> = {
    [CARRIED]: json,
    [SIGNATURE]: Buffer.from(`${await signed(carriedWords(json))}\n`),
    [PROGRAM]: await readFile(programOf('agent.mjs')),
    'how to.txt': Buffer.from(howTo(name)),
  };
  for (const [sha256, bytes] of contents) files[contentName(sha256)] = bytes;
  return { name, bytes: zipSync(files, { level: 1 }) };
}

const unreadable = (message: string): Problem =>
  new Problem(
    'carried-answer',
    message,
    'answer',
    'Give the file that the agent wrote at the workstation, as it is; carry it here again if it was cut off.',
  );

interface Answer {
  carried: string;
  number: number;
  said: Saying[];
  members: Members;
}

/** Opens an answer and checks its seal: nothing of it is believed before. */
async function opened(sql: Sql, station: StationRow, bytes: Uint8Array): Promise<Answer> {
  let members: Members;
  try {
    members = membersOf(bytes);
  } catch {
    throw unreadable('The answer is no ZIP, or it was cut off.');
  }
  const [json, seal] = [members[ANSWER], members[SEAL]];
  if (!json || !seal) throw unreadable('This is no answer of an agent.');
  const key = await carriedRows.tokenHash(sql, station.id);
  const meant = key && createHmac('sha256', key).update(json).digest('hex');
  const given = new TextDecoder().decode(seal).trim();
  if (meant?.length !== given.length || !timingSafeEqual(Buffer.from(meant), Buffer.from(given)))
    throw unreadable(
      `The answer is not sealed by the agent of ${station.name} as it is enrolled now, or was changed on the way.`,
    );
  const answer = checked(answerSchema, JSON.parse(new TextDecoder().decode(json)));
  if (answer.station !== station.id) throw unreadable(`The answer is of another station than ${station.name}.`);
  const said = answer.said.map((one) => {
    const kind = one.says as Saying['says'];
    if (!Object.hasOwn(sayingSchemas, kind))
      throw unreadable(`The answer says "${one.says}", which nobody here knows.`);
    const schema: Schema | null = sayingSchemas[kind];
    if (schema) checked(schema, one);
    return one as unknown as Saying;
  });
  return { ...answer, said, members };
}

const contentOf = ({ members }: Answer, sha256: string): Buffer => {
  const bytes = members[contentName(sha256)];
  if (!bytes) throw unreadable('Contents are missing from the answer.');
  return Buffer.from(bytes);
};

type Said<Kind extends Saying['says']> = Extract<Saying, { says: Kind }>;
type Doors = { [Kind in Saying['says']]: (station: StationRow, one: Said<Kind>, answer: Answer) => Promise<unknown> };

/** What an agent says by the network goes through these too. */
const doors: Doors = {
  files: (station, { part }) => takeFilesPart(station, part),
  report: (station, { report }) => takeReport(station, report),
  results: (station, { plan, results }) => takeResults(station, plan, { results }),
  content: (station, { sha256, path }, answer) => takeContent(station, sha256, path, contentOf(answer, sha256)),
  picture: (station, { id, sha256 }, answer) => takePicture(station, id, contentOf(answer, sha256)),
  'picture fault': (station, { id, message }) => takePictureFault(station, id, { message }),
};

/** What tells how it is there, which a later report has overtaken. */
const OF_A_MOMENT: readonly Saying['says'][] = ['files', 'report', 'content'];

export interface AnswerTaken {
  operations: number;
  /** what could not be taken, in words */ left: string[];
}

/** Takes what came back from a station. Broken off in the middle, it can be given again: said twice, nothing changes. */
export async function takeCarriedAnswer(person: Person, stationId: string, bytes: Uint8Array): Promise<AnswerTaken> {
  allow(person, 'station.enrol');
  const sql = pool();
  const station = await workstation(sql, stationId);
  const answer = await opened(sql, station, bytes);
  const known = await carriedRows.carriedState(sql, answer.carried, stationId);
  if (!known) throw unreadable('The file that it answers was not made here.');
  if (known.overtaken || answer.number <= known.answer)
    throw new Problem(
      'carried-answered',
      known.overtaken
        ? `An answer to a later file for ${station.name} was given already: this one is overtaken.`
        : 'This answer was given already.',
      station.name,
      'Nothing is to be done.',
    );
  const left: string[] = [];
  if (known.reported_since)
    left.push('how it is there: the agent has reported by itself since the file was made, and that is newer');
  for (const one of answer.said) {
    if (known.reported_since && OF_A_MOMENT.includes(one.says)) continue;
    await said(stationId, one, answer).catch((error: unknown) => {
      // a rollout that was dropped meanwhile, a content that nobody waits for any more: the rest is taken
      if (!(error instanceof Problem) || error.code !== 'not-found') throw error;
      left.push(error.message);
    });
  }
  const operations = answer.said.reduce((sum, one) => sum + (one.says === 'results' ? one.results.length : 0), 0);
  await transaction(async (tx) => {
    if (!(await carriedRows.answerCarried(tx, answer.carried, answer.number, person.id))) return;
    await record(tx, actorOf(person), 'station', stationId, 'answer brought', null, { operations });
  });
  return { operations, left: distinct(left) };
}

/** The station is looked at anew each time: what was said before has moved it. */
async function said(stationId: string, one: Saying, answer: Answer): Promise<void> {
  const station = await workstation(pool(), stationId);
  const door = doors[one.says] as (station: StationRow, one: Saying, answer: Answer) => Promise<unknown>;
  await door(station, one, answer);
}
