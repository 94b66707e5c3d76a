/** What the agent says of itself while it runs: to whoever started it, and into a log that never grows beyond a few megabytes. */
import { appendFileSync, mkdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** So large a log becomes before a new one is begun, and so many of before are kept. */
const MOST_BYTES = 1_000_000;
const KEPT = 3;

let folder: string | null = null;

export const logFile = (state: string, nth = 0): string => join(state, nth ? `agent.${nth}.log` : 'agent.log');

/** From now on all that is told goes into the log, too. */
export function keepLog(state: string): void {
  folder = state;
}

const sizeOf = (file: string): number => statSync(file, { throwIfNoEntry: false })?.size ?? 0;

function makeRoom(state: string): void {
  if (sizeOf(logFile(state)) < MOST_BYTES) return;
  for (let nth = KEPT - 1; nth >= 0; nth--)
    if (sizeOf(logFile(state, nth))) renameSync(logFile(state, nth), logFile(state, nth + 1));
}

/** A line without line breaks: what comes from elsewhere makes none of its own. */
const line = (words: string): string => words.replace(/[\r\n]+/g, ' ').slice(0, 2000);

export function tell(words: string): void {
  process.stderr.write(`etagere-agent: ${words}\n`);
  if (!folder) return;
  try {
    mkdirSync(folder, { recursive: true });
    makeRoom(folder);
    appendFileSync(logFile(folder), `${new Date().toISOString()} ${line(words)}\n`, { mode: 0o600 });
  } catch {
    // a full disk is told by what cannot be done, not by the log
  }
}
