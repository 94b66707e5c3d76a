/** Versions: their contents, status, encoding and lineage. */
import type { Encoding } from '@/core/look/look';
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';
import { type Kind, type VersionRow, type VersionItem, type LineRow } from './rows';

/** Until the transaction ends, nobody else gives the item a version or changes the status of one. */
export const lockItem = (
  sql: Sql,
  itemId: string,
): Promise<{ title: string; kind: string; archived_at: Date | null } | undefined> =>
  maybe(sql, 'select title, kind, archived_at from item where id = $1 for no key update', [itemId]);
export const lockItemOf = (sql: Sql, versionId: string) =>
  sql.query(
    `
      select 1
      from item
      where id = (select item_id from version where id = $1)
      for no key update
    `,
    [versionId],
  );

export const insertVersion = (
  sql: Sql,
  version: {
    id: string;
    itemId: string;
    sha: Buffer;
    fileName: string;
    format: string;
    facts: unknown;
    selvedge: unknown;
    encoding: unknown;
    notes: string;
    authorId: string | null;
    variant: string;
    internalId: string;
    words: string;
    content: Buffer | null;
    fingerprint: Buffer | null;
  },
) =>
  sql.query(
    `
      insert into
        version(
          id, item_id, number, sha256, file_name, format, facts, selvedge, encoding, notes, author_id,
          variant, internal_id, words, content_sha256, fingerprint
        )
      values
        (
          $1, $2,
          (
            select coalesce(max(number), 0) + 1
            from version
            where item_id = $2
          ),
          $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15
        )
    `,
    [
      version.id,
      version.itemId,
      version.sha,
      version.fileName,
      version.format,
      JSON.stringify(version.facts),
      version.selvedge ? JSON.stringify(version.selvedge) : null,
      version.encoding ? JSON.stringify(version.encoding) : null,
      version.notes,
      version.authorId,
      version.variant,
      version.internalId,
      version.words,
      version.content,
      version.fingerprint,
    ],
  );

export const insertLineage = (sql: Sql, versionId: string, sourceId: string, recipe: unknown) =>
  sql.query('insert into lineage (version_id, source_version_id, recipe) values ($1, $2, $3)', [
    versionId,
    sourceId,
    JSON.stringify(recipe),
  ]);

const versionColumns =
  'v.id, v.variant, v.item_id, v.number, v.sha256, b.size, v.file_name, v.format, v.facts, v.selvedge, v.encoding, c.name as encoding_confirmed_by, v.encoding_confirmed_at, v.status, v.notes, a.name as author, v.author_id, ap.name as approver, v.created_at';

const versionFrom =
  'from version v join blob b on b.sha256 = v.sha256 left join person a on a.id = v.author_id left join person ap on ap.id = v.approved_by left join person c on c.id = v.encoding_confirmed_by';

export const versionsOf = async (sql: Sql, itemId: string): Promise<VersionRow[]> =>
  many<VersionRow>(sql, {
    name: 'versions of an item',
    text: `
      select ${versionColumns} ${versionFrom}
      where v.item_id = $1
      order by (v.variant = '') desc, v.number desc
    `,
    values: [itemId],
  });

export const versionById = async (sql: Sql, id: string): Promise<(VersionRow & VersionItem) | undefined> =>
  maybe<VersionRow & VersionItem>(sql, {
    name: 'version by id',
    text: `
      select
        ${versionColumns}, i.title, i.kind, i.headings, i.position, i.supplier,
        case
          when i.scope ->> 'result' is null and is_gray(v.fingerprint) then i.scope || '{"result": "monochrome"}'
          else i.scope
        end as scope, i.cameras, i.licence_id,
        i.archived_at ${versionFrom}
        join item i on i.id = v.item_id
      where v.id = $1
    `,
    values: [id],
  });

export const sourcesOf = async (sql: Sql, versionId: string): Promise<LineRow[]> =>
  many<LineRow>(sql, {
    name: 'sources of a version',
    text: `
      select
        s.id as version_id, i.id as item_id, i.title, s.number, i.kind, l.recipe, s.selvedge,
        (select max(number) from version where item_id = i.id) as newest
      from lineage l join version s on s.id = l.source_version_id join item i on i.id = s.item_id
      where l.version_id = $1
    `,
    values: [versionId],
  });

