/** The small numbers in the navigation: what waits to be settled. */
import { pool } from './db/pool';
import type { Person } from './people/roles';
import { one } from './db/query';

export async function navigationCounts(person: Person): Promise<Record<string, number>> {
  const counts = await one<{ arrival: number; rollouts: number }>(
    pool(),
    `
      select
        (
          select count(*)::int
          from arrival
          where status in ('ready', 'failed')
        ) as arrival,
        (
          select count(*)::int
          from rollout
          where status in ('planned', 'confirmed')
        ) as rollouts
    `,
  );
  return { ...(person.role === 'retoucher' ? {} : { Arrival: counts.arrival }), Rollouts: counts.rollouts };
}
