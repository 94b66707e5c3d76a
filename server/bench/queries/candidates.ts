/** Versions as candidates of the bench. */
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

export interface CandidateRow {
  version_id: string;
  item_id: string;
  title: string;
  kind: string;
  format: string;
  number: number;
  status: string;
  cameras: string[];
  headings: string[];
  strength_least: number;
  strength_most: number;
  strength_usual: number | null;
  facts: Record<string, unknown>;
  compensation: unknown;
  supplier: string;
  scope: { input?: string | null; result?: string | null };
  intention: string;
  /** this version, all that it was made from, and what it calls */ roots: string[];
  /** it calls a look that was made from a version of its own item */ doubled: boolean;
  /** the title of the look that it calls, where one is bound */ called: string | null;
}

const candidate = `
  v.id as version_id, v.format, v.number, v.status, v.facts,
  i.id as item_id, i.title, i.kind, i.cameras, i.headings, i.compensation, i.supplier, i.scope, i.intention,
  i.strength_least, i.strength_most, i.strength_usual,
  (
    with recursive up (id) as (
      select v.id
      union
      select below.id
      from up
        cross join lateral (
          select l.source_version_id as id from lineage l where l.version_id = up.id
          union all
          select look.newest_version_id
          from preset_reference r
            join item bound on bound.id = r.item_id
            join item look on look.id = coalesce(bound.merged_into, bound.id)
          where r.version_id = up.id
            and r.kind = 'look'
            and look.newest_version_id is not null
        ) below
    )
    select array_agg(id::text)
    from up
  ) as roots,
  calls.title as called,
  coalesce(
    (
      with recursive made (id) as (
        select calls.newest_version_id
        union
        select l.source_version_id
        from lineage l
          join made on l.version_id = made.id
      )
      select bool_or(mv.item_id = i.id)
      from made join version mv on mv.id = made.id
    ),
    false
  ) as doubled
`;

/** The look that a preset calls. */
const joinCalled = `
  left join lateral (
    select look.title, look.newest_version_id
    from preset_reference r
      join item bound on bound.id = r.item_id
      join item look on look.id = coalesce(bound.merged_into, bound.id)
    where r.version_id = v.id
      and r.kind = 'look'
  ) calls on true
`;

export const candidates = async (sql: Sql, versions: string[]): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      select ${candidate}
      from version v join item i on i.id = v.item_id ${joinCalled}
      where v.id = any($1::uuid[])
    `,
    [versions],
  );

/** Newest versions of camera profiles, for a camera or for any. */
export const profilesFor = async (sql: Sql, cameras: string[]): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      select ${candidate}
      from item i join version v on v.id = i.newest_version_id ${joinCalled}
      where i.kind = 'camera-profile'
        and i.archived_at is null
        and i.cameras && $1::text[]
      order by lower(i.title), i.id
      limit 200
    `,
    [cameras],
  );

/** Newest versions of looks and presets on a shelf, in its order. */
export const onShelf = async (sql: Sql, shelf: string, most: number): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      select ${candidate}
      from item i join version v on v.id = i.newest_version_id ${joinCalled}
      where i.shelf_id = $1
        and i.kind in ('look', 'preset', 'camera-profile')
        and i.archived_at is null
      order by i.shelf_order, i.id
      limit $2
    `,
    [shelf, most],
  );

export interface LikeRow {
  version_id: string;
  /** a fingerprint of its effect */ fingerprint: Buffer | null;
  /** it bears a name of the item */ named: boolean;
}

/** Newest versions of the item's kind from other suppliers, for a camera of its own where it has some. */
export const fromElsewhere = (sql: Sql, itemId: string, most: number): Promise<LikeRow[]> =>
  many<LikeRow>(
    sql,
    `
      select
        v.id as version_id, v.fingerprint,
        lower(i.title) = lower(of.title)
          or i.aliases && array[of.title]
          or of.aliases && array[i.title] as named
      from item of, item i join version v on v.id = i.newest_version_id
      where of.id = $1
        and i.archived_at is null
        and i.id <> of.id
        and i.kind = of.kind
        and i.supplier <> of.supplier
        and (i.cameras = '{}' or of.cameras = '{}' or i.cameras && of.cameras)
      order by named desc, i.touched_at desc, i.id
      limit $2
    `,
    [itemId, most],
  );

/** The fingerprint of an item's newest version. */
export const fingerprintOf = async (sql: Sql, itemId: string): Promise<Buffer | null> =>
  (
    await maybe<{ fingerprint: Buffer | null }>(
      sql,
      'select v.fingerprint from item i join version v on v.id = i.newest_version_id where i.id = $1',
      [itemId],
    )
  )?.fingerprint ?? null;

/** Newest versions of items. */
export const byItems = async (sql: Sql, items: readonly string[]): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      select ${candidate}
      from item i join version v on v.id = i.newest_version_id ${joinCalled}
      where i.id = any($1::uuid[])
    `,
    [items],
  );
