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
  /** this version and all that it was made from */ roots: string[];
}

const candidate = `
  v.id as version_id, v.format, v.number, v.status, v.facts,
  i.id as item_id, i.title, i.kind, i.cameras, i.headings, i.compensation, i.supplier, i.scope, i.intention,
  i.strength_least, i.strength_most, i.strength_usual,
  (
    with recursive up (id) as (
      select v.id
      union
      select l.source_version_id
      from lineage l
        join up on l.version_id = up.id
    )
    select array_agg(id::text)
    from up
  ) as roots
`;

export const candidates = async (sql: Sql, versions: string[]): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      select ${candidate}
      from version v join item i on i.id = v.item_id
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
      from item i join version v on v.id = i.newest_version_id
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
      from item i join version v on v.id = i.newest_version_id
      where i.shelf_id = $1
        and i.kind in ('look', 'preset', 'camera-profile')
        and i.archived_at is null
      order by i.shelf_order, i.id
      limit $2
    `,
    [shelf, most],
  );

/** Newest versions that bear the title of an item, whatever their source. */
export const sameStyle = async (sql: Sql, itemId: string, most: number): Promise<CandidateRow[]> =>
  many<CandidateRow>(
    sql,
    `
      with
        of as (
          select
            lower(regexp_replace(title, '^.* (\\S+)$', '\\1')) as style, kind
          from item
          where id = $1
        )
      select ${candidate}
      from of, item i join version v on v.id = i.newest_version_id
      where i.archived_at is null
        and i.id <> $1
        and i.kind = of.kind
        and (
          lower(i.title) = (select lower(title) from item where id = $1)
          or lower(i.title) like '%' || of.style
        )
      order by lower(i.title), i.id
      limit $2
    `,
    [itemId, most],
  );

export const byItem = async (sql: Sql, itemId: string): Promise<CandidateRow | undefined> =>
  maybe<CandidateRow>(
    sql,
    `
      select ${candidate}
      from item i join version v on v.id = i.newest_version_id
      where i.id = $1
    `,
    [itemId],
  );
