/** People: adding, signing in and out. Passwords are hashed with Argon2id, session tokens are stored hashed. */
import { newPerson } from '@/core/api/stations';
import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { v7 } from 'uuid';
import { object, string } from 'yup';
import { Problem } from '@/core/problem';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { checked } from '../input';
import * as q from './queries';
import { allow, roles, type Person, type Role } from './roles';

/** OWASP's recommendation for Argon2id: 19 MiB, two passes. */
const strength = { memoryCost: 19456, timeCost: 2, parallelism: 1 };
const SESSION_DAYS = 14;
const TRIES = 8;
const WINDOW_MINUTES = 15;

const personSchema = object({
  ...newPerson,
  role: string()
    .oneOf([...roles])
    .required(),
}).noUnknown();

const digest = (token: string): Buffer => createHash('sha256').update(token).digest();

/** Adds a person. The very first needs no one's leave: `by` is null then, and only then. */
export async function addPerson(
  by: Person | null,
  input: { name: string; email: string; role: Role; password: string },
): Promise<Person> {
  if (by) allow(by, 'person.add');
  const added = checked(personSchema, input);
  const id = v7();
  const passwordHash = await hash(added.password, strength);
  await transaction(async (sql) => {
    await sql.query('lock table person in share row exclusive mode');
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
export async function signIn(
  email: string,
  password: string,
  from: string,
  agent: string,
): Promise<{ token: string; days: number; person: Person }> {
  const address = email.trim().toLowerCase().slice(0, 200);
  const subjects = [`email:${address}`, `from:${from}`];
  const sql = pool();
  for (const [i, text] of subjects.entries())
    if ((await q.failuresOf(sql, text, WINDOW_MINUTES)) >= (i ? TRIES * 5 : TRIES))
      throw new Problem(
        'sign-in-limit',
        'There were too many failed attempts.',
        'sign-in',
        `Wait ${WINDOW_MINUTES} minutes and try again.`,
      );
  const row = await q.personByEmail(sql, address);
  const good = row ? await verify(row.password_hash, password) : (await hash(password.slice(0, 200), strength), false);
  if (!row || !good || !row.active) {
    for (const s of subjects) await q.insertFailure(sql, s);
    throw new Problem(
      'sign-in-wrong',
      'The address or the password is not right.',
      'sign-in',
      'Check both and try again.',
    );
  }
  const token = randomBytes(32).toString('base64url');
  await q.insertSession(sql, digest(token), row.id, SESSION_DAYS, agent.slice(0, 200));
  await q.deleteFailures(sql, `email:${address}`);
  await q.deleteOldSessions(sql);
  await q.deleteOldFailures(sql);
  return { token, days: SESSION_DAYS, person: { id: row.id, name: row.name, email: row.email, role: row.role } };
}

export async function personOf(token: string | undefined): Promise<Person | null> {
  if (!token) return null;
  const row = await q.personBySession(pool(), digest(token));
  return row ? { id: row.id, name: row.name, email: row.email, role: row.role } : null;
}

export const signOut = (token: string) => q.deleteSession(pool(), digest(token));
