/**
 * Starts and quits the stand-in editors of the demo's stations, each as a process of its own, and reads out their lists.
 * A small service on loopback with a key; it knows folder trees, not Etagere.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

interface Station {
  name: string;
  root: string;
  system: string;
  editors: string[];
  /** those that stand open from the start */ running?: string[];
}
const folder = process.argv[2];
if (!folder) {
  process.stderr.write('use: launcher FOLDER (with stations.json)\n');
  process.exit(2);
}
const here = dirname(fileURLToPath(import.meta.url));
const key = randomBytes(24).toString('base64url');
const running = new Map<string, ChildProcess>();
const stations = (): Station[] =>
  existsSync(join(folder, 'stations.json'))
    ? (JSON.parse(readFileSync(join(folder, 'stations.json'), 'utf8')) as Station[])
    : [];

const lists: Record<string, (s: Station) => string> = {
  'marlstone@4': (station) =>
    `${station.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/.marlstone-4/catalogue.json`,
  'marlstone@3': (station) =>
    `${station.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/.marlstone-3/catalogue.json`,
  'oxbow@2': (station) =>
    station.system === 'linux'
      ? '.config/oxbow/contents.json'
      : `${station.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/Oxbow/contents.json`,
  'oxbow-table@2': (station) =>
    station.system === 'linux'
      ? '.config/oxbow-table/shown.json'
      : `${station.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/Oxbow Table/shown.json`,
  'tessel@7': (station) =>
    `${station.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/Tessel/listed.json`,
  'perrin-alder@1': () => 'media/ALDER/CAMERA.JSN',
};

class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly remedy: string,
  ) {
    super(message);
  }
}

function find(name: string, editor: string): Station {
  const fold = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '');
  const station = stations().find((x) => x.name === name || fold(x.name) === fold(name));
  if (!station)
    throw new Refusal(
      'station-unknown',
      `There is no station called ${name} here.`,
      `Known are ${stations()
        .map((x) => x.name)
        .join(', ')}.`,
    );
  if (!station.editors.includes(editor) || !lists[editor])
    throw new Refusal(
      'editor-unknown',
      `${editor} is not installed at ${station.name}.`,
      `Installed are ${station.editors.join(', ')}.`,
    );
  return station;
}

async function launch(station: Station, editor: string): Promise<{ running: boolean }> {
  const id = `${station.name} ${editor}`;
  if (running.has(id)) return { running: true };
  const [program, edition] = editor.split('@') as [string, string];
  const child = spawn(
    process.execPath,
    [join(here, `${program}.mjs`), '--root', station.root, '--system', station.system, '--edition', edition],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  running.set(id, child);
  child.on('exit', () => running.delete(id));
  await new Promise<void>((done, bad) => {
    child.stdout!.once('data', () => done());
    child.once('exit', () => bad(new Error(`${editor} did not start`)));
  });
  return { running: true };
}

async function quit(station: Station, editor: string): Promise<{ running: boolean }> {
  const child = running.get(`${station.name} ${editor}`);
  if (child) {
    const gone = new Promise((r) => child.once('exit', r));
    child.kill('SIGTERM');
    await gone;
  }
  return { running: false };
}

/** A person there confirms that the editor takes in what lies in its hand-off folder. */
async function takeIn(station: Station, editor: string): Promise<unknown> {
  const child = running.get(`${station.name} ${editor}`);
  if (!child)
    throw new Refusal('not-running', `${editor} does not run at ${station.name}.`, 'Launch it first: it asks then.');
  const done = new Promise((settle) => child.stdout!.once('data', settle));
  child.kill('SIGUSR2');
  await done;
  return list(station, editor);
}

function list(station: Station, editor: string): unknown {
  const file = join(station.root, lists[editor]!(station));
  if (!existsSync(file))
    throw new Refusal(
      'never-launched',
      `${editor} was never started at ${station.name}, so it lists nothing.`,
      'Launch it first.',
    );
  const listing = JSON.parse(readFileSync(file, 'utf8')) as {
    at: string;
    listed: unknown[];
    refused: unknown[];
    favorites?: unknown[];
  };
  return {
    running: running.has(`${station.name} ${editor}`),
    at: listing.at,
    listed: listing.listed,
    refused: listing.refused,
    favorites: listing.favorites ?? [],
  };
}

const server = createServer((request, response) => {
  const answer = (status: number, body: unknown) => {
    response.writeHead(status, { 'content-type': 'application/json' });
    response.end(JSON.stringify(body));
  };
  const given = Buffer.from(request.headers.authorization ?? '');
  const wanted = Buffer.from(`Bearer ${key}`);
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) {
    answer(403, { error: { code: 'key', message: 'wrong key', where: '', remedy: '' } });
    return;
  }
  const url = new URL(request.url ?? '/', 'http://x');
  const station = url.searchParams.get('station') ?? '';
  const editor = url.searchParams.get('editor') ?? '';
  void (async () => {
    try {
      const found = find(station, editor);
      if (url.pathname === '/launch') answer(200, await launch(found, editor));
      else if (url.pathname === '/quit') answer(200, await quit(found, editor));
      else if (url.pathname === '/import') answer(200, await takeIn(found, editor));
      else answer(200, list(found, editor));
    } catch (error) {
      if (error instanceof Refusal)
        answer(422, {
          error: { code: error.code, message: error.message, where: `${station} ${editor}`, remedy: error.remedy },
        });
      else
        answer(500, {
          error: {
            code: 'launch-failed',
            message: (error as Error).message,
            where: `${station} ${editor}`,
            remedy: 'Look at the log of bin/start.',
          },
        });
    }
  })();
});
/** Editors that a studio's people have open when the day begins. */
async function openThoseThatRun(): Promise<void> {
  for (const station of stations())
    for (const editor of station.running ?? [])
      await launch(station, editor).catch((error: unknown) => {
        process.stderr.write(`${editor} at ${station.name}: ${(error as Error).message}\n`);
      });
}
void openThoseThatRun();

server.listen(0, '127.0.0.1', () => {
  const { port } = server.address() as { port: number };
  const file = join(folder, 'launcher.json');
  writeFileSync(`${file}.new`, JSON.stringify({ url: `http://127.0.0.1:${port}`, key, pid: process.pid }), {
    mode: 0o600,
  });
  renameSync(`${file}.new`, file);
});
const end = () => {
  for (const c of running.values()) c.kill('SIGTERM');
  setTimeout(() => process.exit(0), 300);
};
process.on('SIGTERM', end);
process.on('SIGINT', end);
