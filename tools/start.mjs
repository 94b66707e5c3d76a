// bin/start: installs what is missing, sets up the database, loads the demo, serves, prints the address and the demo sign-ins.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { clusterRuns, startCluster, stopCluster } from './cluster.mjs';
import { dataFolder, ensurePackages, root, say } from './checkout.mjs';
import { endOrphans, giveBack, noteChildren, take } from './running.mjs';
import { supervisor } from './supervise.mjs';

const { values } = parseArgs({
  options: {
    empty: { type: 'boolean' },
    port: { type: 'string' },
    host: { type: 'string' },
    dev: { type: 'boolean' },
    demo: { type: 'boolean' },
    web: { type: 'string' },
    workers: { type: 'string' },
    metrics: { type: 'string' },
    help: { type: 'boolean' },
  },
});
if (values.help) {
  console.log(`use: bin/start [--empty] [--port N] [--host ADDRESS] [--web N] [--workers N] [--metrics PORT]
With DATABASE_URL, the PostgreSQL that it names is used and none is started; the demo comes into it only with --demo.`);
  process.exit(0);
}
/** A count from the command line. */
function count(name, usual, most = 64) {
  const given = values[name];
  if (given === undefined) return usual;
  const number = Number(given);
  if (Number.isInteger(number) && number >= 0 && number <= most) return number;
  say(`--${name} ${given} is no number from 0 to ${most}`);
  process.exit(2);
}
const webs = count('web', 1);
const workers = count('workers', 1);
/** A PostgreSQL of somebody else's, such as one for several machines. */
/** An agent on a slow line looks so many times less often. */
const PATIENT = 5;

const external = process.env.DATABASE_URL || null;
const startDatabase = () =>
  external
    ? Promise.resolve({ url: external })
    : startCluster({
        fast: process.env.ETAGERE_FAST_DATABASE === '1',
        database: process.env.ETAGERE_DATABASE || 'etagere',
      });
const began = Date.now();
const data = dataFolder();
const host = values.host ?? '127.0.0.1';

const lock = join(data, 'running.json');
const childrenFile = join(data, 'running-children.json');
const holder = take(lock);
if (holder) {
  const address = existsSync(join(data, 'address.json'))
    ? JSON.parse(readFileSync(join(data, 'address.json'), 'utf8'))
    : null;
  say(`is running already${address ? `: ${address.url}` : ''}`);
  process.exit(0);
}
writeFileSync(join(data, 'running.pid'), String(process.pid));
rmSync(join(data, 'address.json'), { force: true });
await endOrphans(childrenFile, say);

/** An agent that is not enrolled yet is; one that is learns where the server stands now. */
function enrolAgent(station, common, { url, env, cli }) {
  const enrolment = join(station.state, 'agent.json');
  mkdirSync(station.state, { recursive: true });
  if (existsSync(enrolment)) {
    // the port may be another one than last time
    const had = JSON.parse(readFileSync(enrolment, 'utf8'));
    if (had.server === url) return;
    writeFileSync(`${enrolment}.part`, JSON.stringify({ ...had, server: url }), { mode: 0o600 });
    renameSync(`${enrolment}.part`, enrolment);
    return;
  }
  const enrol = (code) =>
    spawnSync(process.execPath, ['dist/agent.mjs', 'enrol', '--server', url, '--code', code, ...common], {
      cwd: root,
      env,
      encoding: 'utf8',
    });
  let result = enrol(station.code);
  // a code serves once, and for a while
  if (result.status !== 0) result = enrol(JSON.parse(cli('station', 'code', station.name, '--json')).code);
  if (result.status !== 0) throw new Error(`the agent of ${station.name} could not be enrolled: ${result.stderr}`);
}

const programs = supervisor({ say, onChange: (children) => noteChildren(childrenFile, children) });
let watch = null;
async function end(status) {
  if (programs.isEnding()) return;
  clearInterval(watch);
  await programs.end();
  for (const file of ['running.pid', 'address.json', 'running-children.json'])
    rmSync(join(data, file), { force: true });
  if (!external) stopCluster();
  giveBack(lock);
  process.exit(status);
}
for (const s of ['SIGINT', 'SIGTERM']) process.on(s, () => void end(0));

const free = (port) =>
  new Promise((resolve) => {
    const s = createServer();
    s.once('error', () => resolve(null));
    s.listen(port, host, () => {
      const p = s.address().port;
      s.close(() => resolve(p));
    });
  });
const sleep = (ms) => new Promise((r) => setTimeout(r, ms));

