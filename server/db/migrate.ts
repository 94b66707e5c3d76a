/** Applies db/migrations/NNNN_name.sql in order, each in its own transaction, under one advisory lock; then the queue's own tables. */
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { runMigrations } from 'graphile-worker';
import pg from 'pg';
import * as q from './queries';

interface Migration {
  /** of its file */ name: string;
  sha256: string;
  sql: string;
}

/** The migrations of a folder in the order in which they are applied. */
export async function migrationsIn(folder: string): Promise<Migration[]> {
  const files = (await readdir(folder)).filter((file) => /^\d{4}_[\w-]+\.sql$/.test(file)).sort();
  return Promise.all(
    files.map(async (name) => {
      const sql = await readFile(join(folder, name), 'utf8');
      return { name, sql, sha256: createHash('sha256').update(sql).digest('hex') };
    }),
  );
}

async function apply(client: pg.Client, { name, sql, sha256 }: Migration): Promise<void> {
  await client.query('begin');
  try {
    await client.query(sql);
    await q.noteMigration(client, name, sha256);
    await client.query('commit');
  } catch (error) {
    await client.query('rollback');
    throw new Error(`migration ${name} failed: ${(error as Error).message}`, { cause: error });
  }
}

/** The tables of the job queue, by its own migrations. A database that is dropped while its connection closes is no fault. */
async function migrateQueue(connectionString: string): Promise<void> {
  const pgPool = new pg.Pool({ connectionString, max: 1 });
  pgPool.on('error', () => {});
  try {
    await runMigrations({ pgPool });
  } finally {
    await pgPool.end();
  }
}

/**
 * @param last the name of the last one that is applied; all of them where none is given
 * @returns the names of those that were applied now
 */
export async function migrate(connectionString: string, folder: string, last?: string): Promise<string[]> {
  const client = new pg.Client({ connectionString });
  const done: string[] = [];
  await client.connect();
  try {
    await q.lockMigrations(client);
    await q.makeMigrationTable(client);
    const had = new Map((await q.appliedMigrations(client)).map((migration) => [migration.name, migration.sha256]));
    for (const migration of await migrationsIn(folder)) {
      if (last !== undefined && migration.name > last) break;
      const old = had.get(migration.name);
      if (old === migration.sha256) continue;
      if (old !== undefined) throw new Error(`migration ${migration.name} was changed after it was applied`);
      await apply(client, migration);
      done.push(migration.name);
    }
    await migrateQueue(connectionString);
  } finally {
    await client.end();
  }
  return done;
}
