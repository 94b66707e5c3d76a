/** How the database is told to search. */
import type { Sql } from '../../db/pool';

/** For the rest of the transaction: search through indexes alone. With a limit, the planner else hopes for early hits and reads the whole table where there are none. */
export const byIndexes = (sql: Sql) =>
  sql.query(`select set_config('enable_seqscan', 'off', true), set_config('jit', 'off', true)`);

/** Says how alike a title has to be, for the rest of the transaction. */
export const alikeness = (sql: Sql, least: number) =>
  sql.query(`select set_config('pg_trgm.word_similarity_threshold', $1, true)`, [String(least)]);
