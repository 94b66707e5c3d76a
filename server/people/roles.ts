/** Who may do what: one table of role × action. Every service function names its action and asks here. */
import { Problem } from '@/core/problem';

export const roles = ['librarian', 'retoucher', 'lead'] as const;
export type Role = (typeof roles)[number];

export const actions = {
  view: ['librarian', 'retoucher', 'lead'],
  'ribbon.own': ['librarian', 'retoucher', 'lead'],
  'ribbon.house': ['librarian', 'lead'],
  'arrival.read': ['librarian', 'lead'],
  'arrival.make': ['librarian'],
  'arrival.accept': ['librarian'],
  'editor.propose': ['librarian', 'lead'],
  'editor.describe': ['lead'],
  'shelf.edit': ['librarian'],
  'item.edit': ['librarian'],
  'item.convert': ['librarian', 'lead'],
  'item.archive': ['librarian'],
  'licence.edit': ['librarian', 'lead'],
  'search.save': ['librarian'],
  'studio.set': ['librarian', 'lead'],
  'activity.view': ['librarian', 'lead'],
  backup: ['librarian', 'lead'],
  'content.collect': ['librarian', 'lead'],
  restore: ['librarian', 'lead'],
  'gear.ask': ['librarian', 'retoucher', 'lead'],
  'gear.edit': ['librarian', 'lead'],
  'bench.save': ['librarian', 'retoucher', 'lead'],
  'verdict.give': ['librarian', 'retoucher', 'lead'],
  'choice.make': ['librarian', 'lead'],
  'frame.edit': ['librarian', 'lead'],
  'profile.edit': ['librarian'],
  'item.approve': ['librarian', 'lead'],
  'rollout.plan': ['librarian', 'lead'],
  'rollout.confirm': ['librarian', 'lead'],
  'station.enrol': ['librarian'],
  'station.editor': ['librarian', 'retoucher', 'lead'],
  'person.add': ['librarian', 'lead'],
  'person.manage': ['lead'],
} as const satisfies Record<string, readonly Role[]>;
export type Action = keyof typeof actions;

export interface Person {
  id: string;
  name: string;
  email: string;
  role: Role;
}

export const may = (person: Pick<Person, 'role'>, action: Action): boolean =>
  (actions[action] as readonly Role[]).includes(person.role);

/** Throws unless the person's role may do the action. */
export function allow(person: Pick<Person, 'role' | 'name'>, action: Action): void {
  if (!may(person, action))
    throw new Problem(
      'not-allowed',
      `${person.name} may not do this: it needs the role of ${actions[action].join(' or ')}.`,
      action,
      'Ask someone with that role.',
    );
}

export const actorOf = (person: Person): { personId: string; name: string } => ({
  personId: person.id,
  name: person.name,
});
