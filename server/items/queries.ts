import { isItemField, itemFields, type Shape } from '@/core/item/fields';
import type { Encoding } from '@/core/look/look';
import type { ItemKind } from '@/core/recognise';
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export type Kind = ItemKind;
/** A saved search, as the address of Shelves has it. */
export type SavedSearch = Record<string, string>;
export interface ShelfRow {
  id: string;
  name: string;
  note: string;
  position: number;
  items: number;
  query: SavedSearch | null;
  away: boolean;
}
export interface ItemRow {
  id: string;
  kind: Kind;
  title: string;
  short_title: string;
  headings: string[];
  position: number;
  description: string;
  intention: string;
  creator: string;
  rights: string;
  web_statement: string;
  supplier: string;
  tags: string[];
  aliases: string[];
  notes: string;
  scope: { input?: string | null; result?: string | null };
  cameras: string[];
  lenses: string[];
  origin: string;
  source: Record<string, string>;
  licence_id: string | null;
  licence: string | null;
  shelf_id: string;
  shelf: string;
  strength_least: number;
  strength_usual: number;
  strength_most: number;
  revision: number;
  created_at: Date;
  archived_at: Date | null;
  merged_into: string | null;
  mine: boolean;
  house: boolean;
}
export interface VersionRow {
  variant: string;
  id: string;
  item_id: string;
  number: number;
  sha256: Buffer;
  size: number;
  file_name: string;
  format: string;
  facts: Record<string, unknown>;
  selvedge: [string, string][] | null;
  encoding: Encoding | null;
  encoding_confirmed_by: string | null;
  encoding_confirmed_at: Date | null;
  status: 'draft' | 'approved' | 'retired';
  notes: string;
  author: string | null;
  author_id: string | null;
  approver: string | null;
  created_at: Date;
}

export const shelves = async (sql: Sql, person: string): Promise<ShelfRow[]> =>
  many<ShelfRow>(
    sql,
    `
      select
        s.id, s.name, s.note, s.position, s.query,
        exists (
          select 1
          from shelf_away a
          where a.shelf_id = s.id and a.person_id = $1
        ) as away,
        (
          select count(*)::int
          from (
            select 1
            from item i
            where i.shelf_id = s.id and i.archived_at is null
            limit 100001
          ) x
        ) as items
      from shelf s
      where s.archived_at is null
      order by s.position, s.name
    `,
    [person],
  );
export const insertShelf = (
  sql: Sql,
  s: { id: string; name: string; note: string; position: number; query: SavedSearch | null },
) =>
  sql.query('insert into shelf (id, name, note, position, query) values ($1, $2, $3, $4, $5)', [
    s.id,
    s.name,
    s.note,
    s.position,
    s.query ? JSON.stringify(s.query) : null,
  ]);
export const shelfById = async (
  sql: Sql,
  id: string,
): Promise<{ id: string; name: string; query: SavedSearch | null } | undefined> =>
  maybe<{ id: string; name: string; query: SavedSearch | null }>(
    sql,
    'select id, name, query from shelf where id = $1 and archived_at is null',
    [id],
  );
export const renameShelf = (sql: Sql, id: string, name: string, note: string) =>
  sql.query('update shelf set name = $2, note = $3 where id = $1', [id, name, note]);
export const archiveShelf = (sql: Sql, id: string) =>
  sql.query('update shelf set archived_at = now() where id = $1', [id]);
export const shelfHolds = async (sql: Sql, id: string): Promise<boolean> =>
  (await sql.query('select 1 from item where shelf_id = $1 and archived_at is null limit 1', [id])).rowCount === 1;
export const shelfAway = (sql: Sql, id: string, person: string) =>
  sql.query('insert into shelf_away (shelf_id, person_id) values ($1, $2) on conflict do nothing', [id, person]);
export const shelfBack = (sql: Sql, id: string, person: string) =>
  sql.query('delete from shelf_away where shelf_id = $1 and person_id = $2', [id, person]);
