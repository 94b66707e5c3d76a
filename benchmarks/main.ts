/** bin/bench [--json] [--wait MINUTES] [--quick | --only core|screens|frames|fleet|library]: each figure beside its target and the reference measured in the same run. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { accuracyRows } from './accuracy';
import { applyRow, bakeRow } from './core';
import { allowWaiting, noteSpeed } from './full-speed';
import { chartRow, presetRows, threadsRow } from './presets';
import { browserRows, largeRows, type Address } from './browser';
import { largeFrameRows } from './large-frame';
import { closePool } from '@/server/db/pool';
import { clientRows } from './clients';
import { fleetRows } from './fleet';
import { fillCatalogue } from './generate';
import { inventoryRow } from './agent';
import { backupRow, catalogueRows, copiesRow, packRows } from './library';
import { median, ok, print, type Row } from './rows';

/** How much of its processors this machine was refused by its host since it began to run: [refused, all], in ticks (proc(5), /proc/stat). */
const ticks = (): [number, number] => {
  const ticks = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/).slice(1, 9).map(Number);
  return [ticks[7]!, ticks.reduce((a, b) => a + b, 0)];
};
/** One thread's SHA-256 in MB/s: what the machine can do at the moment, against which figures in milliseconds have to be seen. */
const hashing = (): number => {
  const bytes = Buffer.alloc(64e6);
  const began = performance.now();
  createHash('sha256').update(bytes).digest();
  return 64 / ((performance.now() - began) / 1000);
};

const before = ticks();
const speeds = [hashing(), hashing(), hashing()];
/** As tools/bench.mjs has looked at them. */
const { values: asked } = parseArgs({
  options: {
    json: { type: 'boolean' },
    quick: { type: 'boolean' },
    only: { type: 'string' },
    wait: { type: 'string' },
  },
});
const part = (name: string): boolean => (asked.only ? asked.only === name : name !== 'library' || !asked.quick);
const data = process.env.ETAGERE_BENCH_DATA!;
if (asked.wait) allowWaiting(Number(asked.wait));
const rows: Row[] = [];
if (part('core')) {
  // what is told in milliseconds comes last: by then the bench has seen how quick the processors can be
  const parts: (() => Row | Promise<Row> | Promise<Row[]>)[] = [
    applyRow,
    accuracyRows,
    () => copiesRow(20_000),
    () => inventoryRow(20_000),
    chartRow,
    threadsRow,
    bakeRow,
    ...presetRows,
  ];
  for (const measure of parts) {
    rows.push(...[await measure()].flat());
    await noteSpeed();
  }
}

/** Starts the application in the bench's own data folder; says how long it took. */
async function start(...more: string[]): Promise<{ seconds: number; address: Address; stop(): Promise<void> }> {
  const began = Date.now();
  const child = spawn(process.execPath, ['tools/start.mjs', '--port', '4411', ...more], {
    stdio: 'ignore',
    env: { ...process.env, ETAGERE_DATA: data, DATABASE_URL: '' },
  });
  const file = join(data, 'address.json');
  while (!existsSync(file)) {
    if (child.exitCode !== null || Date.now() - began > 400_000) throw new Error('the application did not start');
    await new Promise((r) => setTimeout(r, 50));
  }
  return {
    seconds: (Date.now() - began) / 1000,
    address: JSON.parse(readFileSync(file, 'utf8')) as Address,
    stop: () => {
      const gone = new Promise<void>((r) => child.once('exit', () => r()));
      child.kill('SIGTERM');
      return gone;
    },
  };
}
rmSync(data, { recursive: true, force: true });
mkdirSync(data, { recursive: true });
const first = await start();
await first.stop();
const second = await start();
try {
  if (part('screens'))
    rows.push(...(await browserRows(second.address)), {
      name: 'bin/start, the second time',
      figure: second.seconds,
      unit: 's',
      target: 15,
      note: `the first time in an empty data folder, built before: ${first.seconds.toFixed(1)} s`,
    });
  process.env.ETAGERE_DATA = data;
  if (part('frames')) rows.push(...(await largeFrameRows(second.address)));
} finally {
  await second.stop();
}
if (part('library')) {
  process.env.ETAGERE_DATA = data;
  // the pack is read here, and by no worker at the same time
  const alone = await start('--workers', '0');
  try {
    rows.push(...(await packRows(5000)), await backupRow(10_000));
  } finally {
    await alone.stop();
    await closePool();
  }
  const whole = await start();
  try {
    rows.push(...(await catalogueRows(100_000)), ...(await largeRows(whole.address)));
  } finally {
    await whole.stop();
    await closePool();
  }
}
if (part('fleet')) {
  process.env.ETAGERE_DATA = data;
  const two = await start('--web', '2');
  try {
    await fillCatalogue(2000);
    rows.push(...(await clientRows(two.address)));
  } finally {
    await two.stop();
    // the next one may be at another port
    await closePool();
  }
  const one = await start();
  try {
    rows.push(...(await fleetRows(one.address.url)));
  } finally {
    await one.stop();
  }
}
speeds.push(hashing(), hashing(), hashing());
const after = ticks();
console.error(
  `this machine during the run: SHA-256 at ${median(speeds).toFixed(0)} MB/s a thread; ${((100 * (after[0] - before[0])) / (after[1] - before[1])).toFixed(0)} % of its processors’ time was taken by its host`,
);
if (asked.json) console.log(JSON.stringify(rows.map((r) => ({ ...r, ok: ok(r) }))));
else console.log(print(rows));
process.exit(0);
