/**
 * Coming to a password by a link that is used once: whoever is invited, and whoever has lost theirs. A server without mail
 * works the same: whoever makes the link is shown it, and hands it on.
 */
import { randomBytes } from 'node:crypto';
import { v7 } from 'uuid';
import type { BodyOf } from '@/core/api';
import { peopleEndpoints } from '@/core/api/people';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { hashed } from './passwords';
import * as q from './queries';
import { actorOf, allow, type Person, type Role } from './roles';
import { beginSession, type SignedIn } from './service';
import { digest } from './sessions';

const LINK_DAYS = 7;

export interface Link {
  /** within Etagere; whoever has it sets the password */ path: string;
  until: string;
}

async function makeLink(sql: Sql, by: Person, personId: string): Promise<Link> {
  const token = randomBytes(24).toString('base64url');
  const until = await q.replaceLink(sql, { token: digest(token), personId, madeBy: by.id, days: LINK_DAYS });
  return { path: `/join/${token}`, until: until.toISOString() };
}

/** Who gives the lead's role has it. */
function allowRole(by: Person, role: Role): void {
  allow(by, 'person.add');
  if (role === 'lead') allow(by, 'person.manage');
}

/** Adds a person without a password, and makes the link by which they choose one. */
export async function invite(by: Person, input: BodyOf<'POST /api/people/invitations'>): Promise<Link> {
  allow(by, 'person.add');
  const { name, email, role } = checked(peopleEndpoints['POST /api/people/invitations'].body, input);
  allowRole(by, role);
  return transaction(async (sql) => {
    await q.lockPeople(sql);
    if (await q.personByEmail(sql, email))
      throw new Problem(
        'person-exists',
        `Someone with the address ${email} is there already.`,
        'email',
        'Use another address, or make a new link for them.',
      );
    const id = v7();
    await q.insertPerson(sql, { id, name, email, role, hash: null });
    await record(sql, actorOf(by), 'person', id, 'invited', null, { name, role });
    return makeLink(sql, by, id);
  });
}

/** Another link; the one before holds no longer. For somebody who has a password it is the lead's to make. */
export async function newLink(by: Person, id: string): Promise<Link> {
  allow(by, 'person.add');
  return transaction(async (sql) => {
    const person = await personToManage(sql, id);
    if (person.joined) allow(by, 'person.manage');
    else allowRole(by, person.role);
    if (!person.active)
      throw new Problem('person-inactive', `${person.name} may not sign in.`, person.email, 'Let them in again first.');
    await record(sql, actorOf(by), 'person', id, 'link made', null, { name: person.name });
    return makeLink(sql, by, id);
  });
}

export async function personToManage(sql: Sql, id: string): Promise<q.PersonById> {
  const person = await q.personById(sql, id);
  if (!person) throw new Problem('not-found', 'There is no such person.', id, 'Reload the page.');
  return person;
}

const usedUp = (): Problem =>
  new Problem(
    'link-over',
    'This link holds no longer: it was used, a newer one was made, or a week has passed.',
    'the link',
    'Ask whoever gave it to you for another one.',
  );

/** Whom a link is for; throws where it holds no longer. */
export async function personOfLink(token: string): Promise<{ name: string; joined: boolean }> {
  const person = await transaction((sql) => q.personByLink(sql, digest(token)));
  if (!person) throw usedUp();
  return { name: person.name, joined: person.joined };
}

/** Sets the password, ends what was signed in with another one, and signs in. The link is used up. */
export async function join(input: BodyOf<'POST /api/join'>, network: string, agent: string): Promise<SignedIn> {
  const { token, password } = checked(peopleEndpoints['POST /api/join'].body, input);
  const passwordHash = await hashed(password);
  return transaction(async (sql) => {
    const person = await q.personByLink(sql, digest(token));
    if (!person) throw usedUp();
    await q.setPasswordByLink(sql, person.id, passwordHash);
    await q.deleteSessionsOf(sql, person.id, null);
    const what = person.joined ? 'password set by a link' : 'joined';
    await record(sql, actorOf(person), 'person', person.id, what, null, { name: person.name });
    return beginSession(sql, person, network, agent);
  });
}
