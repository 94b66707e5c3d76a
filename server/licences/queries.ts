import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export type Says = 'yes' | 'no' | 'unknown';
export interface LicenceRow {
  id: string;
  name: string;
  owner: string;
  terms: string;
  may_convert: Says;
  may_spread: Says;
  seats: number | null;
  seats_by: 'person' | 'device' | 'site';
  ends_on: string | null;
  at_end: 'remove' | 'keep results' | 'ask';
  items: number;
}

const columns = `
  l.id, l.name, l.owner, l.terms, l.may_convert, l.may_spread, l.seats, l.seats_by,
  to_char(l.ends_on, 'YYYY-MM-DD') as ends_on, l.at_end
`;
export const licences = async (sql: Sql): Promise<LicenceRow[]> =>
  many<LicenceRow>(sql, {
    name: 'licences',
    text: `
      select
        ${columns},
        (
          select count(*)::int
          from item i
          where i.licence_id = l.id and i.archived_at is null
        ) as items
      from licence l
      order by l.name
    `,
  });
/** For a choice among them. */
export const licenceNames = (sql: Sql): Promise<{ id: string; name: string }[]> =>
  many(sql, { name: 'names of licences', text: 'select id, name from licence order by name' });

export const licenceById = async (sql: Sql, id: string): Promise<LicenceRow | undefined> =>
  maybe<LicenceRow>(sql, `select ${columns}, 0 as items from licence l where l.id = $1`, [id]);
export const licenceByName = async (sql: Sql, name: string): Promise<{ id: string } | undefined> =>
  maybe<{ id: string }>(sql, 'select id from licence where lower(name) = lower($1)', [name]);
export const saveLicence = (sql: Sql, licence: Omit<LicenceRow, 'items'>) =>
  sql.query(
    `
      insert into
        licence (id, name, owner, terms, may_convert, may_spread, seats, seats_by, ends_on, at_end)
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
      on conflict (id) do update
      set
        name = excluded.name, owner = excluded.owner, terms = excluded.terms,
        may_convert = excluded.may_convert, may_spread = excluded.may_spread, seats = excluded.seats,
        seats_by = excluded.seats_by, ends_on = excluded.ends_on, at_end = excluded.at_end
    `,
    [
      licence.id,
      licence.name,
      licence.owner,
      licence.terms,
      licence.may_convert,
      licence.may_spread,
      licence.seats,
      licence.seats_by,
      licence.ends_on,
      licence.at_end,
    ],
  );
/** Facets name licences: items of a renamed one are seen anew. */
export const touchItems = (sql: Sql, licenceId: string) =>
  sql.query('update item set touched_at = now() where licence_id = $1', [licenceId]);

/** An item at a machine: placed there, or on its way by a confirmed rollout. A card counts as the station whose reader it is in. */
export interface Holder {
  item_id: string;
  licence_id: string | null;
  station_id: string;
  person: string;
}
/** Where these items are, and where anything under these licences is. */
export const holders = (sql: Sql, items: readonly string[], licences: readonly string[]): Promise<Holder[]> =>
  many<Holder>(
    sql,
    `
      select distinct i.id as item_id, i.licence_id, m.id as station_id, m.person
      from
        (
          select p.station_id, p.version_id
          from placement p
          union
          select s.station_id, s.version_id
          from rollout_step s join rollout r on r.id = s.rollout_id
          where r.status = 'confirmed' and s.outcome is null and s.do_what = 'put'
        ) there
        join version v on v.id = there.version_id
        join item i on i.id = v.item_id
        join station st on st.id = there.station_id
        join station m on m.id = coalesce(st.host_id, st.id)
      where i.id = any ($1::uuid[]) or i.licence_id = any ($2::uuid[])
    `,
    [items, licences],
  );
/** Two who confirm at once count the seats of a licence one after the other. */
export const lockLicences = (sql: Sql, ids: readonly string[]) =>
  sql.query('select 1 from licence where id = any ($1::uuid[]) order by id for update', [ids]);
export const machines = (
  sql: Sql,
  stations: readonly string[],
): Promise<{ of: string; id: string; person: string }[]> =>
  many(
    sql,
    `
      select s.id as of, m.id, m.person
      from station s join station m on m.id = coalesce(s.host_id, s.id)
      where s.id = any ($1::uuid[])
    `,
    [stations],
  );
