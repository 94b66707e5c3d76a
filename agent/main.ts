/**
 * etagere-agent: one file, one agent a user account. It reports what is installed, applies what was approved, and
 * restores what was there. Its verbs, and what they take, stand in `options.ts`.
 */
import { existsSync } from 'node:fs';
import { mkdir, realpath } from 'node:fs/promises';
import { homedir, hostname } from 'node:os';
import { setTimeout as wait } from 'node:timers/promises';
import { must } from '@/core/must';
import { AGENT_VERSION, type Instructions } from '@/core/sync/protocol';
import { Applier, reversed } from './apply';
import { CarriedServer, enrolmentOf, NotTaken, openCarried } from './carried';
import { isUnreachable } from './faults';
import { install, uninstall } from './install';
import { keepLog, logFile, tell } from './log';
import { takeWay, type Network } from './network';
import { readOptions } from './options';
import { remember, remembered, type Enrolment, type LastPlan } from './own-files';
import { placesOf, Rounds, runningAt } from './rounds';
import { Server, ServerError } from './server';
import { isOnTrial, update, UPDATED, type OwnProgram } from './update';
import { endWithWatcher, isWatched, tellWorks, watch } from './watch';

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

const AGENT = 'agent.json';
const enrolledAs = (): Promise<Enrolment | null> => remembered<Enrolment>(state, AGENT);
const enrolled = async (): Promise<Enrolment> =>
  (await enrolledAs()) ?? fail('this agent is not enrolled yet: etagere-agent enrol --server URL --code C');

/** What is said of the way now counts; else what was said at the enrolment. */
async function takeWayTo(kept: Network = {}): Promise<void> {
  const { proxy = kept.proxy, authority = kept.authority } = values;
  await takeWay({ proxy, authority }, process.env).catch((error: unknown) => fail((error as Error).message));
}

async function serverOf({ server, token, network }: Enrolment): Promise<Server> {
  await takeWayTo(network);
  return new Server(server, token, values.rate ? 1000 * Number(values.rate) : undefined);
}

const rounds = new Rounds({ root, state, system, fileManager: values['file-manager'] });

/** Puts a newer program in the place of this one, where the server has one; whether that has to be started now. */
async function updated(own: OwnProgram, server: Server): Promise<boolean> {
  if (!rounds.told?.program) return false;
  const made = await update(own, rounds.told.program, (to) => server.fetchProgram(to));
  const fault = made !== null && made !== 'swapped' ? made.fault : null;
  if (fault && fault !== rounds.updateFault) tell(fault);
  rounds.updateFault = fault;
  return made === 'swapped';
}

/** While the server does not answer, rounds are so many times further apart at most: what waits reaches a station soon after it is back. */
const LONGEST_PAUSE = 8;

/** So long an editor that was asked for a picture is waited for. */
const PICTURES_MS = 20_000;

/** Carries out what was brought here by hand, and writes the answer that is to be brought back. */
async function carry(file: string, answer = file.replace(/(\.zip)?$/i, '.answer.zip')): Promise<void> {
  const before = await enrolledAs();
  const opened = await openCarried(file, before, state);
  // one that enrols holds the token that counts now: of the files that were made before any answer, the last
  const given = enrolmentOf(opened.carried);
  const own = given ?? before;
  if (!own) throw new NotTaken('no agent is enrolled here');
  if (given) await remember(state, AGENT, given);
  const server = new CarriedServer(opened);
  while (await rounds.round(server));
  for (const end = Date.now() + PICTURES_MS; server.waitsForPictures && Date.now() < end;) {
    await wait(1000);
    await rounds.round(server);
  }
  await server.writeAnswer(answer, own.token, state);
  console.log(JSON.stringify({ ...server.outcome, answer }));
}

/** Options that are said of every run. */
const LASTING = ['every', 'rate', 'file-manager'] as const;

/** Has this program run with every sign-in, or no more. */
async function stay(how: 'install' | 'uninstall'): Promise<void> {
  const said = LASTING.flatMap((name) => (values[name] ? [`--${name}`, values[name]] : []));
  const installed = {
    home: homedir(),
    uid: process.getuid?.() ?? 0,
    node: process.execPath,
    agent: await realpath(must(process.argv[1])),
    words: ['run', '--root', root, '--state', state, '--system', system, ...said],
  };
  if (how === 'install') install(system, installed);
  else uninstall(system, installed);
  console.log(how === 'install' ? `it runs; what it says stands in ${logFile(state)}` : 'it runs no more');
}

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
      await remember(state, AGENT, {
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
      console.log(`enrolled as ${given.name}; now have it run: etagere-agent install`);
    } catch (error) {
      fail((error as Error).message, error instanceof ServerError ? 2 : 1);
    }
    break;
  }
  case 'once': {
    const enrolment = await enrolled();
    try {
      const server = await serverOf(enrolment);
      while (await rounds.round(server));
      console.log('reported');
    } catch (error) {
      fail((error as Error).message, 1);
    }
    break;
  }
  case 'carry': {
    try {
      await carry(asked.file, values.answer);
    } catch (error) {
      fail((error as Error).message, error instanceof NotTaken ? 2 : 1);
    }
    break;
  }
  case 'install':
  case 'uninstall': {
    await enrolled();
    try {
      await stay(verb);
    } catch (error) {
      fail((error as Error).message, 1);
    }
    break;
  }
  case 'run': {
    keepLog(state);
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
        const more = await rounds.round(server);
        tellWorks();
        pause = 1;
        if (more) continue;
        if (await updated(own, server)) process.exit(isWatched() ? UPDATED : await watch(own, words));
      } catch (error) {
        // that the server does not answer is nothing against the program
        if (isUnreachable(error)) tellWorks();
        tell((error as Error).message);
        pause = Math.min(LONGEST_PAUSE, pause * 2);
      }
      const seconds =
        Number(values.every ?? (await remembered<Instructions>(state, 'instructions.json'))?.everySeconds ?? 30) *
        pause;
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
    const known = await enrolledAs();
    const open = await new Applier({ root, state, places: [], fetch: async () => {} }).open();
    console.log(
      JSON.stringify(
        {
          version: AGENT_VERSION,
          enrolled: !!known,
          station: known?.name ?? null,
          server: known?.server ?? null,
          root,
          log: existsSync(logFile(state)) ? logFile(state) : null,
          open: open ? { plan: open.plan.id, done: open.results.length, of: open.plan.operations.length } : null,
        },
        null,
        1,
      ),
    );
    break;
  }
  case 'undo': {
    const last = await remembered<LastPlan>(state, 'last.json');
    if (!last) fail('there is nothing to undo');
    const told = await remembered<Instructions>(state, 'instructions.json');
    if (!told) fail('what the server said last is not here any more');
    const applier = new Applier({
      root,
      state,
      places: placesOf(told),
      fetch: async () => {
        throw new Error('what was there is no longer kept');
      },
      running: runningAt(root, told),
    });
    const { results, later } = await applier.apply(reversed(last.plan, last.results));
    await applier.close();
    await remember(state, 'last.json', null);
    console.log(
      JSON.stringify({
        undone: results.filter((r) => r.outcome === 'done').length,
        left: [...results.filter((r) => r.outcome !== 'done'), ...later].map((r) => r.message),
      }),
    );
    break;
  }
}
