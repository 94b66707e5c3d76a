/** Shows a file in the workstation's file manager, for somebody who looks at its path in Etagere. */
import { spawn } from 'node:child_process';
import { dirname } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { entryBelow } from '@/core/sync/bundle';
import { isInside, type Instructions } from '@/core/sync/protocol';
import { inside, Unsafe } from './files';
import type { AgentSystem } from './options';
import { ServerError, type Server } from './server';

type Line = [program: string, words: string[]];

/** How each system shows a file; on Linux, whose file managers have nothing in common, its folder. */
const managers: Record<AgentSystem, (file: string) => Line> = {
  macos: (file) => ['open', ['-R', file]],
  windows: (file) => ['explorer.exe', [`/select,${file}`]],
  linux: (file) => ['xdg-open', [dirname(file)]],
};

/** A program of the person's own is given the file; one of Node.js is run by it. */
const ownLine = (program: string, file: string): Line =>
  /\.[cm]?js$/.test(program) ? [process.execPath, [program, file]] : [program, [file]];

interface Context {
  server: Pick<Server, 'tellShown'>;
  root: string;
  system: AgentSystem;
  /** the file manager that was said with --file-manager */ own?: string | undefined;
}

/** Those that were shown already: the server tells of one until it has heard that it was. */
const shown = new Set<string>();

/** What could not be shown is told to the server, which tells whoever asked. */
export async function showAsked(context: Context, told: Pick<Instructions, 'places' | 'show'>): Promise<void> {
  const { show } = told;
  if (!show || shown.has(show.id)) return;
  shown.add(show.id);
  try {
    await context.server.tellShown(show.id, await fault(context, told, show.path));
  } catch (error) {
    // it was given up meanwhile; nothing else waits for this
    if (!(error instanceof ServerError)) throw error;
  }
}

/** "" where its window opened. */
async function fault(
  { root, system, own }: Context,
  { places }: Pick<Instructions, 'places'>,
  path: string,
): Promise<string> {
  const place = places.find((one) => path.startsWith(`${one.path}/`));
  if (!place || !isInside(path)) return 'it lies outside the folders of the editors';
  try {
    const file = await inside(root, entryBelow(place.path, path)?.file ?? path);
    return await opened(own ? ownLine(own, file) : managers[system](file), system);
  } catch (error) {
    if (error instanceof Unsafe) return error.message;
    throw error;
  }
}

/** A file manager that has no fault by then stays open, or has handed over to one that is. */
const PATIENCE_MS = 3000;

async function opened([program, words]: Line, system: AgentSystem): Promise<string> {
  const child = spawn(program, words, { stdio: 'ignore', detached: true });
  const ended = new Promise<string>((done) => {
    child.once('error', () => done(`there is no ${program} there`));
    // the one of Windows ends with 1 when all is well
    child.once('exit', (code) => done(code && system !== 'windows' ? `${program} ended with ${code}` : ''));
  });
  const over = new AbortController();
  // both keep the agent alive while they are waited for: a process that has nothing else to do would end here
  const patience = wait(PATIENCE_MS, '', { signal: over.signal }).catch(() => '');
  const fault = await Promise.race([ended, patience]);
  over.abort();
  child.unref();
  return fault;
}
