import type { Sql } from '../db/pool';
import { many } from '../db/query';

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
