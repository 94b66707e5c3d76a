import type { Sql } from '../db/pool';
import type { Role } from './roles';
import { maybe, one } from '../db/query';

export interface PersonRow {
  id: string;
  name: string;
  email: string;
  role: Role;
  password_hash: string;
  active: boolean;
}

export const countPeople = async (sql: Sql): Promise<number> =>
  (await one<{ n: number }>(sql, 'select count(*)::int as n from person')).n;

export const insertPerson = (sql: Sql, person: { id: string; name: string; email: string; role: Role; hash: string }) =>
  sql.query(
    `
      insert into person (id, name, email, role, password_hash)
      values ($1, $2, $3, $4, $5)
    `,
    [person.id, person.name, person.email, person.role, person.hash],
  );

export const personByEmail = async (sql: Sql, email: string): Promise<PersonRow | undefined> =>
  maybe<PersonRow>(
    sql,
    `
      select id, name, email::text, role, password_hash, active
      from person
      where email = $1
    `,
    [email],
  );

export interface NewSession {
  token: Buffer;
  personId: string;
  days: number;
  agent: string;
  network: string;
}
export const insertSession = (sql: Sql, { token, personId, days, agent, network }: NewSession) =>
  sql.query(
    `
      insert into session (token_sha256, person_id, expires_at, user_agent, network)
      values ($1, $2, now() + make_interval(days => $3), $4, $5)
    `,
    [token, personId, days, agent, network],
  );

/** Whether somebody of this account has a session that was begun from that network. */
export const isKnownFrom = async (sql: Sql, email: string, network: string): Promise<boolean> =>
  (
    await one<{ known: boolean }>(
      sql,
      `
        select exists (
          select 1
          from session s join person p on p.id = s.person_id
          where p.email = $1::citext and s.network = $2
        ) as known
      `,
      [email, network],
    )
  ).known;

export const personBySession = async (sql: Sql, token: Buffer): Promise<PersonRow | undefined> =>
  maybe<PersonRow>(
    sql,
    `
      select
        p.id, p.name, p.email::text, p.role, p.password_hash, p.active
      from session s join person p on p.id = s.person_id
      where s.token_sha256 = $1
        and s.expires_at > now()
        and p.active
    `,
    [token],
  );

export const deleteSession = (sql: Sql, token: Buffer) =>
  sql.query('delete from session where token_sha256 = $1', [token]);
export const deleteOldSessions = (sql: Sql) => sql.query(`delete from session where expires_at < now()`);

/** Until the transaction ends, nobody else counts against these; in one order, so that two never wait for each other. */
export const lockFailures = (sql: Sql, subjects: readonly string[]) =>
  sql.query(
    `
      select pg_advisory_xact_lock(hashtextextended(subject, 0))
      from (
        select subject
        from unnest($1::text[]) as t (subject)
        order by subject
      ) s
    `,
    [subjects],
  );
export const insertFailures = (sql: Sql, subjects: readonly string[]) =>
  sql.query('insert into sign_in_failure (subject) select unnest($1::text[])', [subjects]);
/** How many tries of the last day have failed, and how many seconds ago the last one did. */
export const failuresOf = (sql: Sql, subject: string): Promise<{ n: number; ago: number }> =>
  one<{ n: number; ago: number }>(
    sql,
    `
      select count(*)::int as n, coalesce(extract(epoch from now() - max(at)), 0)::float8 as ago
      from sign_in_failure
      where subject = $1
        and at > now() - interval '1 day'
    `,
    [subject],
  );
export const deleteOldFailures = (sql: Sql) =>
  sql.query(`delete from sign_in_failure where at < now() - interval '1 day'`);
export const deleteFailures = (sql: Sql, subjects: readonly string[]) =>
  sql.query('delete from sign_in_failure where subject = any($1)', [subjects]);
/** The latest try of each was none. */
export const deleteLastFailures = (sql: Sql, subjects: readonly string[]) =>
  sql.query(
    `
      delete from sign_in_failure
      where id in (
        select max(id)
        from sign_in_failure
        where subject = any($1)
        group by subject
      )
    `,
    [subjects],
  );
