import { must } from '@/core/must';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { once } from 'node:events';
import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { buffer } from 'node:stream/consumers';
import { seeded } from '@/core/random';
import { tries } from '@/core/tries';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { closePool, databaseUrl, pool, transaction } from '../db/pool';
import type { Problem } from '@/core/problem';
import { editItem } from '../items/edit';
import { createItem } from '../items/create';
import { addShelf } from '../shelves/service';
import { actorOf } from '../people/roles';
import { addJob } from '../jobs/service';
import { backup, dropKept, keptDatabases, restore } from './service';
import type { Manifest } from './form';
import { openBackup } from './read';
import { many, one } from '../db/query';

withDatabase();
const folder = mkdtempSync(join(tmpdir(), 'etagere-backup-'));
const file = join(folder, 'a.backup');
const migrations = join(process.cwd(), 'db', 'migrations');
let shelf = '';
const make = (title: string) =>
  transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind: 'look',
      title,
      headings: ['A'],
      shelfId: shelf,
      supplier: '',
      sha: await putBlob(
        sql,
        Buffer.concat([
          Buffer.from(cubeOf(must(houseLooks[1]), 5)),
          Buffer.alloc(title === 'Large' ? 3 << 20 : 0, title),
        ]),
      ),
      fileName: `${title}.cube`,
      format: 'cube',
      facts: { kind: '3d', size: 5 },
      selvedge: null,
      notes: '',
      content: null,
      fingerprint: null,
    }),
  );
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Kept' });
  for (const t of ['One', 'Two', 'Large']) await make(t);
});
afterAll(async () => {
  const name = new URL(databaseUrl()).pathname.slice(1);
  const url = new URL(databaseUrl());
  url.pathname = '/postgres';
  const client = new pg.Client({ connectionString: url.toString() });
  await client.connect();
  for (const row of await many<{ datname: string }>(
    client,
    'select datname from pg_database where starts_with(datname, $1)',
    [`${name}_`],
  ))
    await client.query(`drop database "${row.datname}" with (force)`);
  await client.end();
  rmSync(folder, { recursive: true, force: true });
});

/** Every row of every table of ours as text, and so every chunk of every content. */
async function everything(): Promise<Record<string, string[]>> {
  const out: Record<string, string[]> = {};
  const tables = await many<{ t: string }>(
    pool(),
    `
      select format('%I.%I', table_schema, table_name) as t
      from information_schema.tables
      where table_type = 'BASE TABLE'
        and table_schema = 'public'
        and table_name not in ('session', 'event', 'schema_migration')
      order by 1
    `,
  );
  for (const { t: text } of tables)
    out[text] = (
      await many<{ r: string }>(pool(), `select md5(x::text) || length(x::text) as r from ${text} x order by 1`)
    ).map((r) => r.r);
  return out;
}

test('a backup restores every row and every chunk, and what came after it is gone', async () => {
  const before = await everything();
  expect(must(before['public.blob_chunk']).length).toBeGreaterThanOrEqual(5);
  const made = await backup(file);
  expect(made.bytes).toBeGreaterThan(3 << 20);
  await make('After');
  expect(await everything()).not.toEqual(before);
  const restored = await restore(file, migrations);
  expect(restored).toMatchObject({ items: 3, versions: 3 });
  expect(await everything()).toEqual(before);
  // and it lives: triggers, keys and sequences came along
  const { itemId } = await make('Later');
  await editItem(people.librarian, itemId, { revision: 1, base: {}, mine: { tags: ['x'] } });
  expect(await many(pool(), `select n from facet_count where facet = 'tag:x'`)).toEqual([{ n: 1 }]);
});

test('a backup that is made while people work is of one moment', async () => {
  let stop = false;
  // each round moves two rows in one transaction; a backup of two moments would see one of them alone
  const work = (async () => {
    for (let i = 0; !stop; i++)
      await transaction(async (sql) => {
        await sql.query('update shelf set note = $1', [String(i)]);
        await sql.query('update item set notes = $1', [String(i)]);
      });
  })();
  await backup(file);
  stop = true;
  await work;
  await restore(file, migrations);
  const row = await one<{ a: string[]; b: string[] }>(
    pool(),
    `
      select
        array(select distinct note from shelf) as a, array(select distinct notes from item) as b
    `,
  );
  expect(row.a).toEqual(row.b);
});

