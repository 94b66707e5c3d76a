/** What presets refer to by name, and the items that are meant. */
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export type ReferenceKind = 'look' | 'camera-profile';

export interface ReferenceRow {
  version_id: string;
  kind: ReferenceKind;
  name: string;
  item_id: string | null;
  /** of the item that is meant */ title: string | null;
  newest_version_id: string | null;
  archived_at: Date | null;
  /** it was made from the preset that calls it: the effect acts twice */ twice: boolean;
  /** items that the name may mean, where none is bound */ meant: { id: string; title: string; supplier: string }[];
}

/** Says what a new version of a preset refers to. */
export const insertReference = (sql: Sql, versionId: string, kind: ReferenceKind, name: string) =>
  sql.query(
    `
      insert into preset_reference (version_id, kind, name) values ($1, $2, $3)
      on conflict do nothing
    `,
    [versionId, kind, name],
  );

/** Takes away what a version does not refer to any more. */
export const dropOtherReferences = (
  sql: Sql,
  versionId: string,
  still: readonly { kind: ReferenceKind; name: string }[],
) =>
  sql.query(
    `
      delete from preset_reference
      where version_id = $1
        and not exists (
          select 1
          from jsonb_to_recordset($2::jsonb) s (kind text, name text)
          where s.kind = preset_reference.kind and s.name = preset_reference.name
        )
    `,
    [versionId, JSON.stringify(still)],
  );

/** Binds each of these names to the one item that it can mean; those that are bound already stay. */
export const bindWaiting = (sql: Sql, kind: ReferenceKind, names: readonly string[]) =>
  sql.query(
    `
      update preset_reference r
      set item_id = m.ids[1]
      from (
        select n.name, meant_by($1, n.name) as ids
        from unnest($2::text[]) n (name)
      ) m
      where r.kind = $1
        and r.item_id is null
        and lower(r.name) = lower(m.name)
        and array_length(m.ids, 1) = 1
    `,
    [kind, names],
  );

/** What a new version takes over from an older one of its item: a person may have said what the name means. */
export const bindAsBefore = (sql: Sql, versionId: string) =>
  sql.query(
    `
      update preset_reference r
      set item_id = o.item_id, bound_by = o.bound_by
      from version v
        join version older on older.item_id = v.item_id and older.id <> v.id
        join preset_reference o on o.version_id = older.id
      where v.id = $1
        and r.version_id = v.id
        and r.item_id is null
        and o.kind = r.kind
        and lower(o.name) = lower(r.name)
        and o.item_id is not null
    `,
    [versionId],
  );

const reference = `
  r.version_id, r.kind, r.name, i.id as item_id, i.title, i.newest_version_id, i.archived_at,
  case
    when i.id is null then coalesce(
      (
        select jsonb_agg(jsonb_build_object('id', m.id, 'title', m.title, 'supplier', m.supplier) order by m.title, m.id)
        from item m
        where m.id = any(meant_by(r.kind, r.name))
      ),
      '[]'
    )
    else '[]'
  end as meant,
  coalesce(
    (
      with recursive made (id) as (
        select i.newest_version_id
        union
        select l.source_version_id
        from lineage l
          join made on l.version_id = made.id
      )
      select bool_or(mv.item_id = own.item_id)
      from made
        join version mv on mv.id = made.id
        join version own on own.id = r.version_id
    ),
    false
  ) as twice
`;

/** Of these versions; an item that was merged into another counts as that one. */
export const referencesOf = (sql: Sql, versions: readonly string[]): Promise<ReferenceRow[]> =>
  many<ReferenceRow>(
    sql,
    `
      select ${reference}
      from preset_reference r
        left join item bound on bound.id = r.item_id
        left join item i on i.id = coalesce(bound.merged_into, bound.id)
      where r.version_id = any($1::uuid[])
      order by r.version_id, r.kind desc
    `,
    [versions],
  );

/** Of versions: each look with the preset among them from whose item it was made, at however many removes. */
export const madeOfPresets = (sql: Sql, versions: readonly string[]): Promise<{ look: string; preset: string }[]> =>
  many(
    sql,
    `
      with recursive made (look, id) as (
        select v.id, v.id
        from version v
          join item i on i.id = v.item_id
        where v.id = any($1) and i.kind = 'look'
        union
        select made.look, l.source_version_id
        from lineage l
          join made on l.version_id = made.id
      )
      select distinct made.look, p.id as preset
      from made
        join version source on source.id = made.id
        join version p on p.item_id = source.item_id and p.id = any($1)
        join item i on i.id = p.item_id and i.kind = 'preset'
      order by made.look, p.id
    `,
    [versions],
  );

export const bindTo = (sql: Sql, versionId: string, kind: ReferenceKind, itemId: string, personId: string) =>
  sql.query(
    `
      update preset_reference r
      set item_id = $3, bound_by = $4
      from version v
        join version other on other.item_id = v.item_id
      where v.id = $1
        and r.version_id = other.id
        and r.kind = $2
        and (r.version_id = v.id or r.item_id is null)
    `,
    [versionId, kind, itemId, personId],
  );

export interface ReferringRow {
  item_id: string;
  version_id: string;
  title: string;
  format: string;
  kind: ReferenceKind;
  name: string;
}

/** Presets whose newest version refers to an item. */
export const referringTo = (sql: Sql, itemId: string): Promise<ReferringRow[]> =>
  many<ReferringRow>(
    sql,
    `
      select p.id as item_id, p.newest_version_id as version_id, p.title, p.format, r.kind, r.name
      from preset_reference r
        join item p on p.newest_version_id = r.version_id
        join item bound on bound.id = r.item_id
      where coalesce(bound.merged_into, bound.id) = $1
        and p.archived_at is null
        and p.id <> $1
      order by lower(p.title), p.id
    `,
    [itemId],
  );

export const referenceOf = (sql: Sql, versionId: string, kind: ReferenceKind) =>
  maybe<{ name: string; item_id: string | null }>(
    sql,
    'select name, item_id from preset_reference where version_id = $1 and kind = $2',
    [versionId, kind],
  );
