import { must } from '@/core/must';
import { beforeEach, describe, expect, test } from 'vitest';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf } from '../people/roles';
import { addShelf } from '../shelves/service';
import { eventsSince, follow, newestEvent, type LiveMessage } from './service';
import { one } from '../db/query';

withDatabase();
const until = async (is: () => boolean, most = 20_000): Promise<void> => {
  const end = Date.now() + most;
  while (!is()) {
    if (Date.now() > end) throw new Error('waited in vain');
    await new Promise((r) => setTimeout(r, 20));
  }
};

/** Until all that happened so far may be read: a transaction of another test, anywhere in the cluster, holds readers back. */
const settled = (): Promise<void> =>
  expect
    .poll(
      async () =>
        (await newestEvent()) ===
        (await one<{ id: number }>(pool(), 'select coalesce(max(id), 0)::int as id from event')).id,
      { timeout: 20_000 },
    )
    .toBe(true);

describe('whoever follows along', () => {
  beforeEach(settled);
  test('is sent what happens from now on, once and in order, and nothing after leaving', async () => {
    await addShelf(people.librarian, { name: 'Before' });
    await settled();
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    const events = () => got.flatMap((m) => (m.type === 'event' ? [m.event.id] : []));
    await follow(stop.signal, (m) => got.push(m));
    const at = await newestEvent();
    for (let i = 0; i < 20; i++) await addShelf(people.librarian, { name: `Live ${i}` });
    await until(() => events().length >= 20);
    expect(events()).toEqual((await eventsSince(people.retoucher, at)).map((e) => e.id));
    expect(new Set(events()).size).toBe(20);
    stop.abort();
    const n = got.length;
    await addShelf(people.librarian, { name: 'After' });
    await new Promise((r) => setTimeout(r, 300));
    expect(got).toHaveLength(n);
  });
  test('two follow at once, and each gets all', async () => {
    const stops = [new AbortController(), new AbortController()];
    const got: LiveMessage[][] = [[], []];
    for (const [i, s] of stops.entries()) await follow(s.signal, (m) => must(got[i]).push(m));
    for (let i = 0; i < 5; i++) await addShelf(people.librarian, { name: `Both ${i}` });
    await until(() => got.every((g) => g.length >= 5));
    expect(got[0]).toEqual(got[1]);
    for (const s of stops) s.abort();
  });
  test('is woken for jobs by their id', async () => {
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    await follow(stop.signal, (m) => got.push(m));
    await pool().query(`select pg_notify('job', 'made-up')`);
    await until(() => got.some((m) => m.type === 'job'));
    expect(got).toContainEqual({ type: 'job', id: 'made-up' });
    stop.abort();
  });
  test('what was rolled back is never told', async () => {
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    await follow(stop.signal, (m) => got.push(m));
    await transaction(async (sql) => {
      await record(sql, actorOf(people.librarian), 'shelf', 'none', 'made', null, { name: 'Never' });
      throw new Error('back');
    }).catch(() => {});
    await addShelf(people.librarian, { name: 'Real' });
    await until(() => got.length > 0);
    await new Promise((r) => setTimeout(r, 200));
    expect(got).toHaveLength(1);
    expect(JSON.stringify(got)).not.toContain('Never');
    stop.abort();
  });
});
