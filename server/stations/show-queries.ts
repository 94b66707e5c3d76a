/** SQL of paths that somebody wants to see in the file manager of a workstation. */
import type { Sql } from '../db/pool';
import { maybe } from '../db/query';

/** Whoever asked has gone on by then. */
const MINUTES = 2;

/** What was asked for before gives way. */
export const askToShow = (sql: Sql, one: { stationId: string; id: string; path: string; personId: string }) =>
  sql.query(
    `
      insert into shown_there (station_id, id, path, asked_by)
      values ($1, $2, $3, $4)
      on conflict (station_id) do update
      set
        id = excluded.id, path = excluded.path, asked_by = excluded.asked_by,
        asked_at = excluded.asked_at, told_at = null, fault = ''
    `,
    [one.stationId, one.id, one.path, one.personId],
  );

export const askedToShow = (sql: Sql, stationId: string): Promise<{ id: string; path: string } | undefined> =>
  maybe<{ id: string; path: string }>(sql, {
    name: 'asked to show',
    text: `
      select id, path
      from shown_there
      where station_id = $1 and told_at is null and asked_at > now() - make_interval(mins => ${MINUTES})
    `,
    values: [stationId],
  });

/** The path, where it was still asked for. */
export const noteShown = async (sql: Sql, stationId: string, id: string, fault: string): Promise<string | null> =>
  (
    await maybe<{ path: string }>(
      sql,
      `
        update shown_there
        set told_at = clock_timestamp(), fault = $3
        where station_id = $1 and id = $2 and told_at is null
        returning path
      `,
      [stationId, id, fault],
    )
  )?.path ?? null;

export const whatWasShown = (
  sql: Sql,
  stationId: string,
): Promise<{ path: string; fault: string; told: boolean } | undefined> =>
  maybe(sql, 'select path, fault, told_at is not null as told from shown_there where station_id = $1', [stationId]);

/** Whether the agent has told of a file there, or of an entry of a bundle. */
export const liesThere = async (sql: Sql, stationId: string, path: string): Promise<boolean> =>
  ((await sql.query('select from inventory where station_id = $1 and path = $2', [stationId, path])).rowCount ?? 0) > 0;