/** What a version was made from, and what was made from any version of its item, the latest first. */
export const linesOf = (
  sql: Sql,
  versionId: string,
  itemId: string,
): Promise<(LineRow & { side: 'source' | 'result' })[]> =>
  many(sql, {
    name: 'lines of an item',
    text: `
      select
        'source' as side, s.id as version_id, i.id as item_id, i.title, s.number, i.kind, l.recipe, s.selvedge,
        (select max(number) from version where item_id = i.id) as newest, null as made
      from lineage l
        join version s on s.id = l.source_version_id
        join item i on i.id = s.item_id
      where l.version_id = $1
      union all
      select
        'result', v.id, i.id, i.title, v.number, i.kind, l.recipe, v.selvedge,
        v.number, v.created_at
      from lineage l
        join version s on s.id = l.source_version_id
        join version v on v.id = l.version_id
        join item i on i.id = v.item_id
      where s.item_id = $2
      order by made desc
    `,
    values: [versionId, itemId],
  });

export const setStatus = (sql: Sql, versionId: string, status: string, by: string | null) =>
  sql.query('update version set status = $2, approved_by = $3 where id = $1', [versionId, status, by]);

export const setStatusOfMany = (sql: Sql, versions: readonly string[], status: string, by: string | null) =>
  sql.query('update version set status = $2, approved_by = $3 where id = any ($1::uuid[])', [versions, status, by]);

/** Holds items until the transaction ends, in one order, so that two who hold several do not wait for each other. */
export const holdItems = (sql: Sql, items: readonly string[]) =>
  sql.query('select 1 from item where id = any ($1::uuid[]) order by id for no key update', [items]);

export interface NewestOfVariant {
  id: string;
  item_id: string;
  title: string;
  kind: Kind;
  number: number;
  status: string;
  encoding: Encoding | null;
}

/** The newest version of each variant of items, in the order in which the items are given. */
export const newestOfVariants = (sql: Sql, items: readonly string[]): Promise<NewestOfVariant[]> =>
  many<NewestOfVariant>(
    sql,
    `
      select v.id, v.item_id, i.title, i.kind, v.number, v.status, v.encoding
      from unnest($1::uuid[]) with ordinality asked (id, place)
        join item i on i.id = asked.id
        join lateral (
          select distinct on (variant) *
          from version
          where item_id = i.id
          order by variant, number desc
        ) v on true
      order by asked.place, v.variant
    `,
    [items],
  );

/** Makes versions drafts again that a person approved, and that nothing uses since. */
export const toDraftAgain = (
  sql: Sql,
  versions: readonly string[],
  by: string,
): Promise<{ item_id: string; number: number }[]> =>
  many<{ item_id: string; number: number }>(
    sql,
    `
      update version v
      set status = 'draft', approved_by = null
      where id = any ($1::uuid[])
        and status = 'approved'
        and approved_by = $2
        and not exists (select 1 from placement p where p.version_id = v.id)
        and not exists (select 1 from rollout_step s where s.version_id = v.id)
        and not exists (
          select 1
          from house_choice c
          where v.id in (c.profile_version_id, c.look_version_id)
        )
      returning item_id, number
    `,
    [versions, by],
  );

export const setEffect = (sql: Sql, versionId: string, selvedge: unknown, fingerprint: Buffer) =>
  sql.query('update version set selvedge = $2, fingerprint = $3 where id = $1', [
    versionId,
    JSON.stringify(selvedge),
    fingerprint,
  ]);

export const setEncoding = (sql: Sql, versionId: string, encoding: unknown, by: string) =>
  sql.query(
    `
      update version
      set encoding = $2, encoding_confirmed_by = $3, encoding_confirmed_at = now()
      where id = $1
    `,
    [versionId, JSON.stringify(encoding), by],
  );

/** For each of these versions, the newest of its item that is of the same form. */
export const newestOfForms = async (sql: Sql, versions: readonly string[]): Promise<Map<string, string>> => {
  const rows = await many<{ id: string; newest: string }>(
    sql,
    `
      select v.id, n.id as newest
      from version v
        join lateral (
          select id
          from version
          where item_id = v.item_id and variant = v.variant
          order by number desc
          limit 1
        ) n on true
      where v.id = any($1)
    `,
    [versions],
  );
  return new Map(rows.map(({ id, newest }) => [id, newest]));
};
