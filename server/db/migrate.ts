/** Applies db/migrations/NNNN_name.sql in order, each in its own transaction, under one advisory lock; then the queue's own tables. */
import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { runMigrations } from 'graphile-worker';
import pg from 'pg';
import * as q from './queries';

export async function migrate(connectionString: string, folder: string): Promise<string[]> {
  const client = new pg.Client({ connectionString });
  const done: string[] = [];
  await client.connect();
  try {
    await q.lockMigrations(client);
    await q.makeMigrationTable(client);
    const had = new Map((await q.appliedMigrations(client)).map((migration) => [migration.name, migration.sha256]));
    for (const file of (await readdir(folder)).filter((f) => /^\d{4}_[\w-]+\.sql$/.test(f)).sort()) {
      const sql = await readFile(join(folder, file), 'utf8');
      const sha = createHash('sha256').update(sql).digest('hex');
      const old = had.get(file);
      if (old === sha) continue;
      if (old !== undefined) throw new Error(`migration ${file} was changed after it was applied`);
      await client.query('begin');
      try {
        await client.query(sql);
        await q.noteMigration(client, file, sha);
        await client.query('commit');
      } catch (error) {
        await client.query('rollback');
        throw new Error(`migration ${file} failed: ${(error as Error).message}`, { cause: error });
      }
      done.push(file);
    }
    await runMigrations({ connectionString });
  } finally {
    await client.end();
  }
  return done;
}
