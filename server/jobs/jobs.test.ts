/** Jobs: progress, stopping, and what becomes of them when workers die or hang. */
import { describe, expect, test, vi } from 'vitest';
import { Problem } from '@/core/problem';
import { log } from '../log';
import { pool, transaction } from '../db/pool';
import { many, one } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import {
  addJob,
  cancelJob,
  endHopelessJobs,
  freeDeadJobs,
  jobFor,
  LeaseLost,
  runJob,
  type JobContext,
} from './service';

withDatabase();

describe('jobs', () => {
  const handler = (work: (progress: (s: number, n: string) => Promise<void>) => Promise<unknown>) => ({
    test: async (job: JobContext) => work(job.progress),
  });
  const make = () => transaction((sql) => addJob(sql, 'test', 'A test', {}, people.librarian.id));
  test('keep their result, their progress and their refusal', async () => {
    const one = await make();
    await runJob(
      one,
      handler(async (part) => {
        await part(0.5, 'half');
        return { n: 1 };
      }),
    );
    expect(await jobFor(people.librarian, one)).toMatchObject({
      status: 'done',
      progress: 1,
      note: 'half',
      result: { n: 1 },
    });
    const other = await make();
    await runJob(
      other,
      handler(async () => {
        throw new Problem('x', 'It is so.', 'here', 'Do that.');
      }),
    );
    expect(await jobFor(people.librarian, other)).toMatchObject({
      status: 'failed',
      error: { code: 'x', remedy: 'Do that.' },
    });
  });
  test('a bug gives an incident number and none of its insides', async () => {
    vi.spyOn(log, 'error').mockImplementationOnce(() => {});
    const id = await make();
    await runJob(
      id,
      handler(async () => {
        throw new Error('secret path /etc');
      }),
    );
    const job = await jobFor(people.librarian, id);
    expect(job.error).toMatchObject({ code: 'bug', where: `incident ${id}` });
    expect(JSON.stringify(job.error)).not.toContain('secret');
  });
  test('can be stopped before and while they run', async () => {
    const one = await make();
    await cancelJob(people.librarian, one);
    await runJob(
      one,
      handler(async (part) => {
        await part(0, 'begun');
        throw new Error('must not get here');
      }),
    );
    expect((await jobFor(people.librarian, one)).status).toBe('cancelled');
    const other = await make();
    await runJob(
      other,
      handler(async (ofOther) => {
        await cancelJob(people.librarian, other);
        await ofOther(1, 'stops here');
        throw new Error('went on');
      }),
    );
    expect((await jobFor(people.librarian, other)).status).toBe('cancelled');
  });
  test('of a rolled back transaction leave nothing in the queue', async () => {
    const count = async () => (await pool().query('select 1 from graphile_worker._private_jobs')).rowCount;
    const before = await count();
    await transaction(async (sql) => {
      await addJob(sql, 'test', 'x', {}, null);
      throw new Error('back');
    }).catch(() => {});
    expect(await count()).toBe(before);
  });
  test('whose worker was killed are freed when their heart has stopped', async () => {
    const id = await make();
    await pool().query(
      `
        update graphile_worker._private_jobs
        set locked_by = 'dead', locked_at = now()
        where key = $1
      `,
      [id],
    );
    await pool().query(`update job set status = 'running', heartbeat_at = now() where id = $1`, [id]);
    const locked = async () =>
      (
        await one<{ locked_by: string | null }>(
          pool(),
          'select locked_by from graphile_worker._private_jobs where key = $1',
          [id],
        )
      ).locked_by;
    await freeDeadJobs();
    expect(await locked()).toBe('dead');
    await pool().query(`update job set heartbeat_at = now() - interval '1 minute' where id = $1`, [id]);
    await freeDeadJobs();
    expect(await locked()).toBeNull();
  });
});

