/** bin/bench [--json] [--quick]: each figure beside its target and the reference measured in the same run. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { accuracyRows } from './accuracy';
import { applyRow, bakeRow } from './core';
import { browserRows, largeRows, type Address } from './browser';
import { largeFrameRows } from './large-frame';
import { backupRow, catalogueRows, copiesRow, packRows } from './library';
import { ok, print, type Row } from './rows';

const data = process.env.ETAGERE_BENCH_DATA!, rows: Row[] = [applyRow(), bakeRow(), ...(await accuracyRows())], quick = process.argv.includes('--quick');

/** Starts the application in the bench's own data folder; says how long it took. */
async function start(): Promise<{ seconds: number; address: Address; stop(): Promise<void> }> {
  const t = Date.now(), child = spawn(process.execPath, ['tools/start.mjs', '--port', '4411'], { stdio: 'ignore', env: { ...process.env, ETAGERE_DATA: data, DATABASE_URL: '' } }), file = join(data, 'address.json');
  while (!existsSync(file)) { if (child.exitCode !== null || Date.now() - t > 400_000) throw new Error('the application did not start'); await new Promise((r) => setTimeout(r, 50)); }
  return { seconds: (Date.now() - t) / 1000, address: JSON.parse(readFileSync(file, 'utf8')) as Address, stop: () => { const gone = new Promise<void>((r) => child.once('exit', () => r())); child.kill('SIGTERM'); return gone; } };
}
rmSync(data, { recursive: true, force: true });
mkdirSync(data, { recursive: true });
const first = await start();
await first.stop();
const second = await start();
try {
  rows.push(copiesRow(20_000), ...(await browserRows(second.address)), { name: 'bin/start, the second time', figure: second.seconds, unit: 's', target: 15, note: `the first time in an empty data folder, built before: ${first.seconds.toFixed(1)} s` });
  process.env.ETAGERE_DATA = data;
  rows.push(...(await largeFrameRows(second.address)));
  if (!quick) rows.push(...(await packRows(5000)), await backupRow(10_000), ...(await catalogueRows(100_000)), ...(await largeRows(second.address)));
} finally { await second.stop(); }
if (process.argv.includes('--json')) console.log(JSON.stringify(rows.map((r) => ({ ...r, ok: ok(r) })))); else console.log(print(rows));
process.exit(0);
