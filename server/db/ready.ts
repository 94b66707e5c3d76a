/** Whether the database can be worked with: it is there, and has every table that this version of the program needs. */
import { join } from 'node:path';
import { appliedMigrations } from './queries';
import { migrationsIn } from './migrate';
import { pool } from './pool';

const FOLDER = join(process.cwd(), 'db', 'migrations');

/** Null where it can, else why not, in words. */
export async function isReady(folder = FOLDER): Promise<string | null> {
  const applied = new Set((await appliedMigrations(pool())).map(({ name }) => name));
  const missing = (await migrationsIn(folder)).filter(({ name }) => !applied.has(name));
  return missing.length ? `the database lacks ${missing.map(({ name }) => name).join(', ')}: etagere db migrate` : null;
}
