import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

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
  sql.query(
    `
      with made as (
        insert into job (id, kind, title, payload, person_id) values ($1, $2, $3, $4, $5) returning id
      )
      insert into job_lease (job_id) select id from made
    `,
    [job.id, job.kind, job.title, JSON.stringify(job.payload), job.personId],
  );
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
/** Takes the job over from whoever had it: the next number of its lease. Waits for a transaction of theirs that is under way. */
export const takeLease = async (sql: Sql, id: string): Promise<number> =>
  (
    await one<{ number: number }>(sql, 'update job_lease set number = number + 1 where job_id = $1 returning number', [
      id,
    ])
  ).number;
/** Whether the lease is still the last; if so, it stays so until the transaction ends. */
export const holdLease = async (sql: Sql, id: string, lease: number): Promise<boolean> =>
  (await sql.query('select 1 from job_lease where job_id = $1 and number = $2 for share', [id, lease])).rowCount === 1;
/** A transaction of a job that stands still for so long ends, so that an heir need not wait for it. */
export const endIfIdle = (sql: Sql, seconds: number) =>
  sql.query(`select set_config('idle_in_transaction_session_timeout', $1, true)`, [`${seconds}s`]);
export const startJob = (sql: Sql, id: string) =>
  sql.query(
    `
      update job
      set status = 'running', started_at = coalesce(started_at, now()), heartbeat_at = now()
      where id = $1 and status in ('queued', 'running')
    `,
    [id],
  );
/** Whether it shall stop, or null where the lease has gone to another. */
export const progressJob = async (
  sql: Sql,
  id: string,
  lease: number,
  progress: number,
  note: string,
): Promise<boolean | null> =>
  (
    await maybe<{ cancel_requested: boolean }>(
      sql,
      `
        update job
        set progress = $3, note = $4, heartbeat_at = now()
        from job_lease l
        where job.id = $1 and l.job_id = $1 and l.number = $2
        returning cancel_requested
      `,
      [id, lease, progress, note],
    )
  )?.cancel_requested ?? null;
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
export const beatJob = (sql: Sql, id: string, lease: number) =>
  sql.query(
    `
      update job
      set heartbeat_at = now()
      from job_lease l
      where job.id = $1 and l.job_id = $1 and l.number = $2
    `,
    [id, lease],
  );
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
/**
 * Jobs that nobody works on and nobody will: their heart has not beaten for a while, and the queue has given them up or
 * has never had them, as after a restore.
 */
export const hopelessJobs = (sql: Sql, seconds: number): Promise<Pick<JobRow, 'id' | 'kind' | 'title' | 'payload'>[]> =>
  many(
    sql,
    `
      select j.id, j.kind, j.title, j.payload
      from job j
      where j.status in ('queued', 'running')
        and coalesce(j.heartbeat_at, j.created_at) < now() - make_interval(secs => $1)
        and not exists (
          select 1
          from graphile_worker._private_jobs p
          where p.key = j.id::text
            and (p.locked_by is not null or p.attempts < p.max_attempts)
        )
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
