import type { Sql } from '../db/pool';
import { maybe, one } from '../db/query';

export interface JobRow {
  id: string;
  kind: string;
  title: string;
  status: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  progress: number;
  note: string;
  payload: Record<string, unknown>;
  result: unknown;
  error: { code: string; message: string; where: string; remedy: string } | null;
  cancel_requested: boolean;
  person_id: string | null;
  created_at: Date;
  finished_at: Date | null;
}

const columns =
  'id, kind, title, status, progress, note, payload, result, error, cancel_requested, person_id, created_at, finished_at';

export const insertJob = (
  sql: Sql,
  job: { id: string; kind: string; title: string; payload: unknown; personId: string | null },
) =>
  sql.query('insert into job (id, kind, title, payload, person_id) values ($1, $2, $3, $4, $5)', [
    job.id,
    job.kind,
    job.title,
    JSON.stringify(job.payload),
    job.personId,
  ]);
/** The queue's own row, written in the same transaction. */
export const enqueue = (sql: Sql, jobId: string) =>
  sql.query(
    `
      select
        graphile_worker.add_job (
          'etagere', json_build_object('job', $1::text), max_attempts := 3, job_key := $1::text
        )
    `,
    [jobId],
  );
export const jobById = async (sql: Sql, id: string): Promise<JobRow | undefined> =>
  maybe<JobRow>(sql, `select ${columns} from job where id = $1`, [id]);
export const startJob = (sql: Sql, id: string) =>
  sql.query(
    `
      update job
      set status = 'running', started_at = coalesce(started_at, now()), heartbeat_at = now()
      where id = $1 and status in ('queued', 'running')
    `,
    [id],
  );
export const progressJob = async (sql: Sql, id: string, progress: number, note: string): Promise<boolean> =>
  (
    await maybe<{ cancel_requested: boolean }>(
      sql,
      `
        update job
        set progress = $2, note = $3, heartbeat_at = now()
        where id = $1
        returning cancel_requested
      `,
      [id, progress, note],
    )
  )?.cancel_requested ?? true;
export const finishJob = (
  sql: Sql,
  id: string,
  status: 'done' | 'failed' | 'cancelled',
  result: unknown,
  error: unknown,
) =>
  sql.query(
    `
      update job
      set
        status = $2, progress = case when $2 = 'done' then 1 else progress end, result = $3,
        error = $4, finished_at = now()
      where id = $1
    `,
    [id, status, JSON.stringify(result), error ? JSON.stringify(error) : null],
  );
export const beatJob = (sql: Sql, id: string) => sql.query('update job set heartbeat_at = now() where id = $1', [id]);
/** Frees queue rows whose job runs no more: its heart has not beaten for a while, so its worker was killed hard. */
export const freeDead = (sql: Sql, seconds: number) =>
  sql.query(
    `
      select
        graphile_worker.force_unlock_workers (array_agg(distinct p.locked_by))
      from graphile_worker._private_jobs p join job j on j.id::text = p.key
      where p.locked_by is not null
        and j.status in ('queued', 'running')
        and coalesce(j.heartbeat_at, p.locked_at) < now() - make_interval(secs => $1)
      having count(*) > 0
    `,
    [seconds],
  );
export const requestCancel = (sql: Sql, id: string) =>
  sql.query(
    `
      update job
      set cancel_requested = true
      where id = $1 and status in ('queued', 'running')
    `,
    [id],
  );
/** Tells all who listen that the job has gone on. */
export const tellOfJob = (sql: Sql, id: string) => sql.query(`select pg_notify('job', $1)`, [id]);
/** Whether the job waits in the queue or is worked on; one whose heart has not beaten for so many seconds is not. */
export const lives = async (sql: Sql, id: string, seconds: number): Promise<boolean> =>
  (
    await one<{ lives: boolean }>(
      sql,
      `
        select exists (
          select 1
          from job j
            join graphile_worker._private_jobs p on p.key = j.id::text
          where j.id = $1
            and j.status in ('queued', 'running')
            and p.attempts < p.max_attempts
        ) or exists (
          select 1
          from job j
          where j.id = $1
            and j.status = 'running'
            and j.heartbeat_at > now() - make_interval(secs => $2)
        ) as lives
      `,
      [id, seconds],
    )
  ).lives;
