/** The trim that a verdict has kept with an item, forgotten again: it is laid without from then on. */
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { transaction } from '../db/pool';
import { itemById } from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { setCompensation } from './queries';

export async function forgetTrim(person: Person, itemId: string): Promise<void> {
  allow(person, 'item.edit');
  await transaction(async (sql) => {
    const item = await itemById(sql, itemId, person.id, true);
    if (!item) throw new Problem('not-found', 'There is no such item.', itemId, 'Go back to Shelves.');
    if (!item.compensation) return;
    await setCompensation(sql, itemId, null);
    await record(sql, actorOf(person), 'item', itemId, 'trim forgotten', { trim: item.compensation }, null);
  });
}
