/** The document of the tables is the tables. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { must } from '@/core/must';
import { withDatabase } from './testing/database';

withDatabase();

test('docs/schema.md is what `bin/db schema` draws', async () => {
  const { schema } = (await import(join(process.cwd(), 'tools/schema.mjs'))) as {
    schema: (psql: (sql: string) => string) => string;
  };
  const address = must(process.env.DATABASE_URL);
  const psql = (sql: string) => execFileSync('psql', [address, '-X', '-Atc', sql], { encoding: 'utf8' });
  expect(schema(psql)).toBe(readFileSync('docs/schema.md', 'utf8'));
});
