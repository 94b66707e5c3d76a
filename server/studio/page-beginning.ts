/** What every page begins with: who asks for it, and what the frame of all screens shows them. */
import type { Moment } from '../activity/queries';
import { pool } from '../db/pool';
import { sessionSeen } from '../people/queries';
import type { Person } from '../people/roles';
import { digest } from '../people/sessions';
import * as q from './queries';

export interface PageBeginning {
  person: Person;
  /** The small numbers in the navigation, by screen: what waits to be settled. */
  counts: Record<string, number>;
  /** before anything else of the page was read, so that what happens meanwhile is told afterwards */ moment: Moment;
}

/** Null where the token is of no session that lives. */
export async function beginningOfPage(token: string): Promise<PageBeginning | null> {
  if (!token) return null;
  const row = await q.beginningOfPage(pool(), digest(token));
  if (!row) return null;
  const { id, name, email, role, stale, arrivals, rollouts, moment } = row;
  if (stale) await sessionSeen(pool(), digest(token));
  return {
    person: { id, name, email, role },
    counts: { ...(role === 'retoucher' ? {} : { Intake: arrivals }), Rollouts: rollouts },
    moment,
  };
}
