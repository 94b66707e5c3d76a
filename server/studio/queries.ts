import type { Moment } from '../activity/queries';
import type { Sql } from '../db/pool';
import { maybe, one } from '../db/query';
import { SESSION_LIVES } from '../people/queries';
import type { Role } from '../people/roles';

export const tolerance = async (sql: Sql): Promise<{ p95: number; max: number }> =>
  one<{ p95: number; max: number }>(sql, 'select copy_p95::float8 as p95, copy_max::float8 as max from studio');
export const setTolerance = (sql: Sql, p95: number, max: number) =>
  sql.query('update studio set copy_p95 = $1, copy_max = $2', [p95, max]);

/** How far off a table may be before a lead has to say so, in ΔE00. */
export const proofLimits = (sql: Sql): Promise<{ mean: number; max: number }> =>
  one<{ mean: number; max: number }>(sql, 'select proof_mean::float8 as mean, proof_max::float8 as max from studio');
export const setProofLimits = (sql: Sql, mean: number, max: number) =>
  sql.query('update studio set proof_mean = $1, proof_max = $2', [mean, max]);

export const secondPerson = async (sql: Sql): Promise<boolean> =>
  (await one<{ asked: boolean }>(sql, 'select second_person as asked from studio')).asked;
export const setSecondPerson = (sql: Sql, asked: boolean) => sql.query('update studio set second_person = $1', [asked]);

/** How many people of these roles may sign in. */
export const activePeople = async (sql: Sql, roles: readonly string[]): Promise<number> =>
  (
    await one<{ n: number }>(sql, 'select count(*)::int as n from person where active and role = any ($1::text[])', [
      roles,
    ])
  ).n;

/** Who asks for a page, and what the frame of all screens shows. */
export interface BeginningRow {
  id: string;
  name: string;
  email: string;
  role: Role;
  /** it has not been noted for some minutes that the session is used */ stale: boolean;
  arrivals: number;
  rollouts: number;
  moment: Moment;
}

/** One statement, since every page begins with it: three of them take as long as all else that a light page asks. */
export const beginningOfPage = (sql: Sql, token: Buffer): Promise<BeginningRow | undefined> =>
  maybe<BeginningRow>(sql, {
    name: 'beginning of a page',
    text: `
      select
        p.id, p.name, p.email::text, p.role,
        s.seen_at < now() - interval '5 minutes' as stale,
        (
          select count(*)::int
          from arrival
          where status in ('ready', 'failed')
        ) as arrivals,
        (
          select count(*)::int
          from rollout
          where status in ('planned', 'confirmed')
        ) as rollouts,
        pg_current_snapshot()::text as moment
      from session s join person p on p.id = s.person_id
      where s.token_sha256 = $1
        and ${SESSION_LIVES}
    `,
    values: [token],
  });

export interface StudioFigures {
  waiting: number;
  running: number;
  queue_age: number;
  reporting: number;
  silent: number;
  steps: number;
  connections: number;
  bytes: number;
  oldest: number;
}
export const STUDIO_FIGURES = `
  select
    (select count(*)::int from job where status = 'queued') as waiting,
    (select count(*)::int from job where status = 'running') as running,
    (
      select coalesce(extract(epoch from now() - min(created_at)), 0)::float8
      from job
      where status = 'queued'
    ) as queue_age,
    (
      select count(*)::int
      from station
      where token_sha256 is not null and last_report_at > now() - interval '5 minutes'
    ) as reporting,
    (
      select count(*)::int
      from station
      where token_sha256 is not null
        and (last_report_at is null or last_report_at <= now() - interval '5 minutes')
    ) as silent,
    (
      select count(*)::int
      from rollout_step s join rollout r on r.id = s.rollout_id
      where r.status = 'confirmed' and s.outcome is null and s.do_what <> 'none'
    ) as steps,
    (select count(*)::int from pg_stat_activity where datname = current_database()) as connections,
    pg_database_size(current_database()) as bytes,
    (
      select coalesce(extract(epoch from now() - min(xact_start)), 0)::float8
      from pg_stat_activity
      where datname = current_database()
    ) as oldest
`;

export interface StepsDone {
  people: boolean;
  shelf: boolean;
  delivery: boolean;
  bench: boolean;
  station: boolean;
  rollout: boolean;
}

/** What of the first steps is done. */
export const firstSteps = (sql: Sql): Promise<StepsDone & { hidden: boolean }> =>
  one<StepsDone & { hidden: boolean }>(sql, {
    name: 'first steps',
    text: `
      select
        s.steps_hidden as hidden,
        (select count(*) > 1 from (select 1 from person where active limit 2) p) as people,
        exists (select 1 from shelf where archived_at is null) as shelf,
        exists (select 1 from arrival where status = 'accepted') as delivery,
        exists (select 1 from verdict) or exists (select 1 from bench) as bench,
        exists (select 1 from station where token_sha256 is not null) as station,
        exists (select 1 from rollout where status in ('confirmed', 'done')) as rollout
      from studio s
    `,
  });

export const setStepsHidden = (sql: Sql, hidden: boolean) => sql.query('update studio set steps_hidden = $1', [hidden]);
