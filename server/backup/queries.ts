/** What a restore asks of the database server, and of a database that it has just filled. */
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface LibrarySize {
  items: number;
  versions: number;
  contents: number;
}

/** Ends every other connection to these databases. */
export const sendOff = (sql: Sql, databases: readonly string[]) =>
  sql.query(
    `
      select pg_terminate_backend(pid)
      from pg_stat_activity
      where datname = any($1) and pid <> pg_backend_pid()
    `,
    [databases],
  );

export const databasesLike = async (sql: Sql, beginning: string): Promise<string[]> => {
  const rows = await many<{ datname: string }>(
    sql,
    `
      select datname
      from pg_database
      where starts_with(datname, $1)
    `,
    [beginning],
  );
  return rows.map((row) => row.datname);
};

/** Whether the database holds a library of this application. */
export const hasLibrary = async (sql: Sql): Promise<boolean> =>
  (
    await one<{ has: boolean }>(
      sql,
      `
        select count(*) = 5 as has
        from information_schema.tables
        where table_schema = 'public'
          and table_name in ('item', 'version', 'blob', 'blob_chunk', 'schema_migration')
      `,
    )
  ).has;

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
          else b.size <> (
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
