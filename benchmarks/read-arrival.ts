/** Reads one arrival as the worker does, in a process of its own, so that its memory can be told. Prints time and peak memory. */
import { closePool } from '@/server/db/pool';
import { readArrival } from '@/server/arrivals/service';

const began = performance.now();
const { entries } = await readArrival({
  id: 'bench',
  payload: { arrival: process.argv[2] },
  personId: null,
  progress: async () => {},
});
console.log(
  JSON.stringify({ ms: performance.now() - began, entries, megabytes: process.resourceUsage().maxRSS / 1024 }),
);
await closePool();