describe('a lease', () => {
  const make = () => transaction((sql) => addJob(sql, 'test', 'A test', {}, null));
  const written = async () =>
    (await many<{ name: string }>(pool(), `select name from shelf where name like 'by %' order by name`)).map(
      ({ name }) => name,
    );
  const write = (name: string) =>
    transaction((sql) => sql.query(`insert into shelf (id, name) values (gen_random_uuid(), $1)`, [name]));

  test('that was lost writes nothing more, in no way, and its heir is not disturbed', async () => {
    const id = await make();
    let suspended!: () => void;
    const goOn = new Promise<void>((resolve) => {
      suspended = resolve;
    });
    const outcomes: unknown[] = [];
    const first = runJob(id, {
      test: async (job) => {
        await write('by the first, in time');
        await goOn;
        const late = await Promise.allSettled([
          write('by the first, late'),
          pool().query(`insert into shelf (id, name) values (gen_random_uuid(), 'by the first, bare')`),
          job.progress(0.1, 'the first'),
        ]);
        outcomes.push(...late.map((settled): unknown => settled.status === 'rejected' && settled.reason));
        return { by: 'first' };
      },
    });
    await expect.poll(async () => (await jobFor(people.librarian, id)).status).toBe('running');
    await expect.poll(async () => (await written()).length).toBe(1);
    await runJob(id, {
      test: async (job) => {
        await job.progress(0.5, 'the second');
        suspended();
        await expect(first).rejects.toThrow(LeaseLost);
        await write('by the second');
        return { by: 'second' };
      },
    });
    expect(outcomes).toHaveLength(3);
    for (const outcome of outcomes) expect(outcome).toBeInstanceOf(LeaseLost);
    expect(await jobFor(people.librarian, id)).toMatchObject({
      status: 'done',
      note: 'the second',
      result: { by: 'second' },
    });
    expect(await written()).toEqual(['by the first, in time', 'by the second']);
  });

  /** How many take a lease that another transaction holds: a heart may wait to beat meanwhile, too. */
  const waitingForLocks = async (): Promise<number> =>
    (
      await one<{ n: number }>(
        pool(),
        `
          select count(*)::int as n
          from pg_stat_activity
          where datname = current_database()
            and wait_event_type = 'Lock'
            and query like 'update job_lease%'
        `,
      )
    ).n;

  test('that its holder has finished with meanwhile leaves its heir nothing to do', async () => {
    const id = await make();
    let runs = 0;
    const count = async () => void runs++;
    let mayEnd!: () => void;
    const ends = new Promise<void>((resolve) => {
      mayEnd = resolve;
    });
    let held!: () => void;
    const isHeld = new Promise<void>((resolve) => {
      held = resolve;
    });
    const first = transaction(async (sql) => {
      await sql.query('select 1 from job_lease where job_id = $1 for share', [id]);
      held();
      await ends;
      await sql.query(`update job set status = 'done', finished_at = now() where id = $1`, [id]);
    });
    await isHeld;
    const second = runJob(id, { test: count });
    await vi.waitFor(async () => expect(await waitingForLocks()).toBe(1), { timeout: 20_000 });
    mayEnd();
    await first;
    await second;
    expect(runs).toBe(0);
    expect((await jobFor(people.librarian, id)).status).toBe('done');
  });

  test('is waited for by its heir while a transaction under it is open', async () => {
    const id = await make();
    const order: string[] = [];
    let begun!: () => void;
    let mayEnd!: () => void;
    const open = new Promise<void>((resolve) => {
      begun = resolve;
    });
    const ends = new Promise<void>((resolve) => {
      mayEnd = resolve;
    });
    const first = runJob(id, {
      test: () =>
        transaction(async () => {
          begun();
          await ends;
          order.push('the first commits');
        }),
    });
    await open;
    const second = runJob(id, {
      test: async () => {
        order.push('the second begins');
      },
    });
    await vi.waitFor(async () => expect(await waitingForLocks()).toBe(1), { timeout: 20_000 });
    mayEnd();
    const [ended] = await Promise.allSettled([first]);
    await second;
    // between its commit and its last word the first may still be quicker than its heir, which has nothing to do then
    if (ended.status === 'fulfilled') expect(order).toEqual(['the first commits']);
    else {
      expect(ended.reason).toBeInstanceOf(LeaseLost);
      expect(order).toEqual(['the first commits', 'the second begins']);
    }
  });
});

describe('a job that cannot go on', () => {
  const give = async (set: string): Promise<string> => {
    const id = await transaction((sql) => addJob(sql, 'test', 'A test', { for: 'this' }, null));
    await pool().query(`update graphile_worker._private_jobs set ${set} where key = $1`, [id]);
    await pool().query(`update job set status = 'running', heartbeat_at = now() - interval '1 minute' where id = $1`, [
      id,
    ]);
    return id;
  };
  test('since its worker died three times says so, and what it was for is told', async () => {
    const died = await give(`attempts = 3, locked_by = 'dead', locked_at = now() - interval '1 minute'`);
    const waits = await give('attempts = 1');
    const told: unknown[] = [];
    const lookAfter = async () => {
      await freeDeadJobs();
      await endHopelessJobs({
        test: async (_, payload, problem) => {
          told.push(payload, problem.code);
        },
      });
    };
    await Promise.all([lookAfter(), lookAfter(), lookAfter()]);
    await lookAfter();
    expect(told).toEqual([{ for: 'this' }, 'job-died']);
    expect(await jobFor(people.librarian, died)).toMatchObject({
      status: 'failed',
      error: { code: 'job-died', where: 'A test', remedy: expect.stringContaining('Start it again') as string },
    });
    expect((await jobFor(people.librarian, waits)).status).toBe('running');
    await runJob(waits, { test: async () => null });
  });
  test('since the queue has lost it, as after a restore, says so too', async () => {
    const id = await give('attempts = 0');
    await pool().query('delete from graphile_worker._private_jobs where key = $1', [id]);
    await endHopelessJobs({});
    expect((await jobFor(people.librarian, id)).status).toBe('failed');
  });
  test('whose database went away is tried again, not ended', async () => {
    const id = await transaction((sql) => addJob(sql, 'test', 'A test', {}, null));
    const away = Object.assign(new Error('terminating connection'), { code: '57P01' });
    await expect(runJob(id, { test: () => Promise.reject(away) })).rejects.toBe(away);
    expect((await jobFor(people.librarian, id)).status).toBe('running');
    await runJob(id, { test: async () => null });
    expect((await jobFor(people.librarian, id)).status).toBe('done');
  });
});
