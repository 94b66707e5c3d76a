/** The cluster of our own: one that held a studio is never made anew, whatever is missing beside it. */
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';

interface Cluster {
  url: string;
  administrator(database: string): string;
  psql(database: string, statement: string): string;
}
interface ClusterTools {
  startCluster(options: { fast: boolean }): Promise<Cluster>;
  stopCluster(): void;
  adopt(name: string): Promise<void>;
}

const data = mkdtempSync(join(tmpdir(), 'etagere-cluster-'));
const secret = join(data, 'database.json');
let tools: ClusterTools;
const start = () => tools.startCluster({ fast: true });

async function asked(url: string, statement: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<Record<string, unknown>>(statement);
  await client.end();
  return rows;
}

beforeAll(async () => {
  chmodSync(data, 0o755);
  vi.stubEnv('ETAGERE_DATA', data);
  tools = (await import(join(process.cwd(), 'tools/cluster.mjs'))) as ClusterTools;
}, 60_000);
afterAll(() => {
  tools.stopCluster();
  vi.unstubAllEnvs();
  rmSync(data, { recursive: true, force: true });
});

test('everyday work is done by a role that owns the studio and may do nothing else', async () => {
  const { url } = await start();
  await asked(url, 'create table kept as select 7 as n');
  expect(await asked(url, 'select rolsuper, rolcreaterole from pg_roles where rolname = current_user')).toEqual([
    { rolsuper: false, rolcreaterole: false },
  ]);
}, 60_000);

test('a studio whose tables the administrator still owns is handed over', async () => {
  const { url, psql } = await start();
  psql(
    'etagere',
    'create table old (id int generated always as identity, name text); create view older as select * from old',
  );
  psql('etagere', `create function told() returns int language sql as 'select 1'; create type mood as enum ('well')`);
  psql('postgres', 'alter database etagere owner to etagere');
  await start();
  expect(
    await asked(
      url,
      `
        select distinct relowner::regrole::text as owner
        from pg_class
        where relname in ('old', 'older', 'old_id_seq', 'kept')
        union
        select proowner::regrole::text
        from pg_proc
        where proname = 'told'
        union
        select typowner::regrole::text
        from pg_type
        where typname = 'mood'
      `,
    ),
  ).toEqual([{ owner: 'etagere_library' }]);
}, 60_000);

test('a database that is gone is not made anew; one that a restore kept can take its name', async () => {
  const { psql, url } = await start();
  psql('postgres', 'alter database etagere rename to etagere_before_1a2b3c4d');
  await expect(start()).rejects.toThrow(/etagere is gone.*etagere_before_1a2b3c4d.*bin\/db adopt/);
  await expect(tools.adopt('template1')).rejects.toThrow('was not kept by a restore');
  await tools.adopt('etagere_before_1a2b3c4d');
  await start();
  expect(await asked(url, 'select n from kept')).toEqual([{ n: 7 }]);
}, 60_000);

test('what a killed restore left half made goes; what was put aside stays', async () => {
  const { psql } = await start();
  psql('postgres', 'create database etagere_restoring_1');
  psql('postgres', 'create database etagere_before_1');
  await start();
  expect(psql('postgres', `select datname from pg_database where starts_with(datname, 'etagere_')`)).toBe(
    'etagere_before_1',
  );
}, 60_000);

test('without the file of its password the cluster is kept, and gets another', async () => {
  tools.stopCluster();
  const before = readFileSync(secret, 'utf8');
  rmSync(secret);
  const { url } = await start();
  expect(readFileSync(secret, 'utf8')).not.toBe(before);
  expect(await asked(url, 'select n from kept')).toEqual([{ n: 7 }]);
}, 90_000);

test('a folder that is not whole any more is left as it is', async () => {
  tools.stopCluster();
  const broken = mkdtempSync(join(tmpdir(), 'etagere-broken-'));
  chmodSync(broken, 0o755);
  vi.stubEnv('ETAGERE_DATA', broken);
  mkdirSync(join(broken, 'postgres/data'), { recursive: true });
  writeFileSync(join(broken, 'postgres/data/something'), 'of a studio');
  await expect(start()).rejects.toThrow('there was a studio');
  expect(existsSync(join(broken, 'postgres/data/something'))).toBe(true);
  vi.stubEnv('ETAGERE_DATA', data);
  rmSync(broken, { recursive: true });
}, 60_000);
