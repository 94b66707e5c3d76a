/** Starts the whole application once for the browser tests: database, web, worker, agents, launcher, in a data folder of its own. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';

export const data = process.env.ETAGERE_E2E_DATA ?? '/tmp/etagere-e2e';

process.env.ETAGERE_DATA = data;

export default async function setup(): Promise<() => Promise<void>> {
  rmSync(data, { recursive: true, force: true });
  mkdirSync(data, { recursive: true });
  const log = openSync(join(data, 'start.log'), 'w');
  const child = spawn(process.execPath, ['tools/start.mjs', '--port', '4399'], {
    cwd: process.cwd(),
    env: {
      ...process.env,
      ETAGERE_DATA: data,
      DATABASE_URL: '',
      ETAGERE_FAST_DATABASE: '1',
      ETAGERE_CHECK_ANSWERS: '1',
      ETAGERE_AGENT_SECONDS: '0.6',
    },
    stdio: ['ignore', log, log],
  });
  const until = Date.now() + 600_000;
  while (!existsSync(join(data, 'address.json'))) {
    if (child.exitCode !== null || Date.now() > until)
      throw new Error(`the application did not start:\n${readFileSync(join(data, 'start.log'), 'utf8').slice(-3000)}`);
    await new Promise((r) => setTimeout(r, 200));
  }
  return async () => {
    const gone = new Promise((r) => child.once('exit', r));
    child.kill('SIGTERM');
    await gone;
  };
}
