/**
 * etagere-agent: one file, one agent a user account. It reports what is installed, applies what was approved, and
 * restores what was there. Verbs: enrol, once, run, status, undo; what they take stands in `options.ts`.
 */
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readFile, realpath, rename, writeFile } from 'node:fs/promises';
import { homedir, hostname } from 'node:os';
import { join } from 'node:path';
import { must } from '@/core/must';
import {
  AGENT_VERSION,
  PART_FILES,
  type Instructions,
  type InventoryFile,
  type OperationResult,
  type Plan,
  type Report,
  type ReportAnswer,
} from '@/core/sync/protocol';
import { Applier, reversed, type OpenPlan } from './apply';
import { readIndexes, readListings, takeInventory } from './inventory';
import { isUnreachable } from './faults';
import { takeWay, type Network } from './network';
import { readOptions } from './options';
import { askForPictures } from './pictures';
import { Server, ServerError } from './server';
import { isOnTrial, update, UPDATED, type OwnProgram } from './update';
import { sendWanted } from './wanted';
import { endWithWatcher, isWatched, tellReported, tellWorks, watch } from './watch';

interface Enrolment {
  server: string;
  token: string;
  station: string;
  name: string;
  system: string;
  /** what was said of the way to the server when it was enrolled */ network?: Network;
  /** by which it takes programs from the server; agents that were enrolled before have none */ updateKey?: string;
}

function fail(message: string, status = 2): never {
  process.stderr.write(`etagere-agent: ${message}\n`);
  process.exit(status);
}

const asked = readOptions(process.argv.slice(2), { home: homedir(), platform: process.platform });
if ('help' in asked) {
  console.log(asked.help);
  process.exit(0);
}
if ('fault' in asked) fail(asked.fault);
const { verb, root, state, system, values } = asked;
if (!existsSync(root)) fail(`the root ${root} does not exist`);
await mkdir(state, { recursive: true });

const enrolment = join(state, 'agent.json');
async function enrolled(): Promise<Enrolment> {
  if (!existsSync(enrolment)) fail('this agent is not enrolled yet: etagere-agent enrol --server URL --code C');
  return JSON.parse(await readFile(enrolment, 'utf8')) as Enrolment;
}
async function remember(file: string, value: unknown): Promise<void> {
  await writeFile(`${join(state, file)}.part`, JSON.stringify(value), { mode: 0o600 });
  await rename(`${join(state, file)}.part`, join(state, file));
}

/** What is said of the way now counts; else what was said at the enrolment. */
async function takeWayTo(kept: Network = {}): Promise<void> {
  const { proxy = kept.proxy, authority = kept.authority } = values;
  await takeWay({ proxy, authority }, process.env).catch((error: unknown) => fail((error as Error).message));
}

/** What was done of a plan before it was dropped; a server that does not know the plan cannot take it, and need not. */
async function tellOfDropped(server: Server, { plan, results }: OpenPlan): Promise<void> {
  try {
    if (!results.length) return;
    await server.results(plan.id, results);
    await remember('last.json', { plan, results });
  } catch (error) {
    if (!(error instanceof ServerError)) throw error;
  }
}

/** A report with its files: they come along where they are few, and else in parts ahead of it. */
async function reportFiles(
  server: Server,
  body: Omit<Report, 'files' | 'parts'>,
  files: InventoryFile[],
): Promise<ReportAnswer> {
  if (files.length <= PART_FILES) return server.report({ ...body, files });
  const parts = await server.sendFiles(body.digest, files);
  return server.report({ ...body, files: null, parts });
}

/** The editor that would write over a path when it quits, where it runs. */
const runningAt =
  (told: Instructions) =>
  async (path: string): Promise<string | null> => {
    const first = told.places.find((place) => path.startsWith(`${place.path}/`))?.quitFirst;
    if (!first) return null;
    const [list] = await readListings(root, [{ editor: first.title, path: first.listing }]);
    return list?.running ? first.title : null;
  };

