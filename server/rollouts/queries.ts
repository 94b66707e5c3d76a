import type { Figures } from '@/core/conversion/outcome';
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface RolloutRow {
  id: string;
  title: string;
  status: 'planning' | 'planned' | 'confirmed' | 'done' | 'undoing' | 'undone' | 'dropped';
  undoes: string | null;
  /** the job that plans it; null for an undo, which is made at once */ job_id: string | null;
  person_id: string;
  person: string;
  approver: string | null;
  created_at: Date;
  confirmed_at: Date | null;
  finished_at: Date | null;
  /** the station that it goes to before the rest */ first_station_id: string | null;
  first_station: string | null;
  /** when the rest was let go */ released_at: Date | null;
  paused_at: Date | null;
  /** the rest goes by itself, once all is listed at the first station */ goes_on: boolean;
  /** nothing of it is written before then; null where it began at once */ starts_at: Date | null;
}
export interface StepRow {
  id: number;
  station_id: string;
  station: string;
  agent_station_id: string;
  editor_id: string;
  editor_version: string;
  place: string;
  version_id: string | null;
  rendition_id: string | null;
  n: number;
  do_what: 'put' | 'remove' | 'none';
  path: string;
  sha: string | null;
  size: number;
  expect: string | null;
  decision: string;
  note: string;
  outcome: 'done' | 'conflict' | 'failed' | 'left' | null;
  message: string;
  before: string | null;
  prior: Prior | null;
  lines: string[] | null;
  /** of a list that its editor keeps itself: what we ask for, which is the base once it is written, and what the base was */
  list: { asked: unknown[]; before: unknown[] | null } | null;
  title: string | null;
  item_id: string | null;
  number: number | null;
  points: number | null;
  residual: Figures | null;
  /** of the version itself, where it is a table that was made of something */ table_error: Figures | null;
  /** it waits until the editor is quit, which would write over it */ held: boolean;
  /** it waits until the rollout is gone on with, or its rest is let go */ kept_back: boolean;
}
export interface Prior {
  version_id: string | null;
  rendition_id: string | null;
  sha: string;
  editor_id: string;
  editor_version: string;
  place: string;
}

const columns = `
  r.id, r.title, r.status, r.undoes, r.job_id, r.person_id, p.name as person, a.name as approver,
  r.created_at, r.confirmed_at, r.finished_at, r.first_station_id, f.name as first_station, r.released_at,
  r.paused_at, r.goes_on, r.starts_at
`;
const from = `
  from rollout r
    join person p on p.id = r.person_id
    left join person a on a.id = r.approved_by
    left join station f on f.id = r.first_station_id
`;

interface NewRollout {
  id: string;
  title: string;
  personId: string;
  undoes: string | null;
  status: 'planning' | 'confirmed';
  jobId?: string | null;
  approvedBy?: string | null;
}

export const insertRollout = (sql: Sql, rollout: NewRollout) =>
  sql.query(
    `
      insert into rollout (id, title, person_id, undoes, status, job_id, approved_by, confirmed_at)
      values ($1, $2, $3, $4, $5, $6, $7, case when $5 = 'confirmed' then now() end)
    `,
    [
      rollout.id,
      rollout.title,
      rollout.personId,
      rollout.undoes,
      rollout.status,
      rollout.jobId ?? null,
      rollout.approvedBy ?? null,
    ],
  );
export const rolloutById = async (sql: Sql, id: string, lock = false): Promise<RolloutRow | undefined> =>
  maybe<RolloutRow>(sql, `select ${columns} ${from} where r.id = $1 ${lock ? 'for update of r' : ''}`, [id]);
export const rollouts = async (
  sql: Sql,
  most: number,
): Promise<(RolloutRow & { steps: number; settled: number; bad: number; stations: number })[]> =>
  many<RolloutRow & { steps: number; settled: number; bad: number; stations: number }>(
    sql,
    `
      select
        ${columns}, coalesce(s.steps, 0) as steps, coalesce(s.settled, 0) as settled,
        coalesce(s.bad, 0) as bad, coalesce(s.stations, 0) as stations ${from}
        left join lateral (
          select
            count(*) filter (where do_what <> 'none')::int as steps, count(outcome)::int as settled,
            count(*) filter (where outcome in ('conflict', 'failed'))::int as bad,
            count(distinct station_id)::int as stations
          from rollout_step
          where rollout_id = r.id
        ) s on true
      where r.status <> 'dropped'
      order by r.created_at desc
      limit $1
    `,
    [most],
  );
export const setJob = (sql: Sql, id: string, jobId: string) =>
  sql.query('update rollout set job_id = $2 where id = $1', [id, jobId]);
