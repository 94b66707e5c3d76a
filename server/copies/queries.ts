import type { Sql } from '../db/pool';
import { many } from '../db/query';

export interface PrintRow {
  id: string;
  kind: string;
  format: string;
  fingerprint: Buffer;
  facts: Record<string, unknown>;
}
/** @param items null for all */
export const prints = (sql: Sql, items: readonly string[] | null = null): Promise<PrintRow[]> =>
  many<PrintRow>(
    sql,
    `
      select
        i.id, i.kind, i.format, v.fingerprint,
        case i.kind
          when 'preset' then v.facts - 'unknown'
          when 'camera-profile' then jsonb_build_object('camera', v.facts -> 'camera')
          else '{}'
        end as facts
      from item i join version v on v.id = i.newest_version_id
      where i.archived_at is null
        and v.fingerprint is not null
        and ($1::uuid[] is null or i.id = any ($1))
      order by i.created_at
    `,
    [items],
  );
export const meantPairs = async (sql: Sql): Promise<{ item_a: string; item_b: string }[]> =>
  many<{ item_a: string; item_b: string }>(sql, 'select item_a, item_b from meant_twice');
export const insertMeant = (sql: Sql, first: string, second: string, person: string) =>
  sql.query(
    `
      insert into meant_twice (item_a, item_b, person_id)
      values ($1, $2, $3)
      on conflict do nothing
    `,
    [first, second, person],
  );

/** The versions of one item go to another, numbered on from its own, as merged ones. */
export const takeVersions = (sql: Sql, from: string, to: string, title: string) =>
  sql.query(
    `
      update version v
      set
        item_id = $2, number = x.base + x.n,
        variant = case
          when v.variant = '' then left('merged from ' || $3, 80)
          else left(v.variant || ', merged from ' || $3, 80)
        end
      from (
        select
          id, row_number() over (order by number) as n,
          (
            select coalesce(max(number), 0)
            from version
            where item_id = $2
          ) as base
        from version
        where item_id = $1
      ) x
      where v.id = x.id
    `,
    [from, to, title],
  );
export const takeRibbons = async (sql: Sql, from: string, to: string): Promise<void> => {
  await sql.query(
    `
      insert into ribbon (item_id, person_id, made_by, made_at)
      select $2, person_id, made_by, made_at
      from ribbon
      where item_id = $1
      on conflict do nothing
    `,
    [from, to],
  );
  await sql.query('delete from ribbon where item_id = $1', [from]);
};
/** What was judged of the item is said of the one that stays; each verdict keeps the version that it judged. */
export const takeVerdicts = (sql: Sql, from: string, to: string) =>
  sql.query('update verdict set item_id = $2 where item_id = $1', [from, to]);
/** Arrivals that name the item, and the item itself: archived, with where it went. */
export const retarget = async (sql: Sql, from: string, to: string): Promise<void> => {
  await sql.query(
    `
      update arrival_entry e
      set target_item_id = $2
      from arrival i
      where i.id = e.arrival_id and e.target_item_id = $1
    `,
    [from, to],
  );
  await sql.query('update item set merged_into = $2 where merged_into = $1', [from, to]);
  await sql.query(
    `
      update item
      set archived_at = now(), merged_into = $2, revision = revision + 1, touched_at = now()
      where id = $1
    `,
    [from, to],
  );
};

export const withoutEffect = async (
  sql: Sql,
  most: number,
): Promise<{ id: string; kind: string; sha256: Buffer; facts: Record<string, unknown> }[]> =>
  many<{ id: string; kind: string; sha256: Buffer; facts: Record<string, unknown> }>(
    sql,
    `
      select v.id, i.kind, v.sha256, v.facts
      from version v join item i on i.id = v.item_id
      where v.content_sha256 is null
        and i.kind in ('look', 'preset', 'camera-profile')
      limit $1
    `,
    [most],
  );
export const setEffect = (
  sql: Sql,
  id: string,
  content: Buffer,
  fingerprint: Buffer | null,
  selvedge: [string, string][] | null,
) =>
  sql.query(
    `
      update version
      set content_sha256 = $2, fingerprint = $3, selvedge = coalesce(selvedge, $4)
      where id = $1
    `,
    [id, content, fingerprint, selvedge && JSON.stringify(selvedge)],
  );