async function serverOf({ server, token, network }: Enrolment): Promise<Server> {
  await takeWayTo(network);
  return new Server(server, token, values.rate ? 1000 * Number(values.rate) : undefined);
}

/** What was said last, and why the server's program could not be taken. */
let lastTold: Instructions | null = null;
let updateFault: string | null = null;

/** Tells this start of the agent from that of another with the same token. */
const run = randomUUID();
let lastDigest = '';
/** One round: report, finish what is open or fetch a plan, apply it, say so, report again. */
async function round(server: Server): Promise<boolean> {
  const told: Instructions = await server.instructions();
  lastTold = told;
  await remember('instructions.json', told);
  const places = [...told.places.map((p) => p.path), ...told.indexes];
  const applier = new Applier({
    root,
    state,
    places,
    fetch: (sha, to) => server.fetchContent(sha, to),
    running: runningAt(told),
  });
  const report = async (waiting: string | null): Promise<ReportAnswer> => {
    const { files, digest } = await takeInventory(root, state, places);
    const listings = await readListings(root, told.listings);
    const indexes = await readIndexes(root, told.indexes);
    const body = {
      agentVersion: AGENT_VERSION,
      digest,
      listings,
      indexes,
      waiting,
      run,
      host: hostname(),
      ...(updateFault ? { updateFault } : {}),
    };
    // many files are asked for first: after a restart of the agent alone they are known there
    const isKnown = digest === lastDigest || files.length > PART_FILES;
    let answer = isKnown ? await server.report({ ...body, files: null }) : null;
    if (!answer || answer.need === 'files') answer = await reportFiles(server, body, files);
    lastDigest = digest;
    return answer;
  };
  let open = await applier.open();
  const { drop } = await report(open?.plan.id ?? null);
  tellReported();
  if (open && drop) {
    process.stderr.write(
      'etagere-agent: the server does not wait for the plan that is under way; it is left as it is\n',
    );
    await tellOfDropped(server, open);
    await applier.drop();
    open = null;
  }
  await sendWanted(server, root, told);
  // pictures hold no plan up, whatever goes wrong with them
  const faults = await askForPictures({ server, root, state }, told).catch((error: unknown) => [
    (error as Error).message,
  ]);
  for (const fault of faults) process.stderr.write(`etagere-agent: ${fault}\n`);
  const plan = open ? null : await server.plan();
  if (!open && !plan) return false;
  const { plan: done, results, later } = await applier.apply(plan);
  if (results.length) {
    await server.results(done.id, results);
    await remember('last.json', { plan: done, results });
  }
  await applier.close();
  for (const { message } of later) process.stderr.write(`etagere-agent: later: ${message}\n`);
  await report(null);
  // what is only waited for is asked for again after a pause
  return results.length > 0;
}

/** Puts a newer program in the place of this one, where the server has one; whether that has to be started now. */
async function updated(own: OwnProgram, server: Server): Promise<boolean> {
  if (!lastTold?.program) return false;
  const made = await update(own, lastTold.program, (to) => server.fetchProgram(to));
  const fault = made !== null && made !== 'swapped' ? made.fault : null;
  if (fault && fault !== updateFault) process.stderr.write(`etagere-agent: ${fault}\n`);
  updateFault = fault;
  return made === 'swapped';
}

/** While the server does not answer, rounds are so many times further apart at most: what waits reaches a station soon after it is back. */
const LONGEST_PAUSE = 8;

