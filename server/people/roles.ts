/** Who may do what: one table of role × action. Every service function names its action and asks here. */
import { roles, type Role } from '@/core/api/people';
import { Problem } from '@/core/problem';

export { roles, type Role };

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
  'proof.set': ['lead'],
  'review.set': ['lead'],
  'activity.view': ['librarian', 'lead'],
  backup: ['librarian', 'lead'],
  'content.collect': ['librarian', 'lead'],
  restore: ['librarian', 'lead'],
  'gear.ask': ['librarian', 'retoucher', 'lead'],
  'gear.edit': ['librarian', 'lead'],
  'bench.save': ['librarian', 'retoucher', 'lead'],
  'verdict.give': ['librarian', 'retoucher', 'lead'],
  'choice.make': ['librarian', 'lead'],
  'opening.set': ['librarian', 'lead'],
  'frame.edit': ['librarian', 'lead'],
  'profile.edit': ['librarian'],
  'item.approve': ['librarian', 'lead'],
  'rollout.plan': ['librarian', 'lead'],
  'rollout.confirm': ['librarian', 'lead'],
  'station.enrol': ['librarian'],
  'sighting.ask': ['librarian', 'retoucher', 'lead'],
  'station.show': ['librarian', 'retoucher', 'lead'],
  'station.editor': ['librarian', 'retoucher', 'lead'],
  'person.view': ['librarian', 'lead'],
  'person.add': ['librarian', 'lead'],
  'person.manage': ['lead'],
} as const satisfies Record<string, readonly Role[]>;
export type Action = keyof typeof actions;

/** Actions as people say them. */
export const actionWords: Record<Action, string> = {
  view: 'look at everything on the shelves',
  'ribbon.own': 'set ribbons of their own',
  'ribbon.house': 'set the house’s ribbons',
  'arrival.read': 'look into arrivals',
  'arrival.make': 'bring in files',
  'arrival.accept': 'accept, correct, discard and undo arrivals',
  'editor.propose': 'propose descriptors of editors',
  'editor.describe': 'decide on descriptors of editors',
  'shelf.edit': 'make, order and remove shelves',
  'item.edit': 'change items, merge copies',
  'item.convert': 'convert, and make other forms',
  'item.archive': 'archive items and bring them back',
  'licence.edit': 'note licences',
  'search.save': 'save searches as shelves',
  'studio.set': 'set what counts as a copy',
  'proof.set': 'set how far off a table may be, and let go what is further off',
  'review.set': 'set whether another person confirms a rollout',
  'activity.view': 'see what happened',
  backup: 'take backups away',
  'content.collect': 'remove contents that nothing needs',
  restore: 'restore a backup',
  'gear.ask': 'ask for cameras and lenses to be covered',
  'gear.edit': 'list cameras and lenses, answer requests',
  'bench.save': 'save benches',
  'verdict.give': 'choose and judge on the bench',
  'choice.make': 'make house choices',
  'opening.set': 'set opening rules',
  'frame.edit': 'look after frames and charts',
  'profile.edit': 'edit camera profiles',
  'item.approve': 'approve and retire versions',
  'rollout.plan': 'plan rollouts',
  'rollout.confirm': 'confirm, stop and undo rollouts',
  'station.enrol': 'add stations and their agents',
  'sighting.ask': 'ask editors for pictures, and give their exports',
  'station.show': 'have a file shown at a workstation',
  'station.editor': 'start and quit stand-in editors',
  'person.view': 'see who may sign in',
  'person.add': 'invite people',
  'person.manage': 'give roles, sign out and shut out people, invite leads',
};

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
