/** A small studio for tests of rollouts: looks, stations with their agents played, plans worked out by hand. */
import { createHash } from 'node:crypto';
import { must } from '@/core/must';
import type { Operation, OperationResult } from '@/core/sync/protocol';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { databaseUrl, pool, transaction } from '../../db/pool';
import { people } from '../../db/testing/database';
import { confirmEncoding } from '../../items/encoding';
import { approve } from '../../items/approval';
import { runJob } from '../../jobs/service';
import { actorOf } from '../../people/roles';
import { addShelf } from '../../shelves/service';
import { createStation, enrol, makeCode, stationOfToken, takeReport } from '../../stations/service';
import { planRollout, workOutPlan } from '../planning';
import { planFor, rolloutFor, takeResults } from '../service';
import { itemOf } from '../../items/testing/item-of';

export const srgb = { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65' };
export const sha = (text: string): string => createHash('sha256').update(text).digest('hex');

/** The shelf of each database: test files that share a process do not share their studio. */
const shelves = new Map<string, Promise<string>>();
function theShelf(): Promise<string> {
  const studio = databaseUrl();
  const shelf = shelves.get(studio) ?? addShelf(people.librarian, { name: 'S' });
  shelves.set(studio, shelf);
  return shelf;
}

/** A station with these editors; a card is in the reader of its host. */
export const addStation = (
  name: string,
  system: string,
  editors: string[],
  { hostId = null, person = '' }: { hostId?: string | null; person?: string } = {},
): Promise<string> =>
  transaction((sql) =>
    createStation(sql, actorOf(people.librarian), {
      name,
      kind: hostId ? 'card' : 'workstation',
      system,
      person,
      hostId,
      editors,
      position: 0,
    }),
  );
/** The token of an agent that is enrolled at the station. */
export const enrolled = async (station: string, system: string): Promise<string> =>
  (await enrol({ code: await makeCode(pool(), station), system, host: 'h', agentVersion: '1' })).token;

export const item = async (title: string, text: string, name: string): Promise<{ itemId: string; versionId: string }> =>
  itemOf(text, name, { title, headings: ['House'], shelfId: await theShelf() });
/** One of the house's looks, approved; asked for once more, another item of that name. */
export async function approvedLook(n: number): Promise<{ itemId: string; versionId: string }> {
  const design = must(houseLooks[n % houseLooks.length]);
  const made = await item(design.title, cubeOf(design, 9), 'x.cube');
  await confirmEncoding(people.librarian, made.versionId, srgb);
  await approve(people.librarian, made.versionId);
  return made;
}
export const agent = (token: string) => stationOfToken(`Bearer ${token}`);
export const report = async (
  token: string,
  files: { path: string; size: number; sha256: string }[],
  listings: object[] = [],
  waiting: string | null = null,
) =>
  takeReport(await agent(token), {
    agentVersion: '1',
    files,
    digest: sha(JSON.stringify(files)),
    listings,
    indexes: [],
    waiting,
  });
export const done = (ops: Operation[]): OperationResult[] =>
  ops.map((o) => ({ n: o.n, outcome: 'done', message: '', before: o.expect, at: new Date().toISOString() }));
/** Plays the agent: fetches the plan, "writes" it, reports results and the files that are there then. */
export async function carryOut(token: string): Promise<Operation[]> {
  const station = await agent(token);
  const plan = await planFor(station);
  if (!plan) return [];
  await takeResults(station, plan.id, { results: done(plan.operations) });
  return plan.operations;
}

export const jobOf = async (rollout: string): Promise<string> =>
  must((await rolloutFor(people.librarian, rollout)).rollout.job_id);
/** Plays the worker, in its own time. */
export const work = async (rollout: string): Promise<void> => runJob(await jobOf(rollout), { plan: workOutPlan });
/** A plan that is worked out. */
export async function planned(choice: { versions: string[]; stations: string[] }): Promise<string> {
  const id = await planRollout(people.librarian, choice);
  await work(id);
  return id;
}
