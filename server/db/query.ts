/** The three ways in which a statement is asked: for exactly one row, for one or none, for any number. */
import { createHash } from 'node:crypto';
import type { QueryConfig, QueryResultRow } from 'pg';
import type { Sql } from './pool';

/** All rows that the statement answers with. */
export async function many<Row extends QueryResultRow>(
  sql: Sql,
  statement: string | QueryConfig,
  values?: unknown[],
): Promise<Row[]> {
  const result = await sql.query<Row>(statement, values);
  return result.rows;
}

/** The first row, or undefined where there is none. */
export async function maybe<Row extends QueryResultRow>(
  sql: Sql,
  statement: string | QueryConfig,
  values?: unknown[],
): Promise<Row | undefined> {
  const rows = await many<Row>(sql, statement, values);
  return rows[0];
}

/** The row that a statement always answers with, such as a count or what was inserted. None is a bug, and throws. */
export async function one<Row extends QueryResultRow>(
  sql: Sql,
  statement: string | QueryConfig,
  values?: unknown[],
): Promise<Row> {
  const row = await maybe<Row>(sql, statement, values);
  if (!row) {
    const text = typeof statement === 'string' ? statement : statement.text;
    throw new Error(`a statement that always answers with a row did not: ${text.trim().slice(0, 120)}`);
  }
  return row;
}

/**
 * A name for a statement whose text is put together, so that each of its texts is planned once a connection. For those
 * that come in few shapes, with what people typed among the values: a connection keeps all that it has planned.
 */
export const nameOf = (what: string, text: string): string =>
  `${what} ${createHash('sha1').update(text).digest('hex').slice(0, 16)}`;