export const setRollout = (sql: Sql, id: string, status: RolloutRow['status'], approvedBy: string | null = null) =>
  sql.query(
    `
      update rollout
      set
        status = $2, approved_by = coalesce($3, approved_by),
        confirmed_at = case when $2 = 'confirmed' then now() else confirmed_at end,
        finished_at = case when $2 in ('done', 'undone') then now() else finished_at end
      where id = $1
    `,
    [id, status, approvedBy],
  );

/** The newest rollout that takes this one back, if there is one. */
export const undoingOf = async (sql: Sql, id: string): Promise<string | null> =>
  (
    await maybe<{ id: string }>(
      sql,
      `
        select id
        from rollout
        where undoes = $1
        order by created_at desc
        limit 1
      `,
      [id],
    )
  )?.id ?? null;

/** A step before it is written down. */
export type NewStep = Omit<
  StepRow,
  | 'id'
  | 'station'
  | 'outcome'
  | 'message'
  | 'before'
  | 'title'
  | 'item_id'
  | 'number'
  | 'points'
  | 'residual'
  | 'table_error'
  | 'held'
  | 'kept_back'
>;

/** All steps of a rollout, in one statement. */
export const insertSteps = (sql: Sql, rolloutId: string, steps: readonly NewStep[]) =>
  sql.query(
    `
      insert into
        rollout_step (
          rollout_id, station_id, agent_station_id, editor_id, editor_version, place, version_id,
          rendition_id, n, do_what, path, sha256, size, expect, decision, note, prior, lines,
          list
        )
      select
        $1, s.station_id, s.agent_station_id, s.editor_id, s.editor_version, s.place, s.version_id,
        s.rendition_id, s.n, s.do_what, s.path, decode(s.sha, 'hex'), s.size, decode(s.expect, 'hex'),
        s.decision, s.note, s.prior, s.lines, s.list
      from
        jsonb_to_recordset($2::jsonb) as s (
          station_id uuid, agent_station_id uuid, editor_id text, editor_version text, place text,
          version_id uuid, rendition_id uuid, n int, do_what text, path text, sha text, size bigint,
          expect text, decision text, note text, prior jsonb, lines text[],
          list jsonb
        )
    `,
    [rolloutId, JSON.stringify(steps)],
  );
/**
 * Of a step: it goes into a bundle whose editor runs and writes it anew when it quits. It waits until then, and what
 * comes after it need not. The path is one of an entry as `isEntryPath` of core/sync/bundle.ts says.
 */
const held = `
  s.path ~ '\\.json#[A-Za-z][A-Za-z0-9_-]*/'
  and exists (
    select 1
    from station_editor se join editor e on e.id = se.editor_id and e.version = se.editor_version
    where se.station_id = s.station_id
      and se.editor_id = s.editor_id
      and se.editor_version = s.editor_version
      and se.running
      and coalesce((e.descriptor ->> 'writesBack')::boolean, false)
  )
`;

/** Of a step: its rollout is halted, begins later, or goes to another station first. */
const keptBack = `
  exists (
    select 1
    from rollout pace
    where pace.id = s.rollout_id
      and (
        pace.paused_at is not null
        or pace.starts_at > now()
        or (
          pace.first_station_id is not null
          and pace.released_at is null
          and s.station_id <> pace.first_station_id
        )
      )
  )
`;

const stepColumns = `
  s.id, s.station_id, st.name as station, s.agent_station_id, s.editor_id, s.editor_version, s.place,
  s.version_id, s.rendition_id, s.n, s.do_what, s.path, s.size, s.prior, s.lines, s.list,
  encode(s.sha256, 'hex') as sha, encode(s.expect, 'hex') as expect, encode(s.before, 'hex') as before,
  s.decision, s.note, s.outcome, s.message,
  i.title, i.id as item_id, v.number, r.points, r.residual, v.facts -> 'tableError' as table_error,
  s.outcome is null and s.do_what <> 'none' and ${held} as held,
  s.outcome is null and s.do_what <> 'none' and ${keptBack} as kept_back
`;
export const stepsOf = async (sql: Sql, rolloutId: string): Promise<StepRow[]> =>
  many<StepRow>(
    sql,
    `
      select ${stepColumns}
      from rollout_step s
        join station st on st.id = s.station_id
        left join version v on v.id = s.version_id
        left join item i on i.id = v.item_id
        left join rendition r on r.id = s.rendition_id
      where s.rollout_id = $1
      order by st.position, s.editor_id, s.n
    `,
    [rolloutId],
  );

/** The oldest confirmed rollout that still has something for this agent to do now. */
export const nextFor = async (sql: Sql, agentStation: string): Promise<string | null> =>
  (
    await maybe<{ id: string }>(
      sql,
      `
        select r.id
        from rollout r
        where r.status = 'confirmed'
          and exists (
            select 1
            from rollout_step s
            where s.rollout_id = r.id
              and s.agent_station_id = $1
              and s.outcome is null
              and s.do_what <> 'none'
              and not (${held})
              and not (${keptBack})
          )
        order by r.confirmed_at, r.id
        limit 1
      `,
      [agentStation],
    )
  )?.id ?? null;
