/** What is held that an arrival could be compared with. */
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

/** Until the transaction ends, nobody else takes in the same content. */
export const lockContent = (sql: Sql, sha: Buffer) =>
  sql.query(`select pg_advisory_xact_lock(hashtextextended(encode($1, 'hex'), 1))`, [sha]);

export const heldBySha = async (sql: Sql, sha: Buffer): Promise<{ id: string; title: string } | undefined> =>
  maybe<{ id: string; title: string }>(
    sql,
    `
      select v.id, i.title
      from version v join item i on i.id = v.item_id
      where v.sha256 = $1 and i.archived_at is null
      order by v.created_at
      limit 1
    `,
    [sha],
  );

/** Which of the names are titles of items held; for what presets need. */
export const titlesHeld = async (sql: Sql, names: string[]): Promise<string[]> =>
  (
    await many<{ title: string }>(
      sql,
      'select distinct title from item where title = any ($1) and archived_at is null',
      [names],
    )
  ).map((r) => r.title);

/** The newest approved version of each item that bears one of these titles. */
export const approvedByTitle = (
  sql: Sql,
  titles: readonly string[],
): Promise<{ title: string; version_id: string }[]> =>
  many<{ title: string; version_id: string }>(
    sql,
    `
      select distinct on (i.id) i.title, v.id as version_id
      from item i join version v on v.item_id = i.id
      where i.title = any ($1::text[]) and i.archived_at is null and v.status = 'approved' and v.variant = ''
      order by i.id, v.number desc
    `,
    [titles],
  );

export interface HeldRow {
  item_id: string;
  version_id: string;
  kind: string;
  format: string;
  title: string;
  aliases: string[];
  headings: string[];
  file_name: string;
  sha256: Buffer;
  content_sha256: Buffer | null;
  internal_id: string;
  fingerprint: Buffer | null;
  facts: Record<string, unknown>;
  variant: string;
  newest: boolean;
}

const heldColumns = `
  i.id as item_id, i.kind, i.title, i.aliases, i.headings,
  v.id as version_id, v.format, v.file_name, v.sha256, v.content_sha256, v.internal_id, v.fingerprint,
  case i.kind
          when 'preset' then v.facts - 'unknown'
          when 'camera-profile' then jsonb_build_object('camera', v.facts -> 'camera')
          else '{}'
        end as facts,
  v.variant,
  not exists (
    select 1
    from version later
    where later.item_id = v.item_id and later.variant = v.variant and later.number > v.number
  ) as newest
`;

/** Held versions that a file of an arrival could be: by bytes, content, identity, name, or file name; and the variants of these. */
export const candidates = async (
  sql: Sql,
  contents: { shas: Buffer[]; contents: Buffer[]; identities: string[]; bases: string[]; files: string[] },
): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      with
        found as (
          select id
          from version
          where sha256 = any($1::bytea[])
          union
          select id
          from version
          where content_sha256 = any($2::bytea[])
          union
          select id
          from version
          where internal_id = any($3::text[]) and internal_id <> ''
          union
          select x.newest_version_id
          from unnest($4::text[]) b
            join item x on lower(x.title) collate "C" >= b
            and lower(x.title) collate "C" < (b || chr(65535))
            and x.archived_at is null
          where b <> ''
          union
          select x.newest_version_id
          from item x
          where x.aliases && $4::text[] and x.archived_at is null
          union
          select v2.id
          from version v2
            left join item x on x.newest_version_id = v2.id
          where v2.file_name = any($5::text[])
            and (x.id is not null or v2.variant <> '')
        ),
        related as (
          select id
          from found
          union
          select other.id
          from found
            join version known using (id)
            join version other on other.item_id = known.item_id and other.variant <> ''
        )
      select ${heldColumns}
      from related
        join version v using (id)
        join item i on i.id = v.item_id
      where i.archived_at is null
    `,
    [contents.shas, contents.contents, contents.identities, contents.bases, contents.files],
  );

/** Presets with a title much like one of these; for revisions that were renamed. */
export const presetsLike = async (sql: Sql, titles: string[]): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      select distinct on (v.id) ${heldColumns}
      from unnest($1::text[]) t
        cross join lateral (
          select *
          from item x
          where x.title % t
            and x.kind = 'preset'
            and x.archived_at is null
          order by similarity (x.title, t) desc
          limit 3
        ) i
        join version v on v.id = i.newest_version_id
    `,
    [titles],
  );

/** Fingerprints of all that is held of some kinds. */
export const prints = async (sql: Sql, kinds: string[]): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      select
        i.id as item_id, v.id as version_id, i.kind, v.format, i.title, '{}'::text[] as aliases,
        '{}'::text[] as headings, '' as file_name, ''::bytea as sha256, null::bytea as content_sha256,
        '' as internal_id, v.fingerprint, v.variant,
        case i.kind
          when 'preset' then v.facts - 'unknown'
          when 'camera-profile' then jsonb_build_object('camera', v.facts -> 'camera')
          else '{}'
        end as facts, true as newest
      from item i join version v on v.id = i.newest_version_id
      where i.archived_at is null
        and i.kind = any($1)
        and v.fingerprint is not null
    `,
    [kinds],
  );
