/** Reads one arrival as the worker does, in a process of its own, so that its memory can be told. Prints time and peak memory. */
import { closePool, pool } from '@/server/db/pool';
import { one } from '@/server/db/query';
import { readArrival } from '@/server/arrivals/service';

const arrival = process.argv[2];
// no worker runs beside this: the job that the arrival waits for is done here
const waiting = await one<{ job_id: string }>(pool(), 'select job_id from arrival where id = $1', [arrival]);
const began = performance.now();
const { entries } = await readArrival({
  id: waiting.job_id,
  payload: { arrival },
  personId: null,
  progress: async () => {},
});
console.log(
  JSON.stringify({ ms: performance.now() - began, entries, megabytes: process.resourceUsage().maxRSS / 1024 }),
);
await closePool();