export const placeShelves = (sql: Sql, ids: string[]) =>
  sql.query(
    `
      update shelf s
      set position = n
      from unnest($1::uuid[]) with ordinality u (id, n)
      where s.id = u.id
    `,
    [ids],
  );
export const lockShelf = (sql: Sql, id: string) => sql.query('select 1 from shelf where id = $1 for update', [id]);
export const shelfOrder = async (sql: Sql, id: string): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `
        select id
        from item
        where shelf_id = $1 and archived_at is null
        order by shelf_order, id
      `,
      [id],
    )
  ).map((r) => r.id);
export const headingsOrder = async (sql: Sql, id: string): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `
        select id
        from item
        where shelf_id = $1 and archived_at is null
        order by lower(array_to_string(headings, chr(1))), position, lower(title), id
      `,
      [id],
    )
  ).map((r) => r.id);
export const shelvesOf = async (
  sql: Sql,
  items: string[],
): Promise<{ id: string; shelf_id: string; shelf: string }[]> =>
  many<{ id: string; shelf_id: string; shelf: string }>(
    sql,
    `
      select i.id, i.shelf_id, s.name as shelf
      from item i join shelf s on s.id = i.shelf_id
      where i.id = any($1::uuid[])
    `,
    [items],
  );
/** Writes only what changes: a place among ten thousand does not rewrite them all twice. */
export const placeItems = (sql: Sql, shelfId: string, order: string[], moved: string[]) =>
  sql.query(
    `
      update item i
      set shelf_id = $1, shelf_order = u.n
      from unnest($2::uuid[]) with ordinality u (id, n)
      where i.id = u.id
        and (i.shelf_order <> u.n or i.shelf_id <> $1)
        and (i.shelf_id = $1 or i.id = any($3::uuid[]))
    `,
    [shelfId, order, moved],
  );
export const lastShelfPosition = async (sql: Sql): Promise<number> =>
  (await one<{ n: number }>(sql, 'select coalesce(max(position), 0)::int as n from shelf')).n;

export const insertItem = (
  sql: Sql,
  i: {
    id: string;
    kind: Kind;
    title: string;
    headings: string[];
    shelfId: string;
    supplier: string;
    scope: unknown;
    cameras: string[];
    licenceId: string | null;
    source: unknown;
    origin: string;
    creator: string;
    rights: string;
  },
) =>
  sql.query(
    `
      insert into
        item (
          id, kind, title, headings, shelf_id, supplier, scope, cameras, licence_id, source, origin,
          creator, rights, shelf_order
        )
      values
        (
          $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13,
          (
            select coalesce(max(shelf_order), 0) + 1
            from item
            where shelf_id = $5 and archived_at is null
          )
        )
    `,
    [
      i.id,
      i.kind,
      i.title,
      i.headings,
      i.shelfId,
      i.supplier,
      JSON.stringify(i.scope),
      i.cameras,
      i.licenceId,
      JSON.stringify(i.source),
      i.origin,
      i.creator,
      i.rights,
    ],
  );
export const insertVersion = (
  sql: Sql,
  v: {
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
      v.id,
      v.itemId,
      v.sha,
      v.fileName,
      v.format,
      JSON.stringify(v.facts),
      v.selvedge ? JSON.stringify(v.selvedge) : null,
      v.encoding ? JSON.stringify(v.encoding) : null,
      v.notes,
      v.authorId,
      v.variant,
      v.internalId,
      v.words,
      v.content,
      v.fingerprint,
    ],
  );
export const insertLineage = (sql: Sql, versionId: string, sourceId: string, recipe: unknown) =>
  sql.query('insert into lineage (version_id, source_version_id, recipe) values ($1, $2, $3)', [
    versionId,
    sourceId,
    JSON.stringify(recipe),
  ]);

const itemColumns = `i.*, s.name as shelf, li.name as licence, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $2) as mine, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house from item i join shelf s on s.id = i.shelf_id left join licence li on li.id = i.licence_id`;
export const itemById = async (sql: Sql, id: string, person: string, lock = false): Promise<ItemRow | undefined> =>
  maybe<ItemRow>(sql, `select ${itemColumns} where i.id = $1 ${lock ? 'for update of i' : ''}`, [id, person]);
