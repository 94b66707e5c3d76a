/** The agent's own files: what it was enrolled with, and what it remembers from one round to the next. */
import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { OperationResult, Plan } from '@/core/sync/protocol';
import type { Network } from './network';

/** In `agent.json`. */
export interface Enrolment {
  server: string;
  token: string;
  station: string;
  name: string;
  system: string;
  /** what was said of the way to the server when it was enrolled */ network?: Network;
  /** by which it takes programs from the server; agents that were enrolled before have none */ updateKey?: string;
}

/** In `last.json`: what can be taken back. */
export interface LastPlan {
  plan: Plan;
  results: OperationResult[];
}

/** Whole or not at all, and for nobody else's eyes. */
export async function remember(state: string, file: string, value: unknown): Promise<void> {
  await writeFile(`${join(state, file)}.part`, JSON.stringify(value), { mode: 0o600 });
  await rename(`${join(state, file)}.part`, join(state, file));
}

/** Null where there is none. */
export async function remembered<Value>(state: string, file: string): Promise<Value | null> {
  return JSON.parse(await readFile(join(state, file), 'utf8').catch(() => 'null')) as Value | null;
}
