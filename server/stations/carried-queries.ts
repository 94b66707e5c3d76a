/** SQL of files that are carried to stations by hand. */
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface CarriedRow {
  id: string;
  operations: number;
  made_at: Date;
  made_by: string | null;
  /** the number of the answer that was taken last; 0 before the first */ answer: number;
  answered_at: Date | null;
}

export const insertCarried = (
  sql: Sql,
  one: { id: string; stationId: string; rolloutId: string | null; operations: number; madeBy: string; enrols: boolean },
) =>
  sql.query(
    `
      insert into carried (id, station_id, rollout_id, operations, made_by, enrols)
      values ($1, $2, $3, $4, $5, $6)
    `,
    [one.id, one.stationId, one.rolloutId, one.operations, one.madeBy, one.enrols],
  );

/** The newest first. */
export const carriedTo = (sql: Sql, stationId: string, most: number): Promise<CarriedRow[]> =>
  many<CarriedRow>(
    sql,
    `
      select c.id, c.operations, c.made_at, p.name as made_by, c.answer, c.answered_at
      from carried c left join person p on p.id = c.made_by
      where c.station_id = $1
      order by c.made_at desc
      limit $2
    `,
    [stationId, most],
  );

export interface CarriedState {
  answer: number;
  /** one that was made later was answered already */ overtaken: boolean;
  /** the agent has reported by itself since the file was made */ reported_since: boolean;
}
export const carriedState = (sql: Sql, id: string, stationId: string): Promise<CarriedState | undefined> =>
  maybe<CarriedState>(
    sql,
    `
      select
        c.answer,
        exists (
          select 1
          from carried later
          where later.station_id = c.station_id and later.made_at > c.made_at and later.answer > 0
        ) as overtaken,
        coalesce(s.last_report_at > c.made_at, false) and not exists (
          select 1
          from carried other
          where other.station_id = c.station_id and other.answered_at >= s.last_report_at
        ) as reported_since
      from carried c join station s on s.id = c.station_id
      where c.id = $1 and c.station_id = $2
    `,
    [id, stationId],
  );

/** Whether the answer is a newer one than was taken last. */
export async function answerCarried(sql: Sql, id: string, number: number, personId: string): Promise<boolean> {
  const done = await sql.query(
    `
      update carried
      set answer = $2, answered_at = clock_timestamp(), answered_by = $3
      where id = $1 and answer < $2
    `,
    [id, number, personId],
  );
  return done.rowCount === 1;
}

/** Gives a station its token; nothing where an agent has one, of whom something was heard since. */
export async function giveToken(sql: Sql, id: string, token: Buffer, agentVersion: string): Promise<boolean> {
  const done = await sql.query(
    `
      update station
      set
        token_sha256 = $2, enrol_code_sha256 = null, enrol_expires_at = null, agent_version = $3,
        digest = '', agent_runs = '[]', doubled = null
      where id = $1
        and (
          token_sha256 is null
          or exists (
            select 1
            from (
              select enrols, answer, made_at
              from carried
              where station_id = $1
              order by made_at desc
              limit 1
            ) newest
            where newest.enrols
              and newest.answer = 0
              and (station.last_report_at is null or station.last_report_at < newest.made_at)
          )
        )
    `,
    [id, token, agentVersion],
  );
  return done.rowCount === 1;
}

/** The key of what its agent seals: the token's SHA-256. */
export const tokenHash = async (sql: Sql, id: string): Promise<Buffer | null> =>
  (await maybe<{ token_sha256: Buffer | null }>(sql, 'select token_sha256 from station where id = $1', [id]))
    ?.token_sha256 ?? null;
