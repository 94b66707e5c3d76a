/** The job worker: a process of its own that takes jobs from the queue in PostgreSQL. */
import { run } from 'graphile-worker';
import { databaseUrl, pool } from '@/server/db/pool';
import { runJob, type JobHandler } from '@/server/jobs/service';
import { readIntake } from '@/server/packs/service';

const handlers: Record<string, JobHandler> = { intake: readIntake };

// a worker killed hard leaves its jobs locked; ours are idempotent, so whoever is left begins them anew
const dead = (await pool().query<{ locked_by: string }>(`select distinct locked_by from graphile_worker._private_jobs where locked_by is not null and locked_at < now() - interval '30 seconds'`)).rows.map((r) => r.locked_by);
if (dead.length) await pool().query('select graphile_worker.force_unlock_workers($1::text[])', [dead]);

const runner = await run({
  connectionString: databaseUrl(), concurrency: 2, noHandleSignals: false, pollInterval: 1000, parsedCronItems: [],
  taskList: { etagere: async (payload) => { await runJob((payload as { job: string }).job, handlers); } },
});
await runner.promise;
