/** Jobs: a row of ours beside the queue's, so that progress, cancel and result survive a reload. */
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { passingFault } from '../db/faults';
import { fenced, pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { log, within } from '../log';
import { observeJob } from '../metrics';
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

/** Another worker has taken the job over, since this one was not heard of; nothing more of this one is written. */
export class LeaseLost extends Error {
  constructor(id: string) {
    super(`job ${id} has been taken over by another worker`);
  }
}

export interface JobContext {
  id: string;
  payload: Record<string, unknown>;
  personId: string | null;
  /** Throws Cancelled when someone asked for it, and LeaseLost. */ progress(
    share: number,
    note: string,
  ): Promise<void>;
}
export type JobHandler = (job: JobContext) => Promise<unknown>;
/** What becomes of what a job was for, when nobody goes on with it. */
export type GivenUp = (sql: Sql, payload: Record<string, unknown>, problem: Problem) => Promise<unknown>;

const HEART_MS = 3000;
/** A job whose heart has not beaten for so long is another's to take. */
const LEASE_SECONDS = 20;
/** Less than the lease, so that a suspended worker's open transaction is gone when its heir comes. */
const IDLE_SECONDS = 15;

const fenceOf = (id: string, lease: number) => async (sql: Sql) => {
  await q.endIfIdle(sql, IDLE_SECONDS);
  if (!(await q.holdLease(sql, id, lease))) throw new LeaseLost(id);
};

const isOpen = (job: q.JobRow | undefined): job is q.JobRow => job?.status === 'queued' || job?.status === 'running';

/**
 * Runs one job by its id: called by the worker process, or by a test. Whatever it writes is written under its lease, so
 * that a worker that was thought dead and comes back writes nothing beside its heir. Throws LeaseLost, and faults of the
 * database that pass: the queue tries again.
 */
export async function runJob(id: string, handlers: Record<string, JobHandler>): Promise<void> {
  const sql = pool();
  if (!isOpen(await q.jobById(sql, id))) return;
  const lease = await q.takeLease(sql, id);
  // whoever had it may have finished while the lease was waited for
  const job = await q.jobById(sql, id);
  if (!isOpen(job)) return;
  const began = performance.now();
  await within({ job: id, kind: job.kind }, () =>
    fenced(fenceOf(id, lease), async () => {
      await q.startJob(pool(), id);
      const heart = setInterval(() => {
        q.beatJob(sql, id, lease).catch(() => {});
      }, HEART_MS);
      try {
        const outcome = await work(sql, job, lease, handlers);
        observeJob(job.kind, outcome, (performance.now() - began) / 1000);
      } finally {
        clearInterval(heart);
      }
    }),
  );
}

/** A fault of ours, as a person is told of it; the log has the rest under the same number. */
export function toldBug(error: unknown, incident: string, what: string) {
  log.error({ err: error, incident }, what);
  return {
    code: 'bug',
    message: 'Something went wrong that is not your doing.',
    where: `incident ${incident}`,
    remedy: 'Tell the people who look after Etagere this number.',
  };
}

/** Whether a fault is of the job as a whole, and not of the one thing that it was at. */
export const concernsJob = (error: unknown): boolean =>
  error instanceof LeaseLost || error instanceof Cancelled || passingFault(error) !== null;

type Ended = 'done' | 'failed' | 'cancelled';

async function work(sql: Sql, job: q.JobRow, lease: number, handlers: Record<string, JobHandler>): Promise<Ended> {
  const { id } = job;
  let last = 0;
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
        const stop = await q.progressJob(sql, id, lease, share, note);
        if (stop === null) throw new LeaseLost(id);
        if (stop) throw new Cancelled();
        await q.tellOfJob(sql, id);
      },
    });
    return await settle(id, 'done', result ?? null, null);
  } catch (error) {
    if (error instanceof LeaseLost || passingFault(error)) throw error;
    if (error instanceof Cancelled) return settle(id, 'cancelled', null, null);
    if (error instanceof Problem) return settle(id, 'failed', null, error.toJSON());
    return settle(id, 'failed', null, toldBug(error, id, 'a job failed'));
  }
}

/** Jobs whose worker was killed hard are taken up again; jobs are idempotent. */
export const freeDeadJobs = (seconds = LEASE_SECONDS) => q.freeDead(pool(), seconds);

/** Jobs with which nobody will go on say so; what they were for is told by kind. */
export async function endHopelessJobs(givenUp: Record<string, GivenUp>, seconds = LEASE_SECONDS): Promise<void> {
  for (const job of await q.hopelessJobs(pool(), seconds)) {
    const problem = new Problem(
      'job-died',
      'This could not be carried through: whoever worked on it ended in the middle, more than once.',
      job.title,
      'Start it again; if it ends so again, tell the people who look after Etagere.',
    );
    await transaction(async (sql) => {
      await q.takeLease(sql, job.id);
      // another worker may have said so while this one waited for the lease
      const now = await q.jobById(sql, job.id);
      if (now?.status !== 'queued' && now?.status !== 'running') return;
      await givenUp[job.kind]?.(sql, job.payload, problem);
      await settle(job.id, 'failed', null, problem.toJSON());
    });
  }
}

/** Whether somebody works on it, or will. */
export const jobLives = (sql: Sql, id: string): Promise<boolean> => q.lives(sql, id, LEASE_SECONDS);

async function settle(id: string, status: Ended, result: unknown, error: unknown): Promise<Ended> {
  return transaction(async (sql) => {
    await q.finishJob(sql, id, status, result, error);
    await record(sql, { personId: null, name: 'worker' }, 'job', id, status);
    return status;
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
