/** The agent takes a newer program of its server, or goes back to the one before: real processes, and a server that signs. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, generateKeyPairSync, sign } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { PROTOCOL, signedWords, type Report } from '@/core/sync/protocol';

const shipped = readFileSync('dist/agent.mjs', 'utf8');
const shaOf = (text: string): string => createHash('sha256').update(text).digest('hex');
const keys = generateKeyPairSync('ed25519');
const strangers = generateKeyPairSync('ed25519');

let folder: string;
let http: Server;
/** What the server ships, and whose key signs it. */
let program: string;
let signer = keys.privateKey;
let version: string;
let reports: Report[];
let programsGiven: number;
let child: ChildProcess;

const [file, state] = ['agent.mjs', 'state'].map((name) => () => join(folder, name)) as [() => string, () => string];
const beside = (word: string): string => join(folder, `agent.${word}.mjs`);
const lying = (): string => readFileSync(file(), 'utf8');

function instructions(): object {
  const said = { version, sha256: shaOf(program) };
  const signature = sign(null, Buffer.from(signedWords(said)), signer).toString('base64');
  const told = { protocol: PROTOCOL, station: 'Desk', places: [], listings: [], indexes: [], wanted: [] };
  return { ...told, everySeconds: 0.2, program: { ...said, size: program.length, signature } };
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'etagere-update-'));
  [signer, version, reports, programsGiven] = [keys.privateKey, '9.9.9', [], 0];
  http = createServer((request, response) => {
    let text = '';
    request.on('data', (chunk: Buffer) => (text += chunk.toString()));
    request.on('end', () => {
      const door = (request.url ?? '').split('/').at(-1);
      if (door === 'report') reports.push(JSON.parse(text) as Report);
      if (door === 'program') programsGiven++;
      const answers: Record<string, string> = {
        instructions: JSON.stringify(instructions()),
        report: '{"need":null}',
        plan: '{"plan":null}',
        program,
      };
      response.end(answers[door ?? ''] ?? '{}');
    });
  });
  await new Promise<void>((done) => http.listen(0, '127.0.0.1', done));
  for (const name of ['root', 'state']) mkdirSync(join(folder, name));
});
afterEach(async () => {
  if (child.exitCode === null && child.signalCode === null) {
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGTERM');
    await gone;
  }
  http.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Starts the agent from a program that its server has left behind. */
function start({ own = `${shipped}\n// of last year\n`, updateKey = true } = {}): void {
  writeFileSync(file(), own);
  const key = keys.publicKey.export({ format: 'der', type: 'spki' }).toString('base64');
  const enrolment = {
    server: `http://127.0.0.1:${(http.address() as AddressInfo).port}`,
    token: 't',
    station: 's',
    name: 'Desk',
    system: 'linux',
    ...(updateKey ? { updateKey: key } : {}),
  };
  writeFileSync(join(state(), 'agent.json'), JSON.stringify(enrolment));
  const words = ['run', '--root', join(folder, 'root'), '--state', state(), '--every', '0.2', '--system', 'linux'];
  child = spawn(process.execPath, [file(), ...words], { stdio: 'ignore' });
}
const until = async (holds: () => boolean, what: string): Promise<void> => {
  for (const end = Date.now() + 40_000; !holds(); await wait(50))
    if (Date.now() > end) throw new Error(`it did not come about that ${what}`);
};
const faultTold = (): string => reports.at(-1)?.updateFault ?? '';
const runsSince = (n: number) => new Set(reports.slice(n).map(({ run }) => run));

describe('a program of the server', () => {
  test('takes the place of an older one, which goes once the new one has done a round', async () => {
    program = `${shipped}\n// of today\n`;
    start();
    await until(() => existsSync(file()) && lying() === program, 'the new program lies there');
    const before = reports.length;
    await until(() => runsSince(before).size > 0 && reports.length > before + 2, 'the new one reports');
    await until(() => !existsSync(beside('before')), 'the one before is gone');
    expect(existsSync(join(state(), 'on-trial.json'))).toBe(false);
    expect([programsGiven, faultTold()]).toEqual([1, '']);
  });

  test('that is begun and cannot do a round is put back, told, and not tried again', async () => {
    program = `if (process.argv.includes('run')) process.exit(3);\nconsole.log('etagere-agent');\n`;
    start();
    const own = lying();
    await until(() => faultTold().includes('did not work here'), 'the fault is told');
    expect(lying()).toBe(own);
    const given = programsGiven;
    const told = reports.length;
    await until(() => reports.length > told + 3, 'it goes on reporting');
    expect([programsGiven, existsSync(beside('before'))]).toEqual([given, false]);
  });

  test.each([
    ['is not signed by its server', () => (signer = strangers.privateKey), 'not signed by the server'],
    ['does not start', () => (program = 'this is no program'), 'does not start here'],
  ])('that %s is not taken', async (_, spoil, words) => {
    program = `${shipped}\n// of today\n`;
    spoil();
    start();
    const own = lying();
    await until(() => faultTold().includes(words), 'the fault is told');
    expect(lying()).toBe(own);
    expect(existsSync(beside('next'))).toBe(false);
  });

  test('of a version before its own is not taken, though it is signed', async () => {
    program = `${shipped}\n// of two years ago\n`;
    version = '0.1.0';
    start();
    const own = lying();
    await until(() => reports.length > 4, 'it has reported some times');
    expect([lying() === own, programsGiven, faultTold()]).toEqual([true, 0, '']);
  });

  test('is not taken by an agent that was given no key, which says so', async () => {
    program = `${shipped}\n// of today\n`;
    start({ updateKey: false });
    await until(() => faultTold().includes('enrol it anew'), 'the fault is told');
    expect(programsGiven).toBe(0);
  });

  test('is begun anew where the agent was killed between the update and its start', async () => {
    program = `if (process.argv.includes('run')) process.exit(3);\nconsole.log('etagere-agent');\n`;
    const own = `${shipped}\n// of last year\n`;
    // as it lies when it was killed: the new one in place and on trial, the old one beside it
    writeFileSync(beside('before'), own);
    writeFileSync(join(state(), 'on-trial.json'), JSON.stringify({ sha256: shaOf(shipped) }));
    start({ own: shipped });
    await until(() => reports.length > 1, 'it reports');
    await until(() => !existsSync(join(state(), 'on-trial.json')), 'it has proved itself');
    expect(must(reports[0]).agentVersion).toMatch(/^\d/);
  });
});
