import { must } from '@/core/must';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { databaseUrl, pool, transaction } from '../db/pool';
import { editItem } from '../items/edit';
import { createItem } from '../items/create';
import { addShelf } from '../shelves/service';
import { actorOf } from '../people/roles';
import { backup, restore } from './service';
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

/** Every row of every table as text, and so every chunk of every content; sequences too. */
async function everything(): Promise<Record<string, string[]>> {
  const out: Record<string, string[]> = {};
  const tables = await many<{ t: string }>(
    pool(),
    `
      select format('%I.%I', table_schema, table_name) as t
      from information_schema.tables
      where table_type = 'BASE TABLE'
        and table_schema in ('public', 'graphile_worker')
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
  // one flipped byte within a content is found by its hash
  const flipped = readFileSync(file);
  const at = flipped.indexOf(Buffer.from('4c61726765'.repeat(40)));
  expect(at).toBeGreaterThan(0);
  flipped[at + 1] = flipped[at + 1] === 0x36 ? 0x37 : 0x36;
  flipped[at] = flipped[at] === 0x34 ? 0x35 : 0x34;
  writeFileSync(torn, flipped);
  await expect(restore(torn, migrations)).rejects.toMatchObject({
    code: 'backup-invalid',
    message: expect.stringContaining('is damaged') as string,
  });
  expect(await everything()).toEqual(before);
  await expect(backup(join(folder, 'no', 'such', 'folder'))).rejects.toMatchObject({ code: 'backup-write' });
  expect(existsSync(join(folder, 'no'))).toBe(false);
});
