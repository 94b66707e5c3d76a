'use client';
/** Everybody who may sign in, with what a lead can do about it. */
import { Ellipsis } from 'lucide-react';
import { useState } from 'react';
import { roles, type Role } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Menu, MenuEntry, MenuLine } from '../kit/Menu';
import { Notice } from '../kit/Notice';
import { Ago } from '../kit/time';
import { LinkToCopy, type Link } from './LinkToCopy';

export interface ListedPerson {
  id: string;
  name: string;
  email: string;
  role: Role;
  state: 'invited' | 'active' | 'inactive';
  linkUntil: string | null;
  sessions: number;
  seen: string | null;
  self: boolean;
}

interface Props {
  people: ListedPerson[];
  /** roles are given, and people shut out, by whoever looks */ manages: boolean;
}

export function PeopleTable({ people, manages }: Props) {
  const action = useAction();
  const [made, setMade] = useState<{ link: Link; name: string } | null>(null);
  const makeLink = ({ id, name }: ListedPerson) =>
    void action.runAndRefresh(async () => setMade({ link: await call('POST /api/people/:id/link', { id }), name }));
  return (
    <>
      <table className="list" aria-label="People">
        <thead>
          <tr>
            <th>Name</th>
            <th>E-mail address</th>
            <th>Role</th>
            <th>State</th>
            <th>Last seen</th>
            <th>
              <span className="sr-only">More to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {people.map((person) => (
            <tr key={person.id} data-person={person.email}>
              <td className="[overflow-wrap:anywhere]">
                <b className="font-medium">{person.name}</b>
                {person.self && <span className="text-soft"> (you)</span>}
              </td>
              <td className="[overflow-wrap:anywhere]">{person.email}</td>
              <td>
                <RoleOf person={person} fixed={!manages || person.self} action={action} />
              </td>
              <td>{stateWords(person)}</td>
              <td>{person.seen ? <Ago at={person.seen} /> : <span className="text-soft">never</span>}</td>
              <td className="text-right">
                <PersonActions person={person} manages={manages} action={action} onLink={() => makeLink(person)} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p role="status" className="sr-only">
        {action.said}
      </p>
      <Notice problem={action.problem} className="mt-2" />
      {made && <LinkToCopy {...made} />}
    </>
  );
}

function stateWords({ state, sessions, linkUntil }: ListedPerson): string {
  if (state === 'inactive') return 'may not sign in';
  if (state === 'invited') return linkUntil ? 'invited, has not come yet' : 'invited, the link is over';
  if (!sessions) return 'signed out';
  return sessions === 1 ? 'signed in' : `signed in, ${sessions} sessions`;
}

interface RoleProps {
  person: ListedPerson;
  fixed: boolean;
  action: ReturnType<typeof useAction>;
}

function RoleOf({ person: { id, name, role }, fixed, action }: RoleProps) {
  if (fixed) return role;
  return (
    <select
      className="field !h-[26px]"
      aria-label={`Role of ${name}`}
      value={role}
      disabled={action.busy}
      onChange={(event) => {
        const next = event.target.value as Role;
        void action.runAndRefresh(
          () => call('PATCH /api/people/:id', { id, body: { role: next } }),
          `${name} is ${next} now`,
        );
      }}
    >
      {roles.map((one) => (
        <option key={one}>{one}</option>
      ))}
    </select>
  );
}

interface ActionsProps {
  person: ListedPerson;
  manages: boolean;
  action: ReturnType<typeof useAction>;
  onLink: () => void;
}

function PersonActions({ person, manages, action, onLink }: ActionsProps) {
  const { id, name, state, sessions, self } = person;
  const invited = state === 'invited';
  if (!manages && !invited) return null;
  const setActive = (active: boolean) =>
    void action.runAndRefresh(
      () => call('PATCH /api/people/:id', { id, body: { active } }),
      active ? `${name} may sign in again` : `${name} may not sign in any more`,
    );
  const signOut = () =>
    void action.runAndRefresh(
      () => call('DELETE /api/people/:id/sessions', { id }),
      `${name} is signed out everywhere`,
    );
  return (
    <Menu
      title={`What can be done about ${name}`}
      face={<Ellipsis aria-hidden size={14} />}
      className="button quiet !h-[24px]"
    >
      <MenuEntry
        words={invited ? 'Make a new link' : 'Make a link for another password'}
        off={state === 'inactive'}
        onSelect={onLink}
      />
      {manages && (
        <>
          <MenuEntry words="Sign out everywhere" off={sessions === 0} onSelect={signOut} />
          <MenuLine />
          {state === 'inactive' ? (
            <MenuEntry words="Reactivate" onSelect={() => setActive(true)} />
          ) : (
            <MenuEntry words="Deactivate" grave off={self} onSelect={() => setActive(false)} />
          )}
        </>
      )}
    </Menu>
  );
}
