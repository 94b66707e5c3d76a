/** People: adding, signing in and out. Passwords are hashed with Argon2id, session tokens are stored hashed. */
import { newPerson } from '@/core/api/people';
import { randomBytes } from 'node:crypto';
import { v7 } from 'uuid';
import { object, string } from 'yup';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { checked } from '../input';
import { hashed, isPassword } from './passwords';
import * as q from './queries';
import { allow, roles, type Person, type Role } from './roles';
import { digest } from './sessions';
import { countedFor, delayAfter } from './sign-in-delay';

const SESSION_DAYS = 14;

const personSchema = object({
  ...newPerson,
  role: string()
    .oneOf([...roles])
    .required(),
}).noUnknown();

/** Adds a person. The very first needs no one's leave: `by` is null then, and only then. */
export async function addPerson(
  by: Person | null,
  input: { name: string; email: string; role: Role; password: string },
): Promise<Person> {
  if (by) allow(by, 'person.add');
  const added = checked(personSchema, input);
  const id = v7();
  const passwordHash = await hashed(added.password);
  await transaction(async (sql) => {
    await q.lockPeople(sql);
    if (!by && (await q.countPeople(sql)) > 0)
      throw new Problem(
        'not-allowed',
        'There are people already: one of them has to add others.',
        'person.add',
        'Sign in first.',
      );
    if (await q.personByEmail(sql, added.email))
      throw new Problem(
        'person-exists',
        `Someone with the address ${added.email} is there already.`,
        'email',
        'Use another address.',
      );
    await q.insertPerson(sql, { id, name: added.name, email: added.email, role: added.role, hash: passwordHash });
    await record(sql, { personId: by?.id ?? null, name: by?.name ?? 'first person' }, 'person', id, 'added', null, {
      name: added.name,
      role: added.role,
    });
  });
  return { id, name: added.name, email: added.email, role: added.role };
}

export const anyone = async (): Promise<boolean> => (await q.countPeople(pool())) > 0;

/** Signs in; returns the session's token. The same words for an unknown address and a wrong password. */
const tooMany = (seconds: number): Problem =>
  new Problem(
    'sign-in-limit',
    'There were too many failed attempts.',
    'sign-in',
    seconds < 90
      ? `Wait ${Math.ceil(seconds)} seconds and try again.`
      : `Wait ${Math.ceil(seconds / 60)} minutes and try again.`,
  );

/**
 * A try is counted as failed before the password is looked at, and taken back when it was right: of any number at once,
 * no more are looked at than are free.
 * @returns what it was counted against
 */
async function countTry(account: string, network: string): Promise<string[]> {
  return transaction(async (sql) => {
    const counted = countedFor(account, network, await q.isKnownFrom(sql, account, network));
    const subjects = counted.map(({ subject }) => subject);
    await q.lockFailures(sql, subjects);
    for (const { subject, free } of counted) {
      const { n, ago } = await q.failuresOf(sql, subject);
      const wait = delayAfter(n, free) - ago;
      if (n >= free && wait > 0) throw tooMany(wait);
    }
    await q.insertFailures(sql, subjects);
    return subjects;
  });
}

export interface SignedIn {
  token: string;
  /** for how long it holds */ days: number;
  person: Person;
}

/** @param network from where it is tried, as the door tells it @param agent the browser, as it calls itself */
export async function signIn(email: string, password: string, network: string, agent: string): Promise<SignedIn> {
  const account = email.trim().toLowerCase().slice(0, 200);
  const counted = await countTry(account, network);
  const row = await q.personByEmail(pool(), account);
  // as much work where there is no such account, so that the time does not tell
  const good = row?.password_hash
    ? await isPassword(row.password_hash, password)
    : (await hashed(password.slice(0, 200)), false);
  if (!row || !good || !row.active)
    throw new Problem(
      'sign-in-wrong',
      'The address or the password is not right.',
      'sign-in',
      'Check both and try again.',
    );
  return transaction(async (sql) => {
    await q.deleteLastFailures(sql, counted);
    await q.deleteFailures(sql, counted.slice(0, 1));
    await q.deleteOldSessions(sql);
    await q.deleteOldFailures(sql);
    return beginSession(sql, row, network, agent);
  });
}

/** A session of somebody who has shown who they are. */
export async function beginSession(
  sql: Sql,
  { id, name, email, role }: Person,
  network: string,
  agent: string,
): Promise<SignedIn> {
  const token = randomBytes(32).toString('base64url');
  await q.insertSession(sql, {
    token: digest(token),
    personId: id,
    days: SESSION_DAYS,
    agent: agent.slice(0, 200),
    network,
  });
  return { token, days: SESSION_DAYS, person: { id, name, email, role } };
}

export { livingSessions } from './sessions';

export async function personOf(token: string | undefined): Promise<Person | null> {
  if (!token) return null;
  const row = await q.personBySession(pool(), digest(token));
  if (row?.stale) await q.sessionSeen(pool(), digest(token));
  return row ? { id: row.id, name: row.name, email: row.email, role: row.role } : null;
}

export const signOut = (token: string) => q.deleteSession(pool(), digest(token));
