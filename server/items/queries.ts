import type { Encoding } from '@/core/look/look';
import type { Sql } from '../db/pool';

export type Kind = 'look' | 'preset';
export interface ShelfRow { id: string; name: string; note: string; position: number; items: number }
export interface SpineRow { id: string; kind: Kind; title: string; headings: string[]; shelf_id: string; number: number; version_id: string; format: string; status: 'draft' | 'approved' | 'retired'; selvedge: [string, string][] | null; mine: boolean; house: boolean; assumed: boolean; created_at: Date; points: number | null; stations: number; stale: boolean; /** how many of this shelf the filter leaves in all */ matching: number }
export interface ItemRow { id: string; kind: Kind; title: string; headings: string[]; position: number; description: string; creator: string; rights: string; supplier: string; tags: string[]; scope: Record<string, unknown>; shelf_id: string; shelf: string; strength_most: number; revision: number; created_at: Date; mine: boolean; house: boolean }
export interface VersionRow { id: string; item_id: string; number: number; sha256: Buffer; size: number; file_name: string; format: string; facts: Record<string, unknown>; selvedge: [string, string][] | null; encoding: Encoding | null; encoding_confirmed_by: string | null; encoding_confirmed_at: Date | null; status: 'draft' | 'approved' | 'retired'; notes: string; author: string | null; author_id: string | null; approver: string | null; created_at: Date }

export const shelves = async (sql: Sql): Promise<ShelfRow[]> =>
  (await sql.query<ShelfRow>('select s.id, s.name, s.note, s.position, (select count(*)::int from item i where i.shelf_id = s.id and i.archived_at is null) as items from shelf s where s.archived_at is null order by s.position, s.name')).rows;
export const insertShelf = (sql: Sql, s: { id: string; name: string; note: string; position: number }) => sql.query('insert into shelf (id, name, note, position) values ($1, $2, $3, $4)', [s.id, s.name, s.note, s.position]);
export const shelfById = async (sql: Sql, id: string): Promise<{ id: string; name: string } | undefined> => (await sql.query<{ id: string; name: string }>('select id, name from shelf where id = $1 and archived_at is null', [id])).rows[0];
export const lastShelfPosition = async (sql: Sql): Promise<number> => (await sql.query<{ n: number }>('select coalesce(max(position), 0)::int as n from shelf')).rows[0]!.n;

export interface SpineFilter { person: string; words: string; kind: Kind | null; status: string | null; ribbon: boolean; shelf: string | null; /** at most so many of each shelf */ perShelf: number; /** also titles that only resemble the words */ alike: boolean }

/** The spines that a filter leaves, each with its newest version, in the order of the shelves; of each shelf the first few. */
export const spines = async (sql: Sql, f: SpineFilter): Promise<SpineRow[]> =>
  (await sql.query<SpineRow>(`
    with picked as (
      select i.id, v.id as version_id, s.position, row_number() over (partition by i.shelf_id order by i.shelf_order, i.created_at) as place, count(*) over (partition by i.shelf_id)::int as matching
      from item i join shelf s on s.id = i.shelf_id
      join lateral (select id, status from version where item_id = i.id order by number desc limit 1) v on true
      where i.archived_at is null and s.archived_at is null
        and ($2 = '' or i.title ilike '%' || replace(replace($2, '\\', '\\\\'), '%', '\\%') || '%' or array_to_string(i.headings, ' ') ilike '%' || $2 || '%' or i.supplier ilike '%' || $2 || '%' or ($8 and word_similarity($2, i.title) > 0.5))
        and ($3::text is null or i.kind = $3) and ($4::text is null or v.status = $4)
        and (not $5 or exists (select 1 from ribbon r where r.item_id = i.id and (r.person_id = $1 or r.person_id is null)))
        and ($6::uuid is null or i.shelf_id = $6)
    )
    select i.id, i.kind, i.title, i.headings, i.shelf_id, v.number, v.id as version_id, v.format, v.status, v.selvedge, i.created_at, p.matching,
      coalesce((v.encoding->>'assumed')::boolean, false) as assumed, (v.facts->>'size')::int as points,
      exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $1) as mine,
      exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house,
      (select count(distinct pl.station_id)::int from placement pl join version pv on pv.id = pl.version_id where pv.item_id = i.id) as stations,
      exists (select 1 from lineage l join version s on s.id = l.source_version_id join version n on n.item_id = s.item_id and n.number > s.number where l.version_id = v.id) as stale
    from picked p join item i on i.id = p.id join version v on v.id = p.version_id
    where p.place <= $7 order by p.position, i.shelf_id, p.place limit 1200`, [f.person, f.words, f.kind, f.status, f.ribbon, f.shelf, f.perShelf, f.alike])).rows;

export const insertItem = (sql: Sql, i: { id: string; kind: Kind; title: string; headings: string[]; shelfId: string; supplier: string; scope: unknown }) =>
  sql.query('insert into item (id, kind, title, headings, shelf_id, supplier, scope, shelf_order) values ($1, $2, $3, $4, $5, $6, $7, (select coalesce(max(shelf_order), 0) + 1 from item where shelf_id = $5))', [i.id, i.kind, i.title, i.headings, i.shelfId, i.supplier, JSON.stringify(i.scope)]);
export const insertVersion = (sql: Sql, v: { id: string; itemId: string; sha: Buffer; fileName: string; format: string; facts: unknown; selvedge: unknown; encoding: unknown; notes: string; authorId: string | null }) =>
  sql.query('insert into version (id, item_id, number, sha256, file_name, format, facts, selvedge, encoding, notes, author_id) values ($1, $2, (select coalesce(max(number), 0) + 1 from version where item_id = $2), $3, $4, $5, $6, $7, $8, $9, $10)',
    [v.id, v.itemId, v.sha, v.fileName, v.format, JSON.stringify(v.facts), v.selvedge ? JSON.stringify(v.selvedge) : null, v.encoding ? JSON.stringify(v.encoding) : null, v.notes, v.authorId]);
