/** The log of events: whoever changes something writes a row in the same transaction. */
import type { ActionOf, Subject } from '@/core/activity/sentences';
import { must } from '@/core/must';
import type { Sql } from '../db/pool';
import { many, nameOf, one } from '../db/query';

export interface Actor {
  personId: string | null;
  name: string;
}

/** Writes an event; answers its number. */
export async function record<S extends Subject>(
  sql: Sql,
  actor: Actor,
  subject: S,
  subjectId: string,
  action: ActionOf<S>,
  before: unknown = null,
  after: unknown = null,
): Promise<number> {
  const { id } = await one<{ id: number }>(
    sql,
    `
      insert into event (person_id, actor, subject, subject_id, action, before, after)
      values ($1, $2, $3, $4, $5, $6, $7)
      returning id
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
  return id;
}

export interface NewEvent {
  subjectId: string;
  before: unknown;
  after: unknown;
}

/** Many events of one kind at once. */
export const recordMany = <S extends Subject>(
  sql: Sql,
  actor: Actor,
  subject: S,
  action: ActionOf<S>,
  events: readonly NewEvent[],
) =>
  sql.query(
    `
      insert into event (person_id, actor, subject, subject_id, action, before, after)
      select $1, $2, $3, r."subjectId", $4, nullif(r.before, 'null'), nullif(r.after, 'null')
      from jsonb_to_recordset($5::jsonb) as r ("subjectId" text, before jsonb, after jsonb)
    `,
    [actor.personId, actor.name, subject, action, JSON.stringify(events)],
  );

/** What a person changed of items in one go: by the numbers of its first and last event, and no other change that came in between. */
export const editsBetween = (
  sql: Sql,
  personId: string,
  first: number,
  last: number,
): Promise<{ id: string; before: Record<string, unknown>; after: Record<string, unknown> }[]> =>
  many(
    sql,
    `
      select subject_id::uuid as id, before, after
      from event
      where id between $2 and $3
        and xid = (select xid from event where id = $2)
        and person_id = $1
        and subject = 'item'
        and action in ('renamed', 'described')
      order by id desc
    `,
    [personId, first, last],
  );

export interface EventRow {
  id: number;
  at: Date;
  actor: string;
  subject: string;
  subject_id: string;
  action: string;
}

/**
 * A moment of the log: which transactions had ended by then, as PostgreSQL writes a snapshot (`10:14:11,12`). What came
 * about since is asked by it and not by a number: a transaction that takes long neither hides what others did meanwhile,
 * nor is it missed when it ends at last.
 */
export type Moment = string;
const MOMENT = /^\d{1,20}:\d{1,20}:(\d{1,20}(,\d{1,20}){0,200})?$/;
export const isMoment = (text: string): boolean => MOMENT.test(text);

export const thisMoment = async (sql: Sql): Promise<Moment> =>
  (await one<{ moment: Moment }>(sql, { name: 'this moment', text: 'select pg_current_snapshot()::text as moment' }))
    .moment;

/** What has come about since a moment, in order; of very much, the latest. And the moment that it is now. */
export async function eventsSince(
  sql: Sql,
  since: Moment,
  most = 1000,
): Promise<{ events: EventRow[]; moment: Moment }> {
  const rows = await many<Nullable<EventRow> & { moment: Moment }>(
    sql,
    `
      select e.id, e.at, e.actor, e.subject, e.subject_id, e.action, pg_current_snapshot()::text as moment
      from (select) as always
        left join lateral (
          select id, at, actor, subject, subject_id, action
          from event
          where xid >= pg_snapshot_xmin($1::pg_snapshot)
            and not pg_visible_in_snapshot(xid, $1::pg_snapshot)
          order by id desc
          limit $2
        ) e on true
      order by e.id
    `,
    [since, most],
  );
  const { moment } = must(rows[0]);
  // of nothing that has come about, there is one row with the moment alone
  const events = rows.flatMap(({ moment: _moment, ...event }) => (event.id === null ? [] : [event as EventRow]));
  return { events, moment };
}
type Nullable<T> = { [Key in keyof T]: T[Key] | null };

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

/** The name that the subject of an event bears now; null where it bears none. */
const nameNow = `
  case e.subject
    when 'item' then (
      select title
      from item
      where id = named.id
    )
    when 'shelf' then (
      select name
      from shelf
      where id = named.id
    )
    when 'station' then (
      select name
      from station
      where id = named.id
    )
    when 'arrival' then (
      select name
      from arrival
      where id = named.id
    )
    when 'rollout' then (
      select title
      from rollout
      where id = named.id
    )
    when 'conversion' then (
      select title
      from conversion
      where id = named.id
    )
    when 'editor-chart' then (
      select what || ', ' || editor
      from editor_chart
      where id = named.id
    )
    when 'pack' then (
      select name
      from pack
      where id = named.id
    )
    when 'licence' then (
      select name
      from licence
      where id = named.id
    )
    when 'frame' then (
      select name
      from frame
      where id = named.id
    )
    when 'person' then (
      select name
      from person
      where id = named.id
    )
    when 'order' then coalesce(e.after ->> 'name', e.before ->> 'name', '')
    when 'camera' then coalesce(e.after ->> 'name', '')
    when 'lens' then coalesce(e.after ->> 'name', '')
    when 'request' then coalesce(e.after ->> 'name', '')
    when 'editor' then e.subject_id
  end
`;

export interface ActivityFilter {
  below: number | null;
  person: string | null;
  /** of one kind, and of that kind one alone where `id` is given */ about: {
    subject: string;
    id: string | null;
  } | null;
}

/** Newest first, below an id; with the name that the subject bears now. A statement for what is asked, so that its plan can be kept. */
export async function activity(sql: Sql, filter: ActivityFilter, most: number): Promise<ActivityRow[]> {
  const values: unknown[] = [most];
  const parts: string[] = [];
  const add = (column: string, is: '<' | '=', value: string | number | null): void => {
    if (value !== null) parts.push(`${column} ${is} $${values.push(value)}`);
  };
  add('e.id', '<', filter.below);
  add('e.person_id', '=', filter.person);
  if (filter.about) {
    add('e.subject', '=', filter.about.subject);
    add('e.subject_id', '=', filter.about.id);
  } else parts.push(`e.subject <> 'job'`);
  const text = `
    select
      e.id, e.at, e.actor, e.subject, e.subject_id, e.action, e.before, e.after,
      ${nameNow} as title
    from event e
      cross join lateral (
        -- an index finds it by its number; what is named otherwise has none
        select case when e.subject_id ~ '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' then e.subject_id::uuid end as id
      ) named
    where ${parts.join(' and ')}
    order by e.id desc
    limit $1
  `;
  return many<ActivityRow>(sql, { name: nameOf('activity', text), text, values });
}
export const actors = async (sql: Sql): Promise<{ id: string; name: string }[]> =>
  many<{ id: string; name: string }>(sql, 'select id, name from person order by name');
