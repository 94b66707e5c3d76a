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

export const insertSession = (sql: Sql, token: Buffer, personId: string, days: number, agent: string) =>
  sql.query(
    `
      insert into session (token_sha256, person_id, expires_at, user_agent)
      values ($1, $2, now() + make_interval(days => $3), $4)
    `,
    [token, personId, days, agent],
  );

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

export const insertFailure = (sql: Sql, subject: string) =>
  sql.query('insert into sign_in_failure (subject) values ($1)', [subject]);
export const failuresOf = async (sql: Sql, subject: string, minutes: number): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      `
        select count(*)::int as n
        from sign_in_failure
        where subject = $1
          and at > now() - make_interval(mins => $2)
      `,
      [subject, minutes],
    )
  ).n;
export const deleteOldFailures = (sql: Sql) =>
  sql.query(`delete from sign_in_failure where at < now() - interval '1 day'`);
export const deleteFailures = (sql: Sql, subject: string) =>
  sql.query('delete from sign_in_failure where subject = $1', [subject]);