export const insertLineage = (sql: Sql, versionId: string, sourceId: string, recipe: unknown) => sql.query('insert into lineage (version_id, source_version_id, recipe) values ($1, $2, $3)', [versionId, sourceId, JSON.stringify(recipe)]);

export const itemById = async (sql: Sql, id: string, person: string): Promise<ItemRow | undefined> =>
  (await sql.query<ItemRow>(`select i.*, s.name as shelf, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id = $2) as mine, exists (select 1 from ribbon r where r.item_id = i.id and r.person_id is null) as house from item i join shelf s on s.id = i.shelf_id where i.id = $1`, [id, person])).rows[0];
const versionColumns = 'v.id, v.item_id, v.number, v.sha256, b.size, v.file_name, v.format, v.facts, v.selvedge, v.encoding, c.name as encoding_confirmed_by, v.encoding_confirmed_at, v.status, v.notes, a.name as author, v.author_id, ap.name as approver, v.created_at';
const versionFrom = 'from version v join blob b on b.sha256 = v.sha256 left join person a on a.id = v.author_id left join person ap on ap.id = v.approved_by left join person c on c.id = v.encoding_confirmed_by';
export const versionsOf = async (sql: Sql, itemId: string): Promise<VersionRow[]> => (await sql.query<VersionRow>(`select ${versionColumns} ${versionFrom} where v.item_id = $1 order by v.number desc`, [itemId])).rows;
export const versionById = async (sql: Sql, id: string): Promise<(VersionRow & { title: string; kind: Kind; headings: string[]; position: number; scope: Record<string, unknown> }) | undefined> =>
  (await sql.query<VersionRow & { title: string; kind: Kind; headings: string[]; position: number; scope: Record<string, unknown> }>(`select ${versionColumns}, i.title, i.kind, i.headings, i.position, i.scope ${versionFrom} join item i on i.id = v.item_id where v.id = $1`, [id])).rows[0];

export interface LineRow { version_id: string; item_id: string; title: string; number: number; kind: Kind; recipe: Record<string, unknown>; newest: number; selvedge: [string, string][] | null }
export const sourcesOf = async (sql: Sql, versionId: string): Promise<LineRow[]> =>
  (await sql.query<LineRow>('select s.id as version_id, i.id as item_id, i.title, s.number, i.kind, l.recipe, s.selvedge, (select max(number) from version where item_id = i.id) as newest from lineage l join version s on s.id = l.source_version_id join item i on i.id = s.item_id where l.version_id = $1', [versionId])).rows;
export const resultsOf = async (sql: Sql, itemId: string): Promise<LineRow[]> =>
  (await sql.query<LineRow>('select v.id as version_id, i.id as item_id, i.title, v.number, i.kind, l.recipe, v.selvedge, v.number as newest from lineage l join version s on s.id = l.source_version_id join version v on v.id = l.version_id join item i on i.id = v.item_id where s.item_id = $1 order by v.created_at desc', [itemId])).rows;

export const setStatus = (sql: Sql, versionId: string, status: string, by: string | null) => sql.query('update version set status = $2, approved_by = $3 where id = $1', [versionId, status, by]);
export const setEncoding = (sql: Sql, versionId: string, encoding: unknown, by: string) => sql.query('update version set encoding = $2, encoding_confirmed_by = $3, encoding_confirmed_at = now() where id = $1', [versionId, JSON.stringify(encoding), by]);

export const ribbonOn = (sql: Sql, itemId: string, personId: string | null, by: string) => sql.query('insert into ribbon (item_id, person_id, made_by) values ($1, $2, $3) on conflict do nothing', [itemId, personId, by]);
export const ribbonOff = (sql: Sql, itemId: string, personId: string | null) => sql.query('delete from ribbon where item_id = $1 and person_id is not distinct from $2::uuid', [itemId, personId]);

export const renameItem = async (sql: Sql, id: string, revision: number, title: string, description: string): Promise<boolean> =>
  (await sql.query('update item set title = $3, description = $4, revision = revision + 1 where id = $1 and revision = $2', [id, revision, title, description])).rowCount === 1;

export interface PlacedRow { station: string; station_id: string; editor: string; version_number: number; path: string; placed_at: Date; listed: string | null }
export const placedOf = async (sql: Sql, itemId: string): Promise<{ station: string; station_id: string; editor_id: string; editor_version: string; number: number; path: string; placed_at: Date; listing: unknown; listed_at: Date | null }[]> =>
  (await sql.query<{ station: string; station_id: string; editor_id: string; editor_version: string; number: number; path: string; placed_at: Date; listing: unknown; listed_at: Date | null }>(`select s.name as station, s.id as station_id, p.editor_id, p.editor_version, v.number, p.path, p.placed_at, se.listing, se.listed_at from placement p join version v on v.id = p.version_id join station s on s.id = p.station_id left join station_editor se on se.station_id = p.station_id and se.editor_id = p.editor_id and se.editor_version = p.editor_version where v.item_id = $1 order by s.position, p.path`, [itemId])).rows;
export const packsOf = async (sql: Sql, itemId: string): Promise<{ name: string; path: string; intake_id: string }[]> =>
  (await sql.query<{ name: string; path: string; intake_id: string }>('select p.name, m.path, p.intake_id from pack_member m join pack p on p.id = m.pack_id join version v on v.id = m.version_id where v.item_id = $1 order by p.created_at', [itemId])).rows;
