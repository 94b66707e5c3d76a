/** The job worker: a process of its own that takes jobs from the queue in PostgreSQL. Any number of them share the queue. */
import { availableParallelism, setPriority } from 'node:os';
import { run } from 'graphile-worker';
import { planConversion } from '@/server/conversions/planning';
import { giveUpConversion, runConversion } from '@/server/conversions/running';
import { databaseUrl } from '@/server/db/pool';
import { fillEffects } from '@/server/copies/service';
import { readPresetsAnew } from '@/server/editors/reading';
import { endHopelessJobs, freeDeadJobs, runJob, type GivenUp, type JobHandler } from '@/server/jobs/service';
import { warmFrames } from '@/server/frames/warm';
import { giveUpReading, readArrival } from '@/server/arrivals/service';
import { log } from '@/server/log';
import { metricsText } from '@/server/metrics';
import { workOutPlan } from '@/server/rollouts/planning';
import { letVerifiedGo } from '@/server/rollouts/verified';
import { serveMetrics } from '../web/keepers';

/** Of a process whose work can wait a little. */
const NICE = 5;

const handlers: Record<string, JobHandler> = {
  arrival: readArrival,
  frames: warmFrames,
  plan: workOutPlan,
  'conversion-plan': planConversion,
  conversion: runConversion,
  'read-anew': readPresetsAnew,
};
/** A plan stays as it is: its page shows the job. */
const givenUp: Record<string, GivenUp> = { arrival: giveUpReading, conversion: giveUpConversion };

// jobs use all cores, and whoever waits for a page comes first
process.env.ETAGERE_THREADS ??= String(availableParallelism());
setPriority(NICE);

// versions that were taken in before there were fingerprints get theirs; once, and beside the work
void fillEffects().catch((error: unknown) => log.error({ err: error }, 'filling in fingerprints'));

// a worker killed hard leaves its jobs locked; whoever is left takes them up again. What waits for an editor's list goes on
const watch = setInterval(() => {
  void freeDeadJobs()
    .then(() => endHopelessJobs(givenUp))
    .then(() => letVerifiedGo())
    .catch((error: unknown) => log.error({ err: error }, 'looking after jobs'));
}, 4000);

const metrics = process.env.ETAGERE_METRICS ? serveMetrics(process.env.ETAGERE_METRICS, () => metricsText()) : null;

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
metrics?.close();
