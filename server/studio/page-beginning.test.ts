/** What a page begins with: the same person as a route is asked by, and what waits, in one statement. */
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { beginArrival } from '../arrivals/service';
import { eventsSince } from '../activity/queries';
import { pool } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { addPerson, personOf, signIn } from '../people/service';
import { digest, setActive } from '../people/sessions';
import type { Role } from '../people/roles';
import { addShelf } from '../shelves/service';
import { beginningOfPage } from './page-beginning';

withDatabase();
const password = 'a long password';
const emailOf = (role: Role): string => `${role}@begins.example`;
const tokenOf = async (role: Role): Promise<string> =>
  (await signIn(emailOf(role), password, '10.0.0.7', 'a browser')).token;

beforeAll(async () => {
  for (const role of ['librarian', 'retoucher'] as const)
    await addPerson(people.lead, { name: role, email: emailOf(role), role, password });
});

test('is who asks, and what waits for them: a retoucher settles no arrivals', async () => {
  await beginArrival(people.librarian, { name: 'A delivery', files: [{ path: 'a.cube', size: 1 }] });
  await pool().query(`update arrival set status = 'ready'`);
  const [librarian, retoucher] = [await tokenOf('librarian'), await tokenOf('retoucher')];
  const begun = must(await beginningOfPage(librarian));
  expect(begun.person).toEqual(await personOf(librarian));
  expect(begun.counts).toEqual({ Intake: 1, Rollouts: 0 });
  expect((await beginningOfPage(retoucher))?.counts).toEqual({ Rollouts: 0 });
});

test('bears the moment of before: what happens afterwards is told', async () => {
  const { moment } = must(await beginningOfPage(await tokenOf('librarian')));
  await addShelf(people.librarian, { name: 'Since then' });
  const { events } = await eventsSince(pool(), moment);
  expect(events.map(({ subject, action }) => `${subject} ${action}`)).toEqual(['shelf made']);
});

test('notes that a session is used, at most every five minutes', async () => {
  const token = await tokenOf('librarian');
  await pool().query(`update session set seen_at = now() - interval '6 minutes'`);
  await beginningOfPage(token);
  const { rows } = await pool().query('select count(*)::int as n from session where seen_at > now() - $1::interval', [
    '1 minute',
  ]);
  expect(rows).toEqual([{ n: 1 }]);
});

test('is nothing without a session, once it is over, and after leaving the studio', async () => {
  expect([await beginningOfPage(''), await beginningOfPage('made up'), await beginningOfPage('\0🙂')]).toEqual([
    null,
    null,
    null,
  ]);
  const over = await tokenOf('librarian');
  const left = await tokenOf('retoucher');
  expect([await beginningOfPage(over), await beginningOfPage(left)]).not.toContain(null);
  await pool().query('update session set expires_at = now() where token_sha256 = $1', [digest(over)]);
  await setActive(people.lead, emailOf('retoucher'), false);
  expect([await beginningOfPage(over), await beginningOfPage(left)]).toEqual([null, null]);
});
