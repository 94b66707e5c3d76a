/** Jobs: a row of ours beside the queue's, so that progress, cancel and result survive a reload. */
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

export type { JobRow } from './queries';

export async function addJob(
  sql: Sql,
  kind: string,
  title: string,
  payload: Record<string, unknown>,
  personId: string | null,
): Promise<string> {
  const id = v7();
  await q.insertJob(sql, { id, kind, title, payload, personId });
  await q.enqueue(sql, id);
  return id;
}

export class Cancelled extends Error {}

export interface JobContext {
  id: string;
  payload: Record<string, unknown>;
  personId: string | null;
  /** Throws Cancelled when someone asked for it. */ progress(share: number, note: string): Promise<void>;
}
export type JobHandler = (job: JobContext) => Promise<unknown>;

/** Runs one job by its id: called by the worker process, or by a test. */
export async function runJob(id: string, handlers: Record<string, JobHandler>): Promise<void> {
  const sql = pool();
  const job = await q.jobById(sql, id);
  if (!job || job.status === 'done' || job.status === 'cancelled' || job.status === 'failed') return;
  await q.startJob(sql, id);
  let last = 0;
  const heart = setInterval(() => {
    q.beatJob(sql, id).catch(() => {});
  }, 3000);
  try {
    const handler = handlers[job.kind];
    if (!handler) throw new Error(`no handler for jobs of kind ${job.kind}`);
    const result = await handler({
      id,
      payload: job.payload,
      personId: job.person_id,
      async progress(share, note) {
        if (Date.now() - last < 200 && share < 1) return;
        last = Date.now();
        if (await q.progressJob(sql, id, share, note)) throw new Cancelled();
        await q.tellOfJob(sql, id);
      },
    });
    await settle(id, 'done', result ?? null, null);
  } catch (error) {
    if (error instanceof Cancelled) await settle(id, 'cancelled', null, null);
    else if (error instanceof Problem) await settle(id, 'failed', null, error.toJSON());
    else {
      console.error(`job ${id} (${job.kind}) failed:`, error);
      await settle(id, 'failed', null, {
        code: 'bug',
        message: 'Something went wrong that is not your doing.',
        where: `incident ${id}`,
        remedy: 'Tell the people who look after Etagere this number.',
      });
    }
  } finally {
    clearInterval(heart);
  }
}

/** Jobs whose worker was killed hard are taken up again; jobs are idempotent. */
export const freeDeadJobs = (seconds = 12) => q.freeDead(pool(), seconds);

/** Whether somebody works on it, or will. */
export const jobLives = (sql: Sql, id: string): Promise<boolean> => q.lives(sql, id, 30);

async function settle(
  id: string,
  status: 'done' | 'failed' | 'cancelled',
  result: unknown,
  error: unknown,
): Promise<void> {
  await transaction(async (sql) => {
    await q.finishJob(sql, id, status, result, error);
    await record(sql, { personId: null, name: 'worker' }, 'job', id, status);
  });
}

export async function jobFor(person: Person, id: string): Promise<q.JobRow> {
  allow(person, 'view');
  const job = await q.jobById(pool(), id);
  if (!job) throw new Problem('not-found', 'There is no such job.', id, 'Go back and reload the page.');
  return job;
}

export async function cancelJob(person: Person, id: string): Promise<void> {
  allow(person, 'arrival.make');
  await q.requestCancel(pool(), id);
}