export const settleStep = (sql: Sql, stepId: number, outcome: string, message: string, before: string | null) =>
  sql.query(
    `
      update rollout_step
      set outcome = $2, message = $3, before = decode($4, 'hex'), settled_at = now()
      where id = $1
    `,
    [stepId, outcome, message, before],
  );
export const setPaused = (sql: Sql, id: string, paused: boolean) =>
  sql.query('update rollout set paused_at = case when $2 then now() end where id = $1', [id, paused]);
export const setFirst = (sql: Sql, id: string, stationId: string, goesOn: boolean) =>
  sql.query('update rollout set first_station_id = $2, goes_on = $3 where id = $1', [id, stationId, goesOn]);
/** @param at null: at once */
export const setStart = (sql: Sql, id: string, at: Date | null) =>
  sql.query('update rollout set starts_at = $2 where id = $1', [id, at]);
/** Rollouts that wait for their first station, and then go on by themselves. */
export const toBeVerified = async (sql: Sql): Promise<string[]> =>
  (
    await many<{ id: string }>(sql, {
      name: 'rollouts to be verified',
      text: `
        select id
        from rollout
        where goes_on and status = 'confirmed' and released_at is null and paused_at is null
      `,
    })
  ).map(({ id }) => id);
export const release = (sql: Sql, id: string) =>
  sql.query('update rollout set released_at = now() where id = $1', [id]);

/** Settles what waits, at a station or at all, as left out by a person; answers how many steps that were. */
export const leaveSteps = async (
  sql: Sql,
  rolloutId: string,
  stationId: string | null,
  steps: readonly number[] | null,
  by: string,
): Promise<number> =>
  (
    await sql.query(
      `
        update rollout_step
        set outcome = 'left', message = $4, settled_at = now()
        where rollout_id = $1
          and ($2::uuid is null or station_id = $2)
          and ($3::bigint[] is null or id = any ($3))
          and outcome is null
          and do_what <> 'none'
      `,
      [rolloutId, stationId, steps, `left out by ${by}`],
    )
  ).rowCount ?? 0;
/** A plan that is worked out anew begins with none. */
export const clearSteps = (sql: Sql, rolloutId: string) =>
  sql.query('delete from rollout_step where rollout_id = $1', [rolloutId]);
/** Where something else lies at a station than when the plan was made. */
export const changedSince = (sql: Sql, rolloutId: string): Promise<{ station: string; path: string }[]> =>
  many(
    sql,
    `
      select st.name as station, s.path
      from rollout_step s
        join station st on st.id = s.station_id
        join station agent on agent.id = s.agent_station_id
        left join inventory f on f.station_id = s.agent_station_id and f.path = s.path
      where s.rollout_id = $1
        and s.do_what <> 'none'
        and f.sha256 is distinct from s.expect
        -- a station that is kept by hand tells of nothing
        and (agent.token_sha256 is not null or agent.last_report_at is not null)
      order by st.position, s.n
    `,
    [rolloutId],
  );
/** What another confirmed rollout still has to write where this one would. */
export const takenByOthers = (sql: Sql, rolloutId: string): Promise<{ station: string; path: string }[]> =>
  many(
    sql,
    `
      select distinct st.name as station, s.path
      from rollout_step s
        join station st on st.id = s.station_id
        join rollout_step o on o.agent_station_id = s.agent_station_id and o.path = s.path
        join rollout r on r.id = o.rollout_id
      where s.rollout_id = $1
        and s.do_what <> 'none'
        and o.rollout_id <> $1
        and o.outcome is null
        and o.do_what <> 'none'
        and r.status = 'confirmed'
    `,
    [rolloutId],
  );
export const pendingSteps = async (sql: Sql, rolloutId: string): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      `
        select count(*)::int as n
        from rollout_step
        where rollout_id = $1
          and outcome is null
          and do_what <> 'none'
      `,
      [rolloutId],
    )
  ).n;
export const mayFetch = async (sql: Sql, agentStation: string, sha: string): Promise<boolean> =>
  ((
    await sql.query(
      `
        select 1
        from rollout_step s join rollout r on r.id = s.rollout_id
        where s.agent_station_id = $1
          and s.sha256 = decode($2, 'hex')
          and s.do_what = 'put'
          and r.status = 'confirmed'
        union all
        select 1
        from sighting g
        where g.station_id = $1
          and g.picture_sha256 = decode($2, 'hex')
          and g.state = 'asked'
        limit 1
      `,
      [agentStation, sha],
    )
  ).rowCount ?? 0) > 0;
