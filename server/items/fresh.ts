/** What others brought in since a person last looked: new items, and new versions of items held. */
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';

/** How many items are new to the person, counted to 1,001. */
export async function freshCount(person: Person): Promise<number> {
  allow(person, 'view');
  return (await pool().query<{ n: number }>(`select count(*)::int as n from (select 1 from version v join item i on i.newest_version_id = v.id where v.created_at > (select looked_at from person where id = $1) and v.author_id is distinct from $1::uuid and i.archived_at is null limit 1001) x`, [person.id])).rows[0]!.n;
}

/** From now on, only what comes later is new. */
export async function markSeen(person: Person): Promise<void> {
  allow(person, 'view');
  await pool().query('update person set looked_at = now() where id = $1', [person.id]);
}
