/**
 * Contents that nothing refers to: of arrivals that were discarded, of results that were made anew. They are told, and taken
 * away when they have been so for a while and a person says so.
 */
import { record, type Actor } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

export interface Unused {
  contents: number;
  bytes: number;
}
/** Younger ones may be on their way to something that refers to them. */
export const USUAL_AGE_DAYS = 30;
const AT_ONCE = 200;

/** How much is kept, and how much of it nothing has referred to for so many days. */
export async function measureContents(
  person: Person | null,
  days = USUAL_AGE_DAYS,
): Promise<{ all: Unused; unused: Unused }> {
  if (person) allow(person, 'content.collect');
  return { all: await q.allContents(pool()), unused: await q.unusedContents(pool(), days) };
}

/** Takes them away, some at a time, so that nobody waits for it; answers what that came to. */
export async function collectContents(person: Person | null, days = USUAL_AGE_DAYS): Promise<Unused> {
  if (person) allow(person, 'content.collect');
  const actor: Actor = person ? actorOf(person) : { personId: null, name: 'command line' };
  const taken: Unused = { contents: 0, bytes: 0 };
  for (;;) {
    const some = await transaction((sql) => q.deleteUnused(sql, days, AT_ONCE));
    taken.contents += some.contents;
    taken.bytes += some.bytes;
    if (some.contents < AT_ONCE) break;
  }
  if (taken.contents)
    await transaction((sql) => record(sql, actor, 'studio', 'contents', 'collected', null, { ...taken, days }));
  return taken;
}
