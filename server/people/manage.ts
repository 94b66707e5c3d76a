/** Looking after people: who is there, as what, and who may not come in any more. */
import type { BodyOf } from '@/core/api';
import { peopleEndpoints } from '@/core/api/people';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { personToManage } from './invitations';
import * as q from './queries';
import { actionWords, actions, actorOf, allow, roles, type Action, type Person, type Role } from './roles';
import { setActive, signOutEverywhere } from './sessions';

export interface PersonView {
  id: string;
  name: string;
  email: string;
  role: Role;
  state: 'invited' | 'active' | 'inactive';
  /** until when a link can be used, where one is open */ linkUntil: string | null;
  sessions: number;
  seen: string | null;
  self: boolean;
}

function stateOf({ active, joined }: q.ListedPerson): PersonView['state'] {
  if (!active) return 'inactive';
  return joined ? 'active' : 'invited';
}

export async function peopleFor(by: Person): Promise<PersonView[]> {
  allow(by, 'person.view');
  const rows = await q.listPeople(pool());
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    email: row.email,
    role: row.role,
    state: stateOf(row),
    linkUntil: row.link_until?.toISOString() ?? null,
    sessions: row.sessions,
    seen: row.seen_at?.toISOString() ?? null,
    self: row.id === by.id,
  }));
}

/** Gives another role, or lets in and shuts out. One's own role and being let in are for another lead to change. */
export async function changePerson(by: Person, id: string, input: BodyOf<'PATCH /api/people/:id'>): Promise<void> {
  allow(by, 'person.manage');
  const { role, active } = checked(peopleEndpoints['PATCH /api/people/:id'].body, input);
  await transaction(async (sql) => {
    const person = await personToManage(sql, id);
    if (role && role !== person.role) {
      if (id === by.id)
        throw new Problem('person-self', 'You cannot change your own role.', person.email, 'Ask another lead.');
      await q.setRole(sql, id, role);
      await record(sql, actorOf(by), 'person', id, 'role given', { role: person.role }, { role, name: person.name });
    }
    if (active !== undefined && active !== person.active) await setActive(by, person.email, active);
  });
}

export async function signOutPerson(by: Person, id: string): Promise<{ ended: number }> {
  allow(by, 'person.manage');
  const person = await transaction((sql) => personToManage(sql, id));
  return signOutEverywhere(by, person.email);
}

/** What each role may do, in words: as the actions are checked, and in their order. */
export const whoMay = (): { what: string; roles: Role[] }[] =>
  (Object.keys(actions) as Action[]).map((action) => ({
    what: actionWords[action],
    roles: roles.filter((role) => (actions[action] as readonly Role[]).includes(role)),
  }));
