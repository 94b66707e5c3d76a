import type { Sql } from '../db/pool';
import { one } from '../db/query';

export const tolerance = async (sql: Sql): Promise<{ p95: number; max: number }> =>
  one<{ p95: number; max: number }>(sql, 'select copy_p95::float8 as p95, copy_max::float8 as max from studio');
export const setTolerance = (sql: Sql, p95: number, max: number) =>
  sql.query('update studio set copy_p95 = $1, copy_max = $2', [p95, max]);

/** How much waits to be settled. */
export const waiting = (sql: Sql): Promise<{ arrivals: number; rollouts: number }> =>
  one<{ arrivals: number; rollouts: number }>(
    sql,
    `
      select
        (
          select count(*)::int
          from arrival
          where status in ('ready', 'failed')
        ) as arrivals,
        (
          select count(*)::int
          from rollout
          where status in ('planned', 'confirmed')
        ) as rollouts
    `,
  );
