/** The log of events: whoever changes something writes a row in the same transaction. */
import { must } from '@/core/must';
import type { Sql } from './db/pool';

export interface Actor {
  personId: string | null;
  name: string;
}

export async function record(
  sql: Sql,
  actor: Actor,
  subject: string,
  subjectId: string,
  action: string,
  before: unknown = null,
  after: unknown = null,
): Promise<void> {
  await sql.query(
    `
      insert into event (person_id, actor, subject, subject_id, action, before, after)
      values ($1, $2, $3, $4, $5, $6, $7)
    `,
    [
      actor.personId,
      actor.name,
      subject,
      subjectId,
      action,
      before === null ? null : JSON.stringify(before),
      after === null ? null : JSON.stringify(after),
    ],
  );
}

export interface EventRow {
  id: number;
  at: Date;
  actor: string;
  subject: string;
  subject_id: string;
  action: string;
}

/** Events after an id, below the snapshot's xmin, so that a late commit is never skipped. */
export async function eventsAfter(sql: Sql, id: number, most = 200): Promise<EventRow[]> {
  const result = await sql.query<EventRow>(
    `
      select id, at, actor, subject, subject_id, action
      from event
      where id > $1
        and xid < pg_snapshot_xmin(pg_current_snapshot())
      order by id
      limit $2
    `,
    [id, most],
  );
  return result.rows;
}

export async function lastEventId(sql: Sql): Promise<number> {
  const result = await sql.query<{ id: number }>(
    `
      select coalesce(max(id), 0) as id
      from event
      where xid < pg_snapshot_xmin(pg_current_snapshot())
    `,
  );
  return must(result.rows[0]).id;
}
