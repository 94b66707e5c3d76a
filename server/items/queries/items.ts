/** Items: what is recorded of them, and who used them. */
import { isItemField, itemFields } from '@/core/item/fields';
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';
import { type Kind, type ItemRow, casts } from './rows';

export const insertItem = (
  sql: Sql,
  item: {
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
    description: string;
    webStatement: string;
    contact: string;
  },
) =>
  sql.query(
    `
      insert into
        item (
          id, kind, title, headings, shelf_id, supplier, scope, cameras, licence_id, source, origin,
          creator, rights, description, web_statement, contact, shelf_order
        )
      values
        (
          $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16,
          (
            select coalesce(max(shelf_order), 0) + 1
            from item
            where shelf_id = $5 and archived_at is null
          )
        )
    `,
    [
      item.id,
      item.kind,
      item.title,
      item.headings,
      item.shelfId,
      item.supplier,
      JSON.stringify(item.scope),
      item.cameras,
      item.licenceId,
      JSON.stringify(item.source),
      item.origin,
      item.creator,
      item.rights,
      item.description,
      item.webStatement,
      item.contact,
    ],
  );

const itemColumns = `
  i.*, s.name as shelf, li.name as licence,
  (select is_gray(n.fingerprint) from version n where n.id = i.newest_version_id) as gray,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $2) as mine,
  exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house
  from item i
    join shelf s on s.id = i.shelf_id
    left join licence li on li.id = i.licence_id
`;

export const itemById = async (sql: Sql, id: string, person: string, lock = false): Promise<ItemRow | undefined> =>
  maybe<ItemRow>(sql, {
    name: lock ? 'item by id, held' : 'item by id',
    text: `select ${itemColumns} where i.id = $1 ${lock ? 'for update of i' : ''}`,
    values: [id, person],
  });

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
  sql.query({
    name: 'used',
    text: `
      insert into item_use (item_id, person_id)
      values ($1, $2)
      on conflict (person_id, item_id) do update
      set used_at = now()
    `,
    values: [itemId, personId],
  });

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
  }>(sql, {
    name: 'placements of an item',
    text: `
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
    values: [itemId],
  });

export const packsOf = async (
  sql: Sql,
  itemId: string,
): Promise<{ id: string; name: string; path: string; arrival_id: string }[]> =>
  many<{ id: string; name: string; path: string; arrival_id: string }>(sql, {
    name: 'packs of an item',
    text: `
      select p.id, p.name, min(m.path) as path, p.arrival_id
      from pack_member m join pack p on p.id = m.pack_id join version v on v.id = m.version_id
      where v.item_id = $1
      group by p.id
      order by p.created_at
    `,
    values: [itemId],
  });
