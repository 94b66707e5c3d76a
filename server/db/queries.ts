/** Which migrations have been applied. */
import type { Sql } from './pool';
import { many } from './query';

/** Until the connection ends; whoever else migrates waits. */
export const lockMigrations = (sql: Sql) => sql.query(`select pg_advisory_lock(hashtext('schema_migration'))`);

export const makeMigrationTable = (sql: Sql) =>
  sql.query(
    `
      create table if not exists schema_migration (
        name text primary key, sha256 text not null, applied_at timestamptz not null default now()
      )
    `,
  );

export const appliedMigrations = (sql: Sql): Promise<{ name: string; sha256: string }[]> =>
  many<{ name: string; sha256: string }>(sql, 'select name, sha256 from schema_migration order by name');

export const noteMigration = (sql: Sql, name: string, sha256: string) =>
  sql.query('insert into schema_migration (name, sha256) values ($1, $2)', [name, sha256]);
