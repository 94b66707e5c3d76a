/** What a backup and a restore ask of the database server; names of tables and columns come from its own catalogue alone. */
import pg from 'pg';
import { from as copyFrom, to as copyTo, type CopyStreamQuery, type CopyToStreamQuery } from 'pg-copy-streams';
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface LibrarySize {
  items: number;
  versions: number;
  contents: number;
}
export interface Table {
  name: string;
  columns: string[];
}

const quoted = (name: string): string => pg.escapeIdentifier(name);
const listed = (table: Table): string => `${quoted(table.name)} (${table.columns.map(quoted).join(', ')})`;

// --- what a database holds

/** One moment, for as long as the connection's transaction lasts. */
export const beginSnapshot = (sql: Sql) => sql.query('begin isolation level repeatable read, read only');

/** Our tables with their columns as they lie, without those that the database works out by itself. */
export const tables = (sql: Sql): Promise<Table[]> =>
  many<Table>(
    sql,
    `
      select c.relname as name, array_agg(a.attname::text order by a.attnum) as columns
      from pg_class c join pg_attribute a on a.attrelid = c.oid
      where c.relnamespace = 'public'::regnamespace
        and c.relkind = 'r'
        and c.relname <> 'schema_migration'
        and a.attnum > 0
        and not a.attisdropped
        and a.attgenerated = ''
      group by c.relname
      order by c.relname
    `,
  );

/** Where each counter stands; 0 for one that has counted nothing yet. */
export const sequences = (sql: Sql): Promise<{ name: string; last: number }[]> =>
  many<{ name: string; last: number }>(
    sql,
    `
      select sequencename as name, coalesce(last_value, 0)::bigint as last
      from pg_sequences
      where schemaname = 'public'
      order by sequencename
    `,
  );

/** The rows of a table as binary COPY. */
export const rowsOut = (client: pg.Client, table: Table): CopyToStreamQuery =>
  client.query(copyTo(`copy ${listed(table)} to stdout (format binary)`));

// --- rows into a database that has just been made

export const rowsIn = (client: pg.Client, table: Table): CopyStreamQuery =>
  client.query(copyFrom(`copy ${listed(table)} from stdin (format binary)`));

export interface ForeignKey {
  table: string;
  name: string;
  definition: string;
}

export const foreignKeys = (sql: Sql): Promise<ForeignKey[]> =>
  many<ForeignKey>(
    sql,
    `
      select conrelid::regclass::text as table, conname as name, pg_get_constraintdef(oid) as definition
      from pg_constraint
      where contype = 'f' and connamespace = 'public'::regnamespace
      order by 1, 2
    `,
  );
export const dropForeignKey = (sql: Sql, { table, name }: ForeignKey) =>
  sql.query(`alter table ${table} drop constraint ${quoted(name)}`);
/** Looks through all rows: one that refers to nothing is refused. */
export const addForeignKey = (sql: Sql, { table, name, definition }: ForeignKey) =>
  sql.query(`alter table ${table} add constraint ${quoted(name)} ${definition}`);

/** What migrations put into tables is in the backup too, as people have changed it since. */
export const emptyTables = (sql: Sql, all: readonly Table[]) =>
  sql.query(`truncate ${all.map((table) => quoted(table.name)).join(', ')}`);

/** Whether what we do by triggers at each change is done; rows that come as they were need none of it. */
export const setTriggers = (sql: Sql, table: Table, on: boolean) =>
  sql.query(`alter table ${quoted(table.name)} ${on ? 'enable' : 'disable'} trigger user`);

export const setSequence = (sql: Sql, name: string, last: number) =>
  sql.query('select setval(format($1, $2::text)::regclass, $3, $4)', ['public.%I', name, Math.max(1, last), last > 0]);

/**
 * What belongs to the server that the rows come from: who is signed in, the numbers of its transactions, which readers of
 * the log compare with, and the queue, in which what waited or ran stands anew.
 */
export async function settleRows(sql: Sql): Promise<void> {
  await sql.query('delete from session');
  await sql.query('delete from person_link');
  await sql.query(`update event set xid = '0'::xid8`);
  await sql.query(
    `
      select
        graphile_worker.add_job (
          'etagere', json_build_object('job', id::text), max_attempts := 3, job_key := id::text
        )
      from job
      where status in ('queued', 'running')
    `,
  );
}

// --- databases

export const makeDatabase = (sql: Sql, name: string) => sql.query(`create database ${quoted(name)}`);
const NOT_PERMITTED = '42501';

/**
 * Drops a database, and sends off whoever is in it. PostgreSQL's own cleaner may be at work there, which is not ours to send
 * off; for that one a drop without force waits.
 */
export async function dropDatabase(sql: Sql, name: string): Promise<void> {
  try {
    await sql.query(`drop database ${quoted(name)} with (force)`);
  } catch (error) {
    if ((error as { code?: string }).code !== NOT_PERMITTED) throw error;
    await sendOff(sql, [name]);
    await sql.query(`drop database ${quoted(name)}`);
  }
}
/** Part of the transaction that it stands in: of two renames both are done or none. */
export const renameDatabase = (sql: Sql, name: string, to: string) =>
  sql.query(`alter database ${quoted(name)} rename to ${quoted(to)}`);

/** Ends every other connection to these databases that is of the same role. */
export const sendOff = (sql: Sql, databases: readonly string[]) =>
  sql.query(
    `
      select pg_terminate_backend(pid)
      from pg_stat_activity
      where datname = any($1)
        and pid <> pg_backend_pid()
        and usename = current_user
    `,
    [databases],
  );

export const databasesLike = (sql: Sql, beginning: string): Promise<{ name: string; bytes: number }[]> =>
  many<{ name: string; bytes: number }>(
    sql,
    `
      select datname as name, pg_database_size(oid) as bytes
      from pg_database
      where starts_with(datname, $1)
      order by datname
    `,
    [beginning],
  );

// --- whether what was restored is whole

/** The hash of a content that is not what its hash says (those above 64 MB are told by their size), or null. */
export const damagedContent = async (sql: Sql): Promise<string | null> =>
  (
    await maybe<{ sha: string }>(
      sql,
      `
        select encode(b.sha256, 'hex') as sha
        from blob b
        where case
          when b.size <= 67108864 then b.sha256 <> sha256(
            coalesce(
              (
                select string_agg(data, '' order by n)
                from blob_chunk x
                where x.sha256 = b.sha256
              ),
              ''
            )
          )
          else b.size is distinct from (
            select sum(length(data))
            from blob_chunk x
            where x.sha256 = b.sha256
          )
          end
        limit 1
      `,
    )
  )?.sha ?? null;

export const librarySize = (sql: Sql): Promise<LibrarySize> =>
  one<LibrarySize>(
    sql,
    `
      select
        (select count(*)::int from item) as items, (select count(*)::int from version) as versions,
        (select count(*)::int from blob) as contents
    `,
  );