test('what is no backup, or a torn one, is refused, and nothing is changed', async () => {
  const before = await everything();
  const torn = join(folder, 'torn');
  const other = join(folder, 'other');
  writeFileSync(torn, readFileSync(file));
  truncateSync(torn, Math.floor(readFileSync(file).length * 0.6));
  writeFileSync(other, 'hello there');
  for (const f of [torn, other]) await expect(restore(f, migrations)).rejects.toMatchObject({ code: 'backup-invalid' });
  await expect(restore(join(folder, 'nothing'), migrations)).rejects.toMatchObject({ code: 'input-missing' });
  // one flipped byte within a content is found
  const flipped = readFileSync(file);
  const at = flipped.indexOf('Large'.repeat(40));
  expect(at).toBeGreaterThan(0);
  flipped[at] = 'l'.charCodeAt(0);
  writeFileSync(torn, flipped);
  await expect(restore(torn, migrations)).rejects.toMatchObject({
    code: 'backup-invalid',
    message: expect.stringContaining('are damaged') as string,
  });
  expect(await everything()).toEqual(before);
  await expect(backup(join(folder, 'no', 'such', 'folder'))).rejects.toMatchObject({ code: 'backup-write' });
  expect(existsSync(join(folder, 'no'))).toBe(false);
});

test('who was signed in is out, what waited in the queue stands there anew, and the log goes on', async () => {
  const person = must(people.librarian).id;
  await pool().query(
    `insert into session (token_sha256, person_id, expires_at) values (sha256('x'), $1, now() + interval '1 day')`,
    [person],
  );
  const job = await transaction((sql) => addJob(sql, 'frames', 'Frames', {}, person));
  const last = await one<{ id: number }>(pool(), 'select max(id) as id from event');
  await backup(file);
  await restore(file, migrations);
  expect(await many(pool(), 'select 1 from session')).toEqual([]);
  const queued = await many<{ key: string }>(pool(), 'select key from graphile_worker.jobs');
  expect(queued.map(({ key }) => key)).toEqual([job]);
  await make('After the restore');
  const next = await one<{ id: number }>(pool(), 'select min(id) as id from event where id > $1', [last.id]);
  expect(next.id).toBe(last.id + 1);
});

test('what was in use is kept beside it until a person drops it, whatever is restored later', async () => {
  const first = await restore(file, migrations);
  const second = await restore(file, migrations);
  const names = (await keptDatabases()).map(({ name }) => name);
  expect(names).toEqual(expect.arrayContaining([first.kept, second.kept]));
  await dropKept(first.kept);
  expect((await keptDatabases()).map(({ name }) => name)).not.toContain(first.kept);
  // neither the one in use nor another's
  for (const name of [new URL(databaseUrl()).pathname.slice(1), 'postgres', 'template1'])
    await expect(dropKept(name)).rejects.toMatchObject({ code: 'not-found' });
});

