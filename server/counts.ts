/** The small numbers in the navigation: what waits to be settled. */
import { pool } from './db/pool';
import type { Person } from './people/roles';
import { one } from './db/query';

export async function navigationCounts(person: Person): Promise<Record<string, number>> {
  const r = await one<{ intake: number; rollouts: number }>(
    pool(),
    `
      select
        (
          select count(*)::int
          from intake
          where status in ('ready', 'failed')
        ) as intake,
        (
          select count(*)::int
          from rollout
          where status in ('planned', 'confirmed')
        ) as rollouts
    `,
  );
  return { ...(person.role === 'retoucher' ? {} : { Intake: r.intake }), Rollouts: r.rollouts };
}
