import type { Sql } from '../db/pool';
import { one } from '../db/query';

export const tolerance = async (sql: Sql): Promise<{ p95: number; max: number }> =>
  one<{ p95: number; max: number }>(sql, 'select copy_p95::float8 as p95, copy_max::float8 as max from studio');
export const setTolerance = (sql: Sql, p95: number, max: number) =>
  sql.query('update studio set copy_p95 = $1, copy_max = $2', [p95, max]);
