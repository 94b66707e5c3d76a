/** The activity view: every change with who, when, before and after. */
import { must } from '@/core/must';
import { isUuid } from '@/core/uuid';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

export type { ActivityRow } from './queries';
export const subjects = [
  'item',
  'shelf',
  'arrival',
  'rollout',
  'station',
  'order',
  'licence',
  'editor',
  'frame',
  'person',
  'studio',
  'camera',
  'lens',
  'request',
] as const;

export async function listActivity(
  person: Person,
  filter: { below?: string; person?: string; subject?: string },
  most = 100,
): Promise<{ rows: q.ActivityRow[]; people: { id: string; name: string }[]; more: number | null }> {
  allow(person, 'activity.view');
  const sql = pool();
  const subject = subjects.find((one) => one === filter.subject);
  const rows = await q.activity(
    sql,
    {
      below: /^\d{1,15}$/.test(filter.below ?? '') ? Number(filter.below) : null,
      person: isUuid(filter.person ?? '') ? must(filter.person) : null,
      about: subject ? { subject, id: null } : null,
    },
    most + 1,
  );
  return {
    rows: rows.slice(0, most),
    people: await q.actors(sql),
    more: rows.length > most ? must(rows[most - 1]).id : null,
  };
}

/** What happened to one item; everyone who may see it may see that. */
export async function activityOfItem(person: Person, id: string, most = 30): Promise<q.ActivityRow[]> {
  allow(person, 'view');
  return q.activity(pool(), { below: null, person: null, about: { subject: 'item', id } }, most);
}
