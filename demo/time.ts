/** The demo's past: what is loaded with it happened weeks ago, as a studio's work does. */
import { pool } from '@/server/db/pool';
import { many, maybe } from '@/server/db/query';

/** Tables whose times are not of the studio's work: what waits, who is signed in. */
const OUTSIDE = ['session', 'sign_in_failure', 'job', 'upload', 'migration'];

interface Column {
  table: string;
  column: string;
}

const timesOfTheStudio = (): Promise<Column[]> =>
  many<Column>(
    pool(),
    `
      select c.table_name as "table", c.column_name as "column"
      from information_schema.columns c
      join information_schema.tables t using (table_schema, table_name)
      where c.table_schema = current_schema()
        and t.table_type = 'BASE TABLE'
        and c.data_type = 'timestamp with time zone'
        and c.table_name <> all ($1::text[])
        -- what ends is still to come
        and c.column_name not like '%expires%'
      -- an item says when it was touched: others' times are moved before it is
      order by c.table_name = 'item', c.table_name, c.column_name
    `,
    [OUTSIDE],
  );

/**
 * Does some work as though it were done so many days ago: every time that it left behind is moved back. What it changed of
 * older things is found by its time too, so work of one day comes after that of the days before.
 */
export async function daysAgo<T>(days: number, work: () => Promise<T>): Promise<T> {
  const { now } = (await maybe<{ now: string }>(pool(), 'select clock_timestamp()::text as now'))!;
  const done = await work();
  for (const { table, column } of await timesOfTheStudio())
    await pool().query(
      `update "${table}" set "${column}" = "${column}" - make_interval(days => $1) where "${column}" >= $2::timestamptz`,
      [days, now],
    );
  return done;
}