switch (verb) {
  case 'enrol': {
    if (!values.server || !values.code) fail('enrol needs --server URL and --code C');
    await takeWayTo();
    try {
      const given = await new Server(values.server.replace(/\/$/, ''), null).enrol({
        code: values.code,
        system,
        host: hostname(),
        agentVersion: AGENT_VERSION,
      });
      await remember('agent.json', {
        server: values.server.replace(/\/$/, ''),
        token: given.token,
        station: given.station,
        name: given.name,
        system,
        ...(given.updateKey ? { updateKey: given.updateKey } : {}),
        network: {
          ...(values.proxy ? { proxy: values.proxy } : {}),
          ...(values.authority ? { authority: values.authority } : {}),
        },
      } satisfies Enrolment);
      console.log(`enrolled as ${given.name}; now start it: etagere-agent run`);
    } catch (error) {
      fail((error as Error).message, error instanceof ServerError ? 2 : 1);
    }
    break;
  }
  case 'once': {
    const enrolment = await enrolled();
    try {
      const server = await serverOf(enrolment);
      while (await round(server));
      console.log('reported');
    } catch (error) {
      fail((error as Error).message, 1);
    }
    break;
  }
  case 'run': {
    const enrolment = await enrolled();
    const own: OwnProgram = {
      file: await realpath(must(process.argv[1])),
      state,
      version: AGENT_VERSION,
      key: enrolment.updateKey ?? null,
    };
    const words = process.argv.slice(2);
    if (isWatched()) endWithWatcher();
    // it was ended between the update and the first start of what came
    else if (isOnTrial(own)) process.exit(await watch(own, words));
    const server = await serverOf(enrolment);
    let stop = false;
    let wake = () => {};
    for (const signal of ['SIGTERM', 'SIGINT'] as const)
      process.on(signal, () => {
        stop = true;
        wake();
      });
    for (let pause = 1; !stop;) {
      try {
        const more = await round(server);
        tellWorks();
        pause = 1;
        if (more) continue;
        if (await updated(own, server)) process.exit(isWatched() ? UPDATED : await watch(own, words));
      } catch (error) {
        // that the server does not answer is nothing against the program
        if (isUnreachable(error)) tellWorks();
        process.stderr.write(`etagere-agent: ${(error as Error).message}\n`);
        pause = Math.min(LONGEST_PAUSE, pause * 2);
      }
      const seconds =
        Number(
          values.every ??
            (
              JSON.parse(
                await readFile(join(state, 'instructions.json'), 'utf8').catch(() => '{}'),
              ) as Partial<Instructions>
            ).everySeconds ??
            30,
        ) * pause;
      await new Promise<void>((done) => {
        const timer = setTimeout(done, seconds * 1000);
        wake = () => {
          clearTimeout(timer);
          done();
        };
      });
    }
    // its watcher would keep it
    if (isWatched()) process.disconnect();
    break;
  }
  case 'status': {
    const known = existsSync(enrolment) ? await enrolled() : null;
    const open = await new Applier({ root, state, places: [], fetch: async () => {} }).open();
    console.log(
      JSON.stringify(
        {
          version: AGENT_VERSION,
          enrolled: !!known,
          station: known?.name ?? null,
          server: known?.server ?? null,
          root,
          open: open ? { plan: open.plan.id, done: open.results.length, of: open.plan.operations.length } : null,
        },
        null,
        1,
      ),
    );
    break;
  }
  case 'undo': {
    const last = JSON.parse(await readFile(join(state, 'last.json'), 'utf8').catch(() => 'null')) as {
      plan: Plan;
      results: OperationResult[];
    } | null;
    if (!last) fail('there is nothing to undo');
    const told = JSON.parse(await readFile(join(state, 'instructions.json'), 'utf8')) as Instructions;
    const applier = new Applier({
      root,
      state,
      places: [...told.places.map((p) => p.path), ...told.indexes],
      fetch: async () => {
        throw new Error('what was there is no longer kept');
      },
      running: runningAt(told),
    });
    const { results, later } = await applier.apply(reversed(last.plan, last.results));
    await applier.close();
    await remember('last.json', null);
    console.log(
      JSON.stringify({
        undone: results.filter((r) => r.outcome === 'done').length,
        left: [...results.filter((r) => r.outcome !== 'done'), ...later].map((r) => r.message),
      }),
    );
    break;
  }
}
