/** Ribbons as a list: the short everyday list in its order, and those that nobody remembers. */
import type { BodyOf } from '@/core/api';
import { itemEndpoints } from '@/core/api/items';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

export type { RibbonRow } from './queries';

export async function listRibbons(person: Person): Promise<{ mine: q.RibbonRow[]; house: q.RibbonRow[] }> {
  allow(person, 'view');
  const [mine, house] = await Promise.all([
    q.ribbons(pool(), person.id, person.id),
    q.ribbons(pool(), null, person.id),
  ]);
  return { mine, house };
}
export const ribbonsOfItem = (person: Person, itemId: string) => {
  allow(person, 'view');
  return q.ribbonsOn(pool(), itemId);
};

const owner = (person: Person, whose: string): string | null => (whose === 'house' ? null : person.id);
const asked = (person: Person, input: BodyOf<'POST /api/ribbons'>) => {
  allow(person, input.whose === 'house' ? 'ribbon.house' : 'ribbon.own');
  return checked(itemEndpoints['POST /api/ribbons'].body, input);
};

export async function orderRibbons(person: Person, input: BodyOf<'POST /api/ribbons'>): Promise<void> {
  const choice = asked(person, input);
  await q.orderRibbons(pool(), owner(person, choice.whose), choice.ribbons);
}

/** Takes many ribbons off at once. */
export async function clearRibbons(person: Person, input: BodyOf<'POST /api/ribbons'>): Promise<{ cleared: number }> {
  const choice = asked(person, input);
  return transaction(async (sql) => {
    const gone = await q.clearRibbons(sql, owner(person, choice.whose), choice.ribbons);
    for (const ribbon of gone)
      await record(sql, actorOf(person), 'item', ribbon.item_id, 'ribbon taken off', null, { whose: choice.whose });
    return { cleared: gone.length };
  });
}
