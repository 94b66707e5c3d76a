/**
 * A virtual processor that its host lends to others at the same time does half as much, for seconds or minutes on end. What is
 * measured in time is measured anew until the processors are as quick before and behind it as they have been seen to be.
 */
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { availableParallelism, cpus } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import type { Row } from './rows';

const PAUSE_MS = 2000;
/** Of the best that was seen. */
const ENOUGH = 0.85;

/** Says how many MB/s of SHA-256 it does for a tenth of a second. */
const PROBE = `
  const { createHash } = require('node:crypto');
  const { parentPort } = require('node:worker_threads');
  const bytes = Buffer.alloc(1e6);
  const began = performance.now();
  let done = 0;
  while (performance.now() - began < 100) {
    createHash('sha256').update(bytes).digest();
    done += 1;
  }
  parentPort.postMessage(done / ((performance.now() - began) / 1000));
`;

const probed = (): Promise<number> =>
  new Promise((told, failed) => {
    const worker = new Worker(PROBE, { eval: true });
    worker.once('message', told);
    worker.once('error', failed);
  });

/** What all processors do together, each at once with the others, in MB/s. */
const together = async (): Promise<number> =>
  (await Promise.all(Array.from({ length: availableParallelism() }, probed))).reduce((sum, one) => sum + one, 0);

/**
 * The best that earlier runs saw on this machine, so that one that begins in a bad hour knows that it does. It lies beside
 * the bench's own folder, which each run makes anew.
 */
const folder = process.env.ETAGERE_BENCH_DATA ? dirname(process.env.ETAGERE_BENCH_DATA) : '';
const kept = join(folder, 'bench-full-speed.json');
const machine = `${availableParallelism()} × ${cpus()[0]?.model ?? ''}`;

interface Seen {
  machine: string;
  best: number;
}

function bestBefore(): number {
  if (!folder || !existsSync(kept)) return 0;
  const seen = JSON.parse(readFileSync(kept, 'utf8')) as Seen;
  return seen.machine === machine ? seen.best : 0;
}

let best = bestBefore();

async function speed(): Promise<number> {
  const now = await together();
  if (now <= best) return now;
  best = now;
  if (folder) {
    mkdirSync(folder, { recursive: true });
    // a run that is ended in the middle leaves no half of it
    writeFileSync(`${kept}.part`, JSON.stringify({ machine, best } satisfies Seen));
    renameSync(`${kept}.part`, kept);
  }
  return now;
}

/** Until when a run may still wait for its processors; 0 where it may not. */
let waitUntil = 0;

/** For so many minutes from now on, what is measured waits until no processor is lent to others. */
export function allowWaiting(minutes: number): void {
  waitUntil = Date.now() + minutes * 60_000;
}

const BETWEEN_LOOKS_MS = 5000;

/** Looks how quick the processors are; where waiting is allowed, once they are quick. */
async function readySpeed(): Promise<number> {
  let now = await speed();
  while (now < ENOUGH * best && Date.now() < waitUntil) {
    await wait(BETWEEN_LOOKS_MS);
    now = await speed();
  }
  return now;
}

/** Looks how quick the processors are now, so that it is known how quick they can be. */
export const noteSpeed = async (): Promise<void> => void (await speed());

interface Try<T> {
  measured: T;
  /** MB/s, the lower of before and behind it */ speed: number;
}
export interface AtFullSpeed<T> {
  /** of the try with the quickest processors */ measured: T;
  /** all tries, the quickest first */ tries: Try<T>[];
  /** how quick they were, in words */ words: string;
}

/** @param most tries; two are made at least, since the first may not have seen how quick they can be */
export async function atFullSpeed<T>(measure: () => T | Promise<T>, most = 10): Promise<AtFullSpeed<T>> {
  const tries: Try<T>[] = [];
  while (tries.length < most && !(tries.length > 1 && tries.some((one) => one.speed >= ENOUGH * best))) {
    if (tries.length > 0) await wait(PAUSE_MS);
    const before = await readySpeed();
    const measured = await measure();
    tries.push({ measured, speed: Math.min(before, await speed()) });
  }
  tries.sort((one, other) => other.speed - one.speed);
  const quickest = tries[0]!;
  const words = `processors at ${quickest.speed.toFixed(0)} MB/s of SHA-256 together, of ${best.toFixed(0)} at best`;
  return { measured: quickest.measured, tries, words };
}

/** A time that one thread takes, with the range of all tries. */
export async function timeAtFullSpeed(measure: () => number): Promise<{ figure: number; note: string }> {
  const { measured, tries, words } = await atFullSpeed(measure);
  const all = tries.map((one) => one.measured);
  const range = `${Math.min(...all).toFixed(1)} to ${Math.max(...all).toFixed(1)} in ${tries.length} tries`;
  return { figure: measured, note: `${range}; ${words}` };
}

const MOST_OF_ROWS = 6;

/** Whole rows: those of the try with the quickest processors, with how quick they were. */
export async function rowsAtFullSpeed(measure: () => Promise<Row[]>): Promise<Row[]> {
  const { measured, tries, words } = await atFullSpeed(measure, MOST_OF_ROWS);
  return measured.map((row, n) => {
    const figures = tries.map((one) => one.measured[n]?.figure.toPrecision(3)).join(', ');
    return { ...row, note: [row.note, `tries: ${figures}`, words].filter(Boolean).join('; ') };
  });
}