try {
  ensurePackages();
  await (await import('./kernel.mjs')).ensureKernel();
  const { ensurePrograms, ensureWeb } = await import('./build.mjs');
  const [db] = await Promise.all([startDatabase(), ensurePrograms()]);
  if (!values.dev) ensureWeb();
  const env = {
    ...process.env,
    ETAGERE_DATA: data,
    DATABASE_URL: db.url,
    NEXT_TELEMETRY_DISABLED: '1',
    ETAGERE_AGENT_SECONDS: process.env.ETAGERE_AGENT_SECONDS ?? '2',
  };
  const cli = (...args) => {
    const r = spawnSync(process.execPath, ['dist/cli.mjs', ...args], {
      cwd: root,
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
      encoding: 'utf8',
    });
    if (r.status !== 0) throw new Error(`etagere ${args.join(' ')} failed`);
    return r.stdout;
  };
  cli('db', 'migrate', '--json');
  const wantsDemo = external ? values.demo : !values.empty;
  cli('demo', wantsDemo ? 'load' : 'frames', '--json');

  // each of them goes on where it stood; none of them is started before the database is there again
  let starting = null;
  const database = () =>
    (starting ??= startDatabase().finally(() => {
      starting = null;
    }));
  // figures of each program, on loopback alone: the web at the port that was asked for, the workers behind it
  const metricsFrom = values.metrics ? count('metrics', 0, 65000) : null;
  const metricsAt = (n) => (metricsFrom ? { ETAGERE_METRICS: `127.0.0.1:${metricsFrom + n}` } : {});
  const child = (name, args, more = {}) =>
    programs.keep(
      name,
      process.execPath,
      args,
      {
        cwd: root,
        env: { ...env, ETAGERE_PROCESS: name, ...more.env },
        stdio: ['ignore', more.quiet ? 'ignore' : 'inherit', 'inherit'],
      },
      database,
    );
  watch = setInterval(() => {
    if (external || starting || programs.isEnding() || clusterRuns()) return;
    say('the database ended, starting it again');
    database().catch((error) => say(error.message));
  }, 2000);
  const port = (await free(values.port ? Number(values.port) : 4310)) ?? (values.port ? null : await free(0));
  if (!port) throw new Error(`port ${values.port} is taken`);
  const url = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`;
  const web = ['--enable-source-maps', '--max-semi-space-size=64', 'dist/web.mjs'];
  web.push('--port', String(port), '--host', host, '--processes', String(values.dev ? 1 : webs));
  if (values.dev) web.push('--dev');
  if (webs > 0)
    child('web', web, {
      quiet: true,
      env: {
        NODE_ENV: values.dev ? 'development' : 'production',
        // nobody waits for a page longer than a minute
        ETAGERE_PATIENCE_SECONDS: '60',
        ...metricsAt(0),
      },
    });
  for (let n = 1; n <= workers; n++)
    child(workers === 1 ? 'worker' : `worker ${n}`, ['--enable-source-maps', 'dist/worker.mjs'], {
      quiet: true,
      env: metricsAt(n),
    });
  mkdirSync(join(data, 'stations'), { recursive: true });
  rmSync(join(data, 'stations', 'launcher.json'), { force: true });
  child('launcher', ['dist/standins/launcher.mjs', join(data, 'stations')], { quiet: true });
  for (const until = Date.now() + 60_000; webs > 0;) {
    try {
      if ((await fetch(`${url}/sign-in`, { redirect: 'manual' })).status < 500) break;
    } catch {
      /* not yet */
    }
    if (Date.now() > until || programs.isEnding()) throw new Error('the web server did not answer');
    await sleep(100);
  }

  // the demo's stations each have a real agent, which knows only its own tree
  const list = join(data, 'stations', 'stations.json');
  if (existsSync(list)) {
    for (const s of JSON.parse(readFileSync(list, 'utf8')).filter((x) => x.state)) {
      const common = ['--root', s.root, '--system', s.system, '--state', s.state];
      enrolAgent(s, common, { url, env, cli });
      const seconds = Number(env.ETAGERE_AGENT_SECONDS) * (s.patient ? PATIENT : 1);
      const manager = ['--file-manager', join(root, 'dist/standins/file-manager.mjs')];
      child(`agent of ${s.name}`, ['dist/agent.mjs', 'run', ...common, ...manager, '--every', String(seconds)]);
    }
  }

  const signInsFile = join(data, 'demo', 'sign-ins.json');
  const signIns = existsSync(signInsFile) ? JSON.parse(readFileSync(signInsFile, 'utf8')) : [];
  writeFileSync(join(data, 'address.json.new'), JSON.stringify({ url, signIns, pid: process.pid }, null, 1), {
    mode: 0o600,
  });
  renameSync(join(data, 'address.json.new'), join(data, 'address.json'));
  console.log(`\n  Etagere is ready: ${url}   (${((Date.now() - began) / 1000).toFixed(1)} s)\n`);
  if (signIns.length) {
    console.log('  demo sign-ins');
    for (const s of signIns) console.log(`    ${s.role.padEnd(10)} ${s.email.padEnd(34)} ${s.password}`);
    console.log(`\n  packs to drop at Intake: ${join(data, 'demo', 'packs')}\n`);
  }
  if (JSON.parse(cli('people', 'list', '--json')).length === 0) {
    const { code } = JSON.parse(cli('people', 'code', '--json'));
    console.log(
      `  Nobody is here yet. Open the address and begin with the set-up code  ${code}\n  (or: bin/etagere people add --name … --email … --role librarian --password-stdin)\n`,
    );
  }
} catch (e) {
  say(e.message);
  await end(1);
}