describe('a backup that somebody made up', () => {
  /** The backup with something else in it. */
  async function altered(change: (entries: Record<string, Uint8Array>, manifest: Manifest) => void): Promise<string> {
    const { zip, entries, manifest } = await openBackup(file);
    const contents: Record<string, Uint8Array> = {};
    for (const [name, entry] of entries) contents[name] = await buffer(await zip.openReadStreamPromise(entry));
    zip.close();
    change(contents, manifest);
    contents['manifest.json'] = strToU8(JSON.stringify(manifest));
    const path = join(folder, 'altered');
    writeFileSync(path, zipSync(contents, { level: 0 }));
    return path;
  }
  const tableOf = (manifest: Manifest, name: string) => must(manifest.tables.find((table) => table.name === name));

  const cases: [string, (entries: Record<string, Uint8Array>, manifest: Manifest) => void, string][] = [
    [
      'names a table that is none of ours',
      (entries, manifest) => {
        manifest.tables.push({ ...tableOf(manifest, 'item'), name: 'item"; drop table person; --' });
        delete entries['rows/item'];
      },
      'rows of item are missing',
    ],
    [
      'names a column that is none of ours',
      (_, manifest) => tableOf(manifest, 'person').columns.push("x) from program 'id'; --"),
      'does not tell of person',
    ],
    [
      'has rows that refer to nothing',
      (entries, manifest) => {
        const shelf = tableOf(manifest, 'shelf');
        const empty = tableOf(manifest, 'lineage');
        entries['rows/shelf'] = must(entries['rows/lineage']);
        Object.assign(shelf, { rows: empty.rows, sha256: empty.sha256 });
      },
      'foreign key',
    ],
    [
      'has rows of another form',
      (entries, manifest) => {
        entries['rows/shelf'] = strToU8('1\tA\n');
        tableOf(manifest, 'shelf').rows = 1;
      },
      'COPY file signature',
    ],
    [
      'is of a newer version',
      (_, manifest) => manifest.migrations.push({ name: '9999_later.sql', sha256: 'a'.repeat(64) }),
      'newer version',
    ],
    [
      'was made by other tables',
      (_, manifest) => {
        must(manifest.migrations[2]).sha256 = 'a'.repeat(64);
      },
      'another 0003_stations.sql',
    ],
    ['is of another form', (_, manifest) => Object.assign(manifest, { form: 'other' }), 'list of contents'],
    ['says too much', (_, manifest) => Object.assign(manifest, { run: 'x' }), 'list of contents'],
  ];
  test.each(cases)('and that %s is refused, and nothing is changed', async (_, change, why) => {
    const before = await everything();
    const refused = (await restore(await altered(change), migrations).catch((error: unknown) => error)) as Problem;
    expect(refused).toMatchObject({ code: 'backup-invalid' });
    expect(refused.message).toContain(why);
    expect(await everything()).toEqual(before);
    const name = new URL(databaseUrl()).pathname.slice(1);
    expect(
      await many(pool(), 'select 1 from pg_database where starts_with(datname, $1)', [`${name}_restoring`]),
    ).toEqual([]);
  });

  test('as a dump of PostgreSQL’s, with statements in it, is not even opened', async () => {
    const path = join(folder, 'dump');
    writeFileSync(path, Buffer.concat([Buffer.from('PGDMP'), Buffer.alloc(4000, 'copy x to program')]));
    await expect(restore(path, migrations)).rejects.toMatchObject({ code: 'backup-invalid' });
  });
});

test('a role that may do nothing but own its databases restores', async () => {
  const rights = await one<{ super: boolean; roles: boolean }>(
    pool(),
    'select rolsuper as super, rolcreaterole as roles from pg_roles where rolname = current_user',
  );
  expect(rights).toEqual({ super: false, roles: false });
  await expect(pool().query(`copy (select 1) to program 'true'`)).rejects.toMatchObject({ code: '42501' });
  await expect(pool().query(`select pg_read_file('/etc/passwd')`)).rejects.toMatchObject({ code: '42501' });
});

test('whenever a restore is killed, there is one whole studio under the name', async () => {
  await backup(file);
  const before = await everything();
  const next = seeded(20_261_127);
  for (let round = 0; round < tries(10, 4); round++) {
    const child = spawn(process.execPath, ['dist/cli.mjs', 'restore', file, '--json'], {
      env: { ...process.env, DATABASE_URL: databaseUrl() },
      stdio: 'ignore',
    });
    const ended = once(child, 'exit');
    // from its first connection to a little after its end
    await Promise.race([ended, wait(500 + next() * 1500)]);
    child.kill('SIGKILL');
    await ended;
    await closePool();
    // the server goes on for a moment with what the killed one has asked for
    await expect.poll(() => everything().catch(() => null), { timeout: 15_000 }).toEqual(before);
  }
}, 120_000);

test('where the places cannot be changed, the one in use stays where it was', async () => {
  const before = await everything();
  const name = new URL(databaseUrl()).pathname.slice(1);
  // a session of another role cannot be sent off, and so holds the name
  const holder = new pg.Client({ connectionString: inject('administratorUrl').replace(/\/postgres$/, `/${name}`) });
  await holder.connect();
  const refused = await restore(file, migrations).catch((error: unknown) => error);
  await holder.end();
  expect(refused).toMatchObject({ code: 'restore-in-use' });
  expect(await everything()).toEqual(before);
}, 120_000);