/** In the order of the given identifiers. */
export const itemsByIds = async (sql: Sql, ids: string[], person: string, lock = false): Promise<ItemRow[]> => {
  const rows = new Map(
    (
      await many<ItemRow>(
        sql,
        `select ${itemColumns} where i.id = any ($1::uuid[]) order by i.id ${lock ? 'for update of i' : ''}`,
        [ids, person],
      )
    ).map((r) => [r.id, r]),
  );
  return ids.flatMap((id) => rows.get(id) ?? []);
};
export const newestFormats = async (sql: Sql, ids: string[]): Promise<Map<string, string>> =>
  new Map(
    (
      await many<{ id: string; format: string }>(sql, 'select id, format from item where id = any ($1::uuid[])', [ids])
    ).map((r) => [r.id, r.format]),
  );
const casts: Record<Shape['is'], string> = {
  line: 'text',
  text: 'text',
  choice: 'text',
  whole: 'integer',
  list: 'text[]',
  licence: 'uuid',
  scope: 'jsonb',
};
/** Columns that can be written by name, so that no name from outside reaches a statement. */
const castOf = (name: string): string | null => {
  if (name === 'aliases') return 'text[]';
  return isItemField(name) ? casts[itemFields[name].shape.is] : null;
};

/** Writes fields by name. */
export const updateItem = (sql: Sql, id: string, change: Record<string, unknown>) => {
  const columns = Object.keys(change).flatMap((name) => {
    const cast = castOf(name);
    return cast ? [{ name, cast, value: cast === 'jsonb' ? JSON.stringify(change[name]) : change[name] }] : [];
  });
  const assignments = columns.map(({ name, cast }, i) => `${name} = $${i + 2}::${cast}`);
  return sql.query(
    `
      update item
      set ${assignments.join(', ')}, revision = revision + 1, touched_at = now()
      where id = $1
    `,
    [id, ...columns.map(({ value }) => value)],
  );
};
/** Who last changed an item, other than oneself. */
export const lastEditor = async (sql: Sql, id: string, person: string): Promise<string> =>
  (
    await maybe<{ actor: string }>(
      sql,
      `
        select actor
        from event
        where subject = 'item'
          and subject_id = $1
          and person_id is distinct from $2::uuid
          and action in ('renamed', 'described')
        order by id desc
        limit 1
      `,
      [id, person],
    )
  )?.actor ?? '';
export const archive = async (sql: Sql, ids: string[], archived: boolean): Promise<{ id: string; title: string }[]> =>
  many<{ id: string; title: string }>(
    sql,
    `
      update item
      set archived_at = case when $2 then now() end, revision = revision + 1, touched_at = now()
      where id = any($1::uuid[])
        and (archived_at is null) = $2
        and merged_into is null
      returning id, title
    `,
    [ids, archived],
  );
export const used = (sql: Sql, itemId: string, personId: string) =>
  sql.query(
    `
      insert into item_use (item_id, person_id)
      values ($1, $2)
      on conflict (person_id, item_id) do update
      set used_at = now()
    `,
    [itemId, personId],
  );
const versionColumns =
  'v.id, v.variant, v.item_id, v.number, v.sha256, b.size, v.file_name, v.format, v.facts, v.selvedge, v.encoding, c.name as encoding_confirmed_by, v.encoding_confirmed_at, v.status, v.notes, a.name as author, v.author_id, ap.name as approver, v.created_at';
const versionFrom =
  'from version v join blob b on b.sha256 = v.sha256 left join person a on a.id = v.author_id left join person ap on ap.id = v.approved_by left join person c on c.id = v.encoding_confirmed_by';
export const versionsOf = async (sql: Sql, itemId: string): Promise<VersionRow[]> =>
  many<VersionRow>(
    sql,
    `
      select ${versionColumns} ${versionFrom}
      where v.item_id = $1
      order by (v.variant = '') desc, v.number desc
    `,
    [itemId],
  );
