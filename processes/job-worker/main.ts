/** The job worker: a process of its own that takes jobs from the queue in PostgreSQL. */
import { run } from 'graphile-worker';
import { databaseUrl } from '@/server/db/pool';
import { fillEffects } from '@/server/copies/service';
import { freeDeadJobs, runJob, type JobHandler } from '@/server/jobs/service';
import { warmFrames } from '@/server/frames/warm';
import { readArrival } from '@/server/arrivals/service';
import { workOutPlan } from '@/server/rollouts/planning';

const handlers: Record<string, JobHandler> = {
  arrival: readArrival,
  frames: warmFrames,
  plan: workOutPlan,
};

// versions that were taken in before there were fingerprints get theirs; once, and beside the work
void fillEffects().catch((e: unknown) => console.error('filling in fingerprints:', e));

// a worker killed hard leaves its jobs locked; whoever is left takes them up again
const watch = setInterval(() => {
  freeDeadJobs().catch(() => {});
}, 4000);

const runner = await run({
  connectionString: databaseUrl(),
  concurrency: 2,
  noHandleSignals: false,
  pollInterval: 1000,
  parsedCronItems: [],
  taskList: {
    etagere: async (payload) => {
      await runJob((payload as { job: string }).job, handlers);
    },
  },
});
await runner.promise;
clearInterval(watch);
