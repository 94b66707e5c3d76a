/** The log of events: whoever changes something writes a row in the same transaction. */
import type { Sql } from '../db/pool';
import { many, one } from '../db/query';

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
export const eventsAfter = async (sql: Sql, id: number, most = 200): Promise<EventRow[]> =>
  many<EventRow>(
    sql,
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

export const lastEventId = async (sql: Sql): Promise<number> =>
  (
    await one<{ id: number }>(
      sql,
      `
        select coalesce(max(id), 0) as id
        from event
        where xid < pg_snapshot_xmin(pg_current_snapshot())
      `,
    )
  ).id;

export interface ActivityRow {
  id: number;
  at: Date;
  actor: string;
  subject: string;
  subject_id: string;
  action: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
  title: string | null;
}

/** Newest first, below an id; with the name that the subject bears now. */
export const activity = async (
  sql: Sql,
  filter: { below: number | null; person: string | null; subject: string | null; subjectId: string | null },
  most: number,
): Promise<ActivityRow[]> =>
  many<ActivityRow>(
    sql,
    `
      select
        e.id, e.at, e.actor, e.subject, e.subject_id, e.action, e.before, e.after,
        case e.subject
          when 'item' then (
            select title
            from item
            where id::text = e.subject_id
          )
          when 'shelf' then (
            select name
            from shelf
            where id::text = e.subject_id
          )
          when 'station' then (
            select name
            from station
            where id::text = e.subject_id
          )
          when 'arrival' then (
            select name
            from arrival
            where id::text = e.subject_id
          )
          when 'rollout' then (
            select title
            from rollout
            where id::text = e.subject_id
          )
          when 'licence' then (
            select name
            from licence
            where id::text = e.subject_id
          )
          when 'frame' then (
            select name
            from frame
            where id::text = e.subject_id
          )
          when 'person' then (
            select name
            from person
            where id::text = e.subject_id
          )
          when 'camera' then coalesce(e.after ->> 'name', '')
          when 'lens' then coalesce(e.after ->> 'name', '')
          when 'request' then coalesce(e.after ->> 'name', '')
          when 'editor' then e.subject_id
        end as title
      from event e
      where ($1::bigint is null or e.id < $1)
        and ($2::uuid is null or e.person_id = $2)
        and ($3::text is null or e.subject = $3)
        and ($4::text is null or (e.subject_id = $4 and e.subject = $3))
        and (e.subject <> 'job' or $3 = 'job')
      order by e.id desc
      limit $5
    `,
    [filter.below, filter.person, filter.subject, filter.subjectId, most],
  );
export const actors = async (sql: Sql): Promise<{ id: string; name: string }[]> =>
  many<{ id: string; name: string }>(sql, 'select id, name from person order by name');