export interface VersionItem {
  title: string;
  kind: Kind;
  headings: string[];
  position: number;
  scope: Record<string, unknown>;
  supplier: string;
  licence_id: string | null;
}
export const versionById = async (sql: Sql, id: string): Promise<(VersionRow & VersionItem) | undefined> =>
  maybe<VersionRow & VersionItem>(
    sql,
    `
      select
        ${versionColumns}, i.title, i.kind, i.headings, i.position, i.scope, i.supplier, i.licence_id ${versionFrom}
        join item i on i.id = v.item_id
      where v.id = $1
    `,
    [id],
  );

export interface LineRow {
  version_id: string;
  item_id: string;
  title: string;
  number: number;
  kind: Kind;
  recipe: Record<string, unknown>;
  newest: number;
  selvedge: [string, string][] | null;
}
export const sourcesOf = async (sql: Sql, versionId: string): Promise<LineRow[]> =>
  many<LineRow>(
    sql,
    `
      select
        s.id as version_id, i.id as item_id, i.title, s.number, i.kind, l.recipe, s.selvedge,
        (select max(number) from version where item_id = i.id) as newest
      from lineage l join version s on s.id = l.source_version_id join item i on i.id = s.item_id
      where l.version_id = $1
    `,
    [versionId],
  );
export const resultsOf = async (sql: Sql, itemId: string): Promise<LineRow[]> =>
  many<LineRow>(
    sql,
    `
      select
        v.id as version_id, i.id as item_id, i.title, v.number, i.kind, l.recipe, v.selvedge,
        v.number as newest
      from lineage l
        join version s on s.id = l.source_version_id
        join version v on v.id = l.version_id
        join item i on i.id = v.item_id
      where s.item_id = $1
      order by v.created_at desc
    `,
    [itemId],
  );

export const setStatus = (sql: Sql, versionId: string, status: string, by: string | null) =>
  sql.query('update version set status = $2, approved_by = $3 where id = $1', [versionId, status, by]);
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

export const ribbonOn = (sql: Sql, itemId: string, personId: string | null, by: string) =>
  sql.query(
    `
      insert into ribbon (item_id, person_id, made_by)
      values ($1, $2, $3)
      on conflict do nothing
    `,
    [itemId, personId, by],
  );
export const ribbonOff = (sql: Sql, itemId: string, personId: string | null) =>
  sql.query('delete from ribbon where item_id = $1 and person_id is not distinct from $2::uuid', [itemId, personId]);

export const placedOf = async (
  sql: Sql,
  itemId: string,
): Promise<
  {
    station: string;
    station_id: string;
    editor_id: string;
    editor_version: string;
    number: number;
    path: string;
    placed_at: Date;
    listing: unknown;
    listed_at: Date | null;
  }[]
> =>
  many<{
    station: string;
    station_id: string;
    editor_id: string;
    editor_version: string;
    number: number;
    path: string;
    placed_at: Date;
    listing: unknown;
    listed_at: Date | null;
  }>(
    sql,
    `
      select
        s.name as station, s.id as station_id, p.editor_id, p.editor_version, v.number, p.path,
        p.placed_at, se.listing, se.listed_at
      from placement p
        join version v on v.id = p.version_id
        join station s on s.id = p.station_id
        left join station_editor se on se.station_id = p.station_id
        and se.editor_id = p.editor_id
        and se.editor_version = p.editor_version
      where v.item_id = $1
      order by s.position, p.path
    `,
    [itemId],
  );
export const packsOf = async (
  sql: Sql,
  itemId: string,
): Promise<{ name: string; path: string; arrival_id: string }[]> =>
  many<{ name: string; path: string; arrival_id: string }>(
    sql,
    `
      select p.name, min(m.path) as path, p.arrival_id
      from pack_member m join pack p on p.id = m.pack_id join version v on v.id = m.version_id
      where v.item_id = $1
      group by p.id
      order by p.created_at
    `,
    [itemId],
  );
