import { must } from '@/core/must';
import pg from 'pg';
import { describe, expect, test } from 'vitest';
import { people, withDatabase } from '../db/testing/database';
import { databaseUrl, pool, transaction } from '../db/pool';
import { addPerson, signIn, signOut } from '../people/service';
import { signOutEverywhere } from '../people/sessions';
import { record } from '../activity/queries';
import { actorOf } from '../people/roles';
import { addShelf } from '../shelves/service';
import { thisMoment } from '../activity/queries';
import { follow, hub, since, type LiveMessage } from './service';

withDatabase();
const until = async (is: () => boolean, most = 20_000): Promise<void> => {
  const end = Date.now() + most;
  while (!is()) {
    if (Date.now() > end) throw new Error('waited in vain');
    await new Promise((r) => setTimeout(r, 20));
  }
};

describe('whoever follows along', () => {
  test('is sent what happens from now on, once and in order, and nothing after leaving', async () => {
    await addShelf(people.librarian, { name: 'Before' });
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    const events = () => got.flatMap((m) => (m.type === 'event' ? [m.event.id] : []));
    await follow(stop.signal, '', (m) => got.push(m));
    const at = await thisMoment(pool());
    for (let i = 0; i < 20; i++) await addShelf(people.librarian, { name: `Live ${i}` });
    await until(() => events().length >= 20);
    expect(events()).toEqual((await since(people.retoucher, at)).events.map((e) => e.id));
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
    for (const [i, s] of stops.entries()) await follow(s.signal, '', (m) => must(got[i]).push(m));
    for (let i = 0; i < 5; i++) await addShelf(people.librarian, { name: `Both ${i}` });
    await until(() => got.every((g) => g.length >= 5));
    expect(got[0]).toEqual(got[1]);
    for (const s of stops) s.abort();
  });
  test('is woken for jobs by their id', async () => {
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    await follow(stop.signal, '', (m) => got.push(m));
    await pool().query(`select pg_notify('job', 'made-up')`);
    await until(() => got.some((m) => m.type === 'job'));
    expect(got).toContainEqual({ type: 'job', id: 'made-up' });
    stop.abort();
  });
  test('what was rolled back is never told', async () => {
    const stop = new AbortController();
    const got: LiveMessage[] = [];
    await follow(stop.signal, '', (m) => got.push(m));
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
  test('in two hundred streams asks the log once, and none waits behind a transaction that takes long', async () => {
    const slow = new pg.Client({ connectionString: databaseUrl() });
    await slow.connect();
    await slow.query('begin');
    await record(slow, actorOf(people.librarian), 'shelf', 'slow', 'made');
    const stops = Array.from({ length: 200 }, () => new AbortController());
    const got = stops.map((): string[] => []);
    for (const [n, stop] of stops.entries())
      await follow(stop.signal, '', (m) => m.type === 'event' && must(got[n]).push(m.event.subject_id));
    const asked = hub().asked;
    const quick = await addShelf(people.librarian, { name: 'Quick' });
    await until(() => got.every((ids) => ids.includes(quick)), 1500);
    expect(hub().asked - asked).toBeLessThan(5);
    await slow.query('commit');
    await slow.end();
    await until(() => got.every((ids) => ids.includes('slow')));
    expect(got.every((ids) => ids.length === 2)).toBe(true);
    for (const stop of stops) stop.abort();
  });
  test('is cut off when the session ends, and nobody else is', async () => {
    const [one, other] = [await session(), await session()];
    const stops = [new AbortController(), new AbortController()];
    const ended: string[] = [];
    await follow(
      must(stops[0]).signal,
      one,
      () => {},
      () => ended.push('one'),
    );
    await follow(
      must(stops[1]).signal,
      other,
      () => {},
      () => ended.push('other'),
    );
    await signOut(one);
    await until(() => ended.length > 0, 5000);
    expect(ended).toEqual(['one']);
    await signOutEverywhere(people.lead, 'follower@x.example');
    await until(() => ended.length > 1, 5000);
    for (const stop of stops) stop.abort();
  });
  test('is cut off once, though two ask at the same time which sessions live', async () => {
    const lost = await session();
    const stop = new AbortController();
    let ended = 0;
    await follow(
      stop.signal,
      lost,
      () => {},
      () => ended++,
    );
    await pool().query(`delete from session where person_id = (select id from person where name = 'Follower')`);
    await Promise.all([hub()['endLost'](), hub()['endLost']()]);
    expect(ended).toBe(1);
    stop.abort();
  });
});

let added: Promise<unknown> | undefined;
async function session(): Promise<string> {
  const password = 'a password of ten';
  await (added ??= addPerson(people.lead, {
    name: 'Follower',
    email: 'follower@x.example',
    role: 'retoucher',
    password,
  }));
  return (await signIn('follower@x.example', password, 'here', 'a browser')).token;
}
