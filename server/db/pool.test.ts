import pg from 'pg';
import { afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { Problem } from '@/core/problem';
import { isWorthAnotherTry, passingFault, refusalOf } from './faults';
import { closePool, databaseUrl, fenced, pool, poolState, searching, transaction, type Sql } from './pool';
import { many, one } from './query';
import { withDatabase } from './testing/database';

withDatabase();

const notes = async () =>
  (await many<{ note: string }>(pool(), 'select note from mark order by note')).map((m) => m.note);
const mark = (note: string) => pool().query('insert into mark (note) values ($1)', [note]);

/** A pool that is made under other settings. */
async function anew(settings: Record<string, string>): Promise<void> {
  for (const [name, value] of Object.entries(settings)) vi.stubEnv(name, value);
  await closePool();
}

beforeAll(async () => {
  await pool().query('create table mark (note text primary key, n int not null default 0)');
});
afterEach(async () => {
  vi.unstubAllEnvs();
  await closePool();
  await pool().query('truncate mark');
});

describe('a transaction', () => {
  test('is what all within it write into, and sees it; nothing of one that fails stays', async () => {
    await transaction(async () => {
      await mark('one');
      expect(await notes()).toEqual(['one']);
    });
    await expect(
      transaction(async () => {
        await mark('two');
        throw new Problem('no', 'No.', '', '');
      }),
    ).rejects.toMatchObject({ code: 'no' });
    expect(await notes()).toEqual(['one']);
  });

  test('within another is a part of it, which can fail by itself', async () => {
    await transaction(async () => {
      await mark('before');
      await transaction(async () => {
        await mark('lost');
        await mark('lost');
      }).catch(() => {});
      await transaction(() => mark('part'));
      await mark('after');
    });
    expect(await notes()).toEqual(['after', 'before', 'part']);
    await expect(
      transaction(async () => {
        await transaction(() => mark('inner'));
        throw new Error('outer');
      }),
    ).rejects.toThrow('outer');
    expect(await notes()).not.toContain('inner');
  });

  test('lends its connection to nobody after its end', async () => {
    let later: Promise<string[]> | null = null;
    await transaction(async () => {
      await mark('one');
      later = new Promise((done) => setTimeout(done, 60)).then(notes);
    });
    await transaction(async () => {
      await mark('two');
      // what the first one left running looks in from outside: it does not see what is not settled yet
      expect(await later).toEqual(['one']);
    });
  });
});

const settingOf = async (sql: Sql, name: string): Promise<string> =>
  (await one<{ value: string }>(sql, 'select current_setting($1) as value', [name])).value;

test('no statement is compiled, from the first one of each connection on', async () => {
  const asked = await Promise.all(
    [pool(), searching()].flatMap((sql) => Array.from({ length: 12 }, () => settingOf(sql, 'jit'))),
  );
  expect(new Set(asked)).toEqual(new Set(['off']));
  expect(await transaction((sql) => settingOf(sql, 'jit'))).toBe('off');
  await closePool();
});

describe('what searches', () => {
  const setting = (sql = searching()): Promise<string> => settingOf(sql, 'enable_seqscan');

  test('goes through indexes, from the first statement of each connection on; nothing else does', async () => {
    const asked = await Promise.all(Array.from({ length: 12 }, () => setting()));
    expect(new Set(asked)).toEqual(new Set(['off']));
    expect(await setting(pool())).toBe('on');
    expect(poolState()).toMatchObject({ open: 5, waiting: 0 });
  });

  test('goes on, and through indexes still, when the database has ended its connections', async () => {
    const { pid } = await one<{ pid: number }>(searching(), 'select pg_backend_pid() as pid');
    await pool().query('select pg_terminate_backend($1)', [pid]);
    await vi.waitFor(() => expect(poolState().open).toBe(1));
    expect(await setting()).toBe('off');
  });

  test('sees what the transaction wrote that it is part of', async () => {
    await transaction(async () => {
      await mark('within');
      expect((await many<{ note: string }>(searching(), 'select note from mark')).map((m) => m.note)).toEqual([
        'within',
      ]);
    });
  });
});

test('behind a fence, what only reads asks for nothing, with a name or without; what writes asks first', async () => {
  let asked = 0;
  const fence = async () => {
    asked++;
  };
  await fenced(fence, async () => {
    await pool().query('select 1');
    await pool().query({ name: 'read behind a fence', text: 'select $1::int', values: [1] });
    expect(asked).toBe(0);
    await pool().query({ text: 'insert into mark (note) values ($1)', values: ['fenced'] });
    expect(asked).toBe(1);
  });
  expect(await notes()).toEqual(['fenced']);
});

test('many more at once than there are connections all come to their end, each with another statement within', async () => {
  await anew({ ETAGERE_CONNECTIONS: '3' });
  const rounds = Array.from({ length: 40 }, (_, i) =>
    transaction(async (sql) => {
      await sql.query('insert into mark (note) values ($1)', [`a ${i}`]);
      await mark(`b ${i}`);
      await transaction(() => mark(`c ${i}`));
    }),
  );
  await Promise.all(rounds);
  expect(await notes()).toHaveLength(120);
});

test('of two that lock each other out, both come through', async () => {
  await mark('left');
  await mark('right');
  let tries = 0;
  let meet!: () => void;
  const haveMet = new Promise<void>((done) => {
    meet = done;
  });
  const both = (first: string, second: string) =>
    transaction(async (sql) => {
      tries++;
      await sql.query('update mark set n = n + 1 where note = $1', [first]);
      // each holds its first row before either asks for the other's
      if (tries === 2) meet();
      await haveMet;
      await sql.query('update mark set n = n + 1 where note = $1', [second]);
    });
  await Promise.all([both('left', 'right'), both('right', 'left')]);
  expect(tries).toBeGreaterThan(2);
  expect(await many(pool(), 'select n from mark')).toEqual([{ n: 2 }, { n: 2 }]);
});

test('who waits for a lock or a slow statement too long is told to come again', async () => {
  await anew({ ETAGERE_PATIENCE_SECONDS: '0.3' });
  await mark('held');
  const other = new pg.Client({ connectionString: databaseUrl() });
  await other.connect();
  await other.query(`begin; update mark set n = 1 where note = 'held'`);
  const stuck = await pool()
    .query(`update mark set n = 2 where note = 'held'`)
    .catch((error: unknown) => error);
  expect(passingFault(stuck)).toMatchObject({ code: 'busy' });
  await other.query('rollback');
  await other.end();
  const slow = await pool()
    .query('select pg_sleep(5)')
    .catch((error: unknown) => error);
  expect(passingFault(slow)).toMatchObject({ code: 'busy' });
  expect(await one(pool(), 'select 1 as n')).toEqual({ n: 1 });
});

test('a server that is not there is away, and a mistake of ours is neither', async () => {
  const nobody = new pg.Client({ connectionString: 'postgres://etagere@127.0.0.1:9/etagere' });
  const refused = await nobody.connect().catch((error: unknown) => error);
  expect(passingFault(refused)).toMatchObject({ code: 'database-away' });
  const mistake = await pool()
    .query('select nonsense')
    .catch((error: unknown) => error);
  expect(passingFault(mistake)).toBeNull();
  expect(isWorthAnotherTry(mistake)).toBe(false);
});

test.each([
  [`insert into mark (note) values ('a'), ('a')`, 'taken'],
  [`insert into ribbon (item_id, made_by) values (gen_random_uuid(), gen_random_uuid())`, 'in-use'],
  [`insert into mark (note) values (null)`, 'input-invalid'],
  [`select 'nonsense'::uuid`, 'input-invalid'],
  [`select 99999999999::int`, 'input-invalid'],
  [`select 1 / 0`, null],
])('%s is %s', async (statement, code) => {
  const refused = await pool()
    .query(statement)
    .catch((error: unknown) => error);
  expect(refusalOf(refused)?.code ?? null).toBe(code);
});
