/**
 * After an update, the program that was stays beside the new one: it puts itself back where the new one ends badly, or does
 * no round, before it was seen to work.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { tell } from './log';
import { isOnTrial, putBack, settle, UPDATED, type OwnProgram } from './update';

const WATCHED = 'ETAGERE_AGENT_WATCHED';
/** It has reported: it may take its time from here on. */
const REPORTED = 'reported';
/** It has done a round. */
const WORKS = 'works';

/** Whether another process of the agent watches this one. */
export const isWatched = (): boolean => process.env[WATCHED] === '1' && process.send !== undefined;

/** Says to whoever watches how far a round is. */
export function tellReported(): void {
  process.send?.(REPORTED);
}
export function tellWorks(): void {
  process.send?.(WORKS);
}
/** A program whose watcher is gone ends: another is started in its place. */
export function endWithWatcher(): void {
  process.on('disconnect', () => process.exit(0));
}

interface Ended {
  status: number;
  worked: boolean;
}

/** Runs the program once, until it ends or has said nothing for too long. */
function once(child: ChildProcess, patience: number, onWorks: () => void): Promise<Ended> {
  return new Promise((done) => {
    let worked = false;
    const timer = setTimeout(() => child.kill('SIGKILL'), patience);
    child.on('message', (message) => {
      clearTimeout(timer);
      if (message !== WORKS) return;
      worked = true;
      onWorks();
    });
    child.once('exit', (status) => {
      clearTimeout(timer);
      done({ status: status ?? 1, worked });
    });
  });
}

/** Nothing is waited for any longer where the program has not reported by then, in milliseconds. */
const PATIENCE_MS = 180_000;
/** A timer that never comes, as far as Node counts. */
const FOREVER_MS = 2 ** 31 - 1;

/**
 * Starts the agent's program with these words and stays beside it until it ends.
 * @returns the status with which it ended
 */
export async function watch(own: OwnProgram, words: readonly string[], patience = PATIENCE_MS): Promise<number> {
  let child: ChildProcess | null = null;
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => child?.kill(signal));
  for (;;) {
    const onTrial = isOnTrial(own);
    child = spawn(process.execPath, [own.file, ...words], {
      stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
      env: { ...process.env, [WATCHED]: '1' },
    });
    const { status, worked } = await once(child, onTrial ? patience : FOREVER_MS, () => {
      // what cannot be settled now is on trial at its next start again
      settle(own).catch((error: unknown) => tell((error as Error).message));
    });
    // another newer one lies there
    if (status === UPDATED) continue;
    if (!onTrial || worked || status === 0) return status;
    tell('the new version did not work; the one before is put back');
    await putBack(own);
  }
}
