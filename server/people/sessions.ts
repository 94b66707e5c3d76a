/** Sessions: which a person has, ending them, and what ends them by itself: another password, and leaving the studio. */
import { createHash } from 'node:crypto';
import type { BodyOf } from '@/core/api';
import { peopleEndpoints } from '@/core/api/people';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { hashed, isPassword } from './passwords';
import * as q from './queries';
import { actorOf, allow, type Person } from './roles';

export const digest = (token: string): Buffer => createHash('sha256').update(token).digest();

export interface SessionView {
  id: string;
  begun: string;
  seen: string;
  /** the browser, as it calls itself */ agent: string;
  network: string;
  /** the one that asks */ own: boolean;
}

/** Those of these tokens whose sessions live: not over, not ended, of people who are active. */
export async function livingSessions(tokens: readonly string[]): Promise<Set<string>> {
  if (!tokens.length) return new Set();
  const byDigest = new Map(tokens.map((token) => [digest(token).toString('hex'), token]));
  const living = await q.livingSessions(pool(), [...byDigest.keys()]);
  return new Set(living.flatMap(({ token }) => byDigest.get(token) ?? []));
}

/** The person's own sessions, the latest seen first. */
export async function sessionsOf(person: Person, token: string): Promise<SessionView[]> {
  const own = digest(token).toString('hex');
  const rows = await q.sessionsOf(pool(), person.id);
  return rows.map((row) => ({
    id: row.id,
    begun: row.created_at.toISOString(),
    seen: row.seen_at.toISOString(),
    agent: row.user_agent,
    network: row.network,
    own: row.token === own,
  }));
}

/** Ends one of the person's own sessions. Whoever uses it is out with the next request, and its live stream ends. */
export async function endSession(person: Person, id: string): Promise<void> {
  await transaction(async (sql) => {
    if ((await q.deleteOwnSession(sql, person.id, id)) === 0)
      throw new Problem('not-found', 'This session has ended already.', id, 'Reload the page.');
    await record(sql, actorOf(person), 'person', person.id, 'session ended');
  });
}

const otherPassword = (): Problem =>
  new Problem('password-wrong', 'The password that you have now is another.', 'current', 'Type it again.');

/** Changes the person's own password; every other session of theirs ends. */
export async function changePassword(
  person: Person,
  token: string,
  input: BodyOf<'POST /api/password'>,
): Promise<void> {
  const { current, password } = checked(peopleEndpoints['POST /api/password'].body, input);
  const row = await q.personByEmail(pool(), person.email);
  if (!row || !(await isPassword(row.password_hash, current))) throw otherPassword();
  const passwordHash = await hashed(password);
  await transaction(async (sql) => {
    if (!(await q.setPassword(sql, person.id, row.password_hash, passwordHash))) throw otherPassword();
    await q.deleteSessionsOf(sql, person.id, digest(token));
    await record(sql, actorOf(person), 'person', person.id, 'password changed');
  });
}

/** Lets a person in again, or ends all that is theirs: sessions, streams, signing in. Nobody shuts the door behind themselves. */
export async function setActive(by: Person | null, email: string, active: boolean): Promise<void> {
  if (by) allow(by, 'person.manage');
  await transaction(async (sql) => {
    const row = await q.personByEmail(sql, email);
    if (!row)
      throw new Problem('not-found', `Nobody has the address ${email}.`, 'email', 'Look at the list of people.');
    if (!active && row.id === by?.id)
      throw new Problem('person-self', 'You cannot deactivate yourself.', row.email, 'Ask another lead.');
    await q.setActive(sql, row.id, active);
    if (!active) await q.deleteSessionsOf(sql, row.id, null);
    const actor = by ? actorOf(by) : { personId: null, name: 'command line' };
    await record(sql, actor, 'person', row.id, active ? 'activated' : 'deactivated', null, { name: row.name });
  });
}

/** Ends every session of a person. */
export async function signOutEverywhere(by: Person | null, email: string): Promise<{ ended: number }> {
  if (by) allow(by, 'person.manage');
  return transaction(async (sql) => {
    const row = await q.personByEmail(sql, email);
    if (!row)
      throw new Problem('not-found', `Nobody has the address ${email}.`, 'email', 'Look at the list of people.');
    const ended = await q.deleteSessionsOf(sql, row.id, null);
    const actor = by ? actorOf(by) : { personId: null, name: 'command line' };
    await record(sql, actor, 'person', row.id, 'signed out everywhere', null, { name: row.name, sessions: ended });
    return { ended };
  });
}
