/** What a page of the library shows beside its items is looked up for each of them, however many versions there are. */
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { transaction, pool, type Sql } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { one } from '../db/query';
import { itemOf } from '../items/testing/item-of';
import { freshCount, shelvesFirst, spinesOf } from './queries';

withDatabase();

const SHELVES = 60;
const VERSIONS_OF_EACH = 60;

const lookOf = (n: number): string => `LUT_1D_SIZE 2\n0 0 0\n1 1 0.${n + 10}\n`;
let items: string[] = [];

beforeAll(async () => {
  const { rows: shelves } = await pool().query<{ id: string }>(
    `
      insert into shelf (id, name, note, position)
      select gen_random_uuid(), 'Shelf ' || n, '', n
      from generate_series(1, $1::int) n
      returning id
    `,
    [SHELVES],
  );
  items = [];
  for (const [n, { id }] of shelves.entries()) {
    const made = await itemOf(lookOf(n), `${n}.cube`, { shelfId: id, title: `Look ${n}` });
    items.push(made.itemId);
  }
  // what is kept up with each version would be for each of these, one by one
  await transaction(async (sql) => {
    await sql.query('alter table version disable trigger user');
    await sql.query(
      `
        insert into version (id, item_id, number, sha256, file_name, format, facts, encoding, status, variant)
        select gen_random_uuid(), v.item_id, n, v.sha256, v.file_name, v.format, v.facts, v.encoding, 'draft',
          case n % 3 when 1 then 'for rendered files' when 2 then 'for print' else '' end
        from version v, generate_series(2, $1::int) n
      `,
      [VERSIONS_OF_EACH],
    );
    await sql.query('alter table version enable trigger user');
  });
  await pool().query('analyze');
}, 120_000);

/** What this connection has read of versions by going through them, not by an index. */
const readSoFar = async (sql: Sql): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      `select coalesce(seq_tup_read, 0)::int as n from pg_stat_xact_user_tables where relname = 'version'`,
    )
  ).n;

/** Rows of versions that were read because all of them were. */
async function readThrough(ask: (sql: Sql) => Promise<unknown>): Promise<number> {
  return transaction(async (sql) => {
    // as where it takes a page for longer than it is, which it does in a library of thousands
    await sql.query('set local enable_nestloop = off');
    await sql.query('set local enable_mergejoin = off');
    const before = await readSoFar(sql);
    await ask(sql);
    return (await readSoFar(sql)) - before;
  });
}

test('the first of each shelf', async () => {
  const { id } = must(people.librarian);
  expect(await readThrough((sql) => shelvesFirst(sql, id, 24))).toBe(0);
  const spines = await shelvesFirst(pool(), id, 24);
  expect(spines.map((spine) => spine.id)).toEqual(items);
  expect(spines[0]).toMatchObject({ title: 'Look 0', stations: 0, variants: 2, matching: 1 });
});

test('a page of a list', async () => {
  const { id } = must(people.librarian);
  expect(await readThrough((sql) => spinesOf(sql, id, items))).toBe(0);
  const page = items.slice(7, 9).reverse();
  expect(await spinesOf(pool(), id, page)).toMatchObject(page.map((item) => ({ id: item, variants: 2 })));
});

test('what is new to a person, of which there may be as many as there are versions', async () => {
  const { id } = must(people.lead);
  await pool().query(`update person set looked_at = now() - interval '1 day' where id = $1`, [id]);
  expect(await readThrough((sql) => freshCount(sql, id))).toBe(0);
  expect(await freshCount(pool(), id)).toBe(SHELVES);
});
