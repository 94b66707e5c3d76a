import type { Sql } from '../db/pool';
import type { Role } from './roles';
import { many, maybe, one } from '../db/query';

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

export const setupCode = async (sql: Sql): Promise<Buffer | null> =>
  (await one<{ code: Buffer | null }>(sql, 'select setup_code_sha256 as code from studio')).code;
export const setSetupCode = (sql: Sql, code: Buffer) => sql.query('update studio set setup_code_sha256 = $1', [code]);
/** Until the transaction ends nobody else adds a person. */
export const lockPeople = (sql: Sql) => sql.query('lock table person in share row exclusive mode');

export interface NewPerson {
  id: string;
  name: string;
  email: string;
  role: Role;
  /** of a password; null for whoever is to choose one */ hash: string | null;
}
export const insertPerson = (sql: Sql, { id, name, email, role, hash }: NewPerson) =>
  sql.query(
    `
      insert into person (id, name, email, role, password_hash, joined_at)
      values ($1, $2, $3, $4, coalesce($5, ''), case when $5::text is null then null else now() end)
    `,
    [id, name, email, role, hash],
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

/** Of a session `s` of a person `p`: that whoever bears it is let in. */
export const SESSION_LIVES = 's.expires_at > now() and p.active';

/** `stale`: it has not been noted for some minutes that the session is used. */
export const personBySession = async (sql: Sql, token: Buffer): Promise<(PersonRow & { stale: boolean }) | undefined> =>
  maybe<PersonRow & { stale: boolean }>(sql, {
    name: 'person by session',
    text: `
      select
        p.id, p.name, p.email::text, p.role, p.password_hash, p.active,
        s.seen_at < now() - interval '5 minutes' as stale
      from session s join person p on p.id = s.person_id
      where s.token_sha256 = $1
        and ${SESSION_LIVES}
    `,
    values: [token],
  });

export const deleteSession = (sql: Sql, token: Buffer) =>
  sql.query('delete from session where token_sha256 = $1', [token]);
export const sessionSeen = (sql: Sql, token: Buffer) =>
  sql.query('update session set seen_at = now() where token_sha256 = $1', [token]);
export const livingSessions = (sql: Sql, tokens: readonly string[]): Promise<{ token: string }[]> =>
  many(
    sql,
    `
      select encode(s.token_sha256, 'hex') as token
      from session s join person p on p.id = s.person_id
      where s.token_sha256 in (select decode(t, 'hex') from unnest($1::text[]) as t)
        and ${SESSION_LIVES}
    `,
    [tokens],
  );
export interface SessionRow {
  id: string;
  token: string;
  created_at: Date;
  seen_at: Date;
  user_agent: string;
  network: string;
}
export const sessionsOf = (sql: Sql, personId: string): Promise<SessionRow[]> =>
  many<SessionRow>(
    sql,
    `
      select id, encode(token_sha256, 'hex') as token, created_at, seen_at, user_agent, network
      from session
      where person_id = $1 and expires_at > now()
      order by seen_at desc
      limit 200
    `,
    [personId],
  );
export const deleteOwnSession = async (sql: Sql, personId: string, id: string): Promise<number> =>
  (await sql.query('delete from session where id = $2 and person_id = $1', [personId, id])).rowCount ?? 0;
/** All sessions of a person, but for the one that is kept; answers how many. */
export const deleteSessionsOf = async (sql: Sql, personId: string, keep: Buffer | null): Promise<number> =>
  (
    await sql.query('delete from session where person_id = $1 and ($2::bytea is null or token_sha256 <> $2)', [
      personId,
      keep,
    ])
  ).rowCount ?? 0;
/** Whether it was changed: not where another was set since `before` was read. */
export const setPassword = async (sql: Sql, personId: string, before: string, passwordHash: string): Promise<boolean> =>
  (
    await sql.query('update person set password_hash = $3 where id = $1 and password_hash = $2', [
      personId,
      before,
      passwordHash,
    ])
  ).rowCount === 1;
export const setActive = (sql: Sql, personId: string, active: boolean) =>
  sql.query('update person set active = $2 where id = $1', [personId, active]);
export interface ListedPerson {
  id: string;
  name: string;
  email: string;
  role: Role;
  active: boolean;
  /** has set a password */ joined: boolean;
  /** until when a link can be used, where one is open */ link_until: Date | null;
  sessions: number;
  seen_at: Date | null;
}
export const listPeople = (sql: Sql): Promise<ListedPerson[]> =>
  many<ListedPerson>(
    sql,
    `
      select
        p.id, p.name, p.email::text, p.role, p.active, p.joined_at is not null as joined, l.expires_at as link_until,
        count(s.token_sha256)::int as sessions, max(s.seen_at) as seen_at
      from person p
        left join person_link l on l.person_id = p.id and l.expires_at > now()
        left join session s on s.person_id = p.id and s.expires_at > now()
      group by p.id, l.expires_at
      order by p.name
    `,
  );

export const personById = (sql: Sql, id: string): Promise<PersonById | undefined> =>
  maybe<PersonById>(
    sql,
    `
      select id, name, email::text, role, active, joined_at is not null as joined
      from person
      where id = $1
      for update
    `,
    [id],
  );
export interface PersonById {
  id: string;
  name: string;
  email: string;
  role: Role;
  active: boolean;
  joined: boolean;
}

export const setRole = (sql: Sql, id: string, role: Role) =>
  sql.query('update person set role = $2 where id = $1', [id, role]);

/** The one before holds no longer. */
export const replaceLink = async (
  sql: Sql,
  link: { token: Buffer; personId: string; madeBy: string; days: number },
): Promise<Date> =>
  (
    await one<{ expires_at: Date }>(
      sql,
      `
        insert into person_link (token_sha256, person_id, made_by, expires_at)
        values ($1, $2, $3, now() + make_interval(days => $4))
        on conflict (person_id) do update
        set
          token_sha256 = excluded.token_sha256, made_by = excluded.made_by, made_at = now(),
          expires_at = excluded.expires_at
        returning expires_at
      `,
      [link.token, link.personId, link.madeBy, link.days],
    )
  ).expires_at;

/** Whom a link is for, as long as it holds and they are active. */
export const personByLink = (sql: Sql, token: Buffer): Promise<PersonById | undefined> =>
  maybe<PersonById>(
    sql,
    `
      select p.id, p.name, p.email::text, p.role, p.active, p.joined_at is not null as joined
      from person_link l join person p on p.id = l.person_id
      where l.token_sha256 = $1
        and l.expires_at > now()
        and p.active
      for update of l
    `,
    [token],
  );

/** By a link, which is used up. */
export async function setPasswordByLink(sql: Sql, personId: string, hash: string): Promise<void> {
  await sql.query('delete from person_link where person_id = $1', [personId]);
  await sql.query('update person set password_hash = $2, joined_at = coalesce(joined_at, now()) where id = $1', [
    personId,
    hash,
  ]);
}
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
