/** What others brought in since a person last looked: new items, and new versions of items held. */
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

/** How many items are new to the person, counted to 201. */
export const freshCount = (person: Person): Promise<number> => {
  allow(person, 'view');
  return q.freshCount(pool(), person.id);
};

/** From now on, only what comes later is new. */
export async function markSeen(person: Person): Promise<void> {
  allow(person, 'view');
  await q.markSeen(pool(), person.id);
}
