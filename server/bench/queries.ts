/** SQL of the bench: saved benches, frame sets, verdicts, house choices. */
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface BenchRow {
  id: string;
  name: string;
  state: string;
  shared: boolean;
  person: string;
  person_id: string;
  touched_at: Date;
}
export const benches = async (sql: Sql, person: string): Promise<BenchRow[]> =>
  many<BenchRow>(
    sql,
    `
      select
        b.id, b.name, b.state, b.shared, p.name as person, b.person_id, b.touched_at
      from bench b join person p on p.id = b.person_id
      where b.shared or b.person_id = $1
      order by b.touched_at desc
      limit 200
    `,
    [person],
  );
export const benchById = async (sql: Sql, id: string): Promise<BenchRow | undefined> =>
  maybe<BenchRow>(
    sql,
    `
      select
        b.id, b.name, b.state, b.shared, p.name as person, b.person_id, b.touched_at
      from bench b join person p on p.id = b.person_id
      where b.id = $1
    `,
    [id],
  );
export const saveBench = (
  sql: Sql,
  b: { id: string; name: string; state: string; shared: boolean; personId: string },
) =>
  sql.query(
    `
      insert into bench (id, name, state, shared, person_id)
      values ($1, $2, $3, $4, $5)
      on conflict (id) do update
      set name = excluded.name, state = excluded.state, shared = excluded.shared, touched_at = now()
    `,
    [b.id, b.name, b.state, b.shared, b.personId],
  );
export const removeBench = (sql: Sql, id: string) => sql.query('delete from bench where id = $1', [id]);

export interface SetRow {
  id: string;
  name: string;
  frames: string[];
}
export const frameSets = async (sql: Sql): Promise<SetRow[]> =>
  many<SetRow>(
    sql,
    `
      select
        s.id, s.name,
        coalesce(
          array_agg(m.frame_id::text order by m.position) filter (where m.frame_id is not null), '{}'
        ) as frames
      from frame_set s left join frame_set_member m on m.set_id = s.id
      group by s.id
      order by lower(s.name)
    `,
  );
export async function saveSet(sql: Sql, s: { id: string; name: string; frames: string[] }): Promise<void> {
  await sql.query(
    `
      insert into frame_set (id, name)
      values ($1, $2)
      on conflict (id) do update
      set name = excluded.name
    `,
    [s.id, s.name],
  );
  await sql.query('delete from frame_set_member where set_id = $1', [s.id]);
  await sql.query(
    `
      insert into frame_set_member (set_id, frame_id, position)
      select $1, f, n
      from unnest($2::uuid[]) with ordinality x (f, n)
      where exists (select 1 from frame where id = f)
    `,
    [s.id, s.frames],
  );
}

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
const candidate = `v.id as version_id, i.id as item_id, i.title, i.kind, v.format, v.number, v.status, i.cameras, i.headings, i.strength_least, i.strength_most, i.strength_usual, v.facts, i.compensation, i.supplier, i.scope, i.intention, (with recursive up (id) as (select v.id union select l.source_version_id from lineage l join up on l.version_id = up.id) select array_agg(id::text) from up) as roots`;
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

export const frameForVerdict = async (
  sql: Sql,
  id: string,
): Promise<{ camera: string; conversion: string; light: string; file_kind: string } | undefined> =>
  maybe<{ camera: string; conversion: string; light: string; file_kind: string }>(
    sql,
    'select camera, conversion, light, file_kind from frame where id = $1',
    [id],
  );
export interface NewVerdict {
  itemId: string;
  versionId: string;
  frameId: string | null;
  camera: string;
  light: string;
  strength: number;
  stages: string[] | null;
  beside: string;
  words: string;
  chosen: boolean;
  asMeant: boolean | null;
  display: unknown;
  provisional: boolean;
  personId: string;
}
export const insertVerdict = async (sql: Sql, newVerdict: NewVerdict): Promise<number> =>
  (
    await one<{ id: number }>(
      sql,
      `
        insert into
          verdict (
            item_id, version_id, frame_id, camera, light, strength, stages, beside, words, chosen,
            display, provisional, person_id, as_meant
          )
        values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)
        returning id
      `,
      [
        newVerdict.itemId,
        newVerdict.versionId,
        newVerdict.frameId,
        newVerdict.camera,
        newVerdict.light,
        newVerdict.strength,
        newVerdict.stages,
        newVerdict.beside,
        newVerdict.words,
        newVerdict.chosen,
        JSON.stringify(newVerdict.display),
        newVerdict.provisional,
        newVerdict.personId,
        newVerdict.asMeant,
      ],
    )
  ).id;
export interface VerdictRow {
  id: number;
  version: number;
  frame: string | null;
  camera: string;
  light: string;
  strength: number;
  stages: string[] | null;
  beside: string;
  words: string;
  chosen: boolean;
  as_meant: boolean | null;
  display: { gamut?: string; calibrated?: string };
  provisional: boolean;
  person: string | null;
  at: Date;
}
export const verdictsOf = async (sql: Sql, itemId: string): Promise<VerdictRow[]> =>
  many<VerdictRow>(
    sql,
    `
      select
        d.id, v.number as version, f.name as frame, d.camera, d.light, d.strength, d.stages, d.beside,
        d.words, d.chosen, d.as_meant, d.display, d.provisional, p.name as person, d.at
      from verdict d
        join version v on v.id = d.version_id
        left join frame f on f.id = d.frame_id
        left join person p on p.id = d.person_id
      where d.item_id = $1
      order by d.at desc, d.id desc
      limit 200
    `,
    [itemId],
  );

export interface ChoiceRow {
  id: number;
  profile_version: string | null;
  look_version: string | null;
  client: string;
  camera: string;
  light: string;
  file_kind: string;
  strength: number;
  profile: string | null;
  profile_item: string | null;
  look: string | null;
  look_item: string | null;
  person: string | null;
  at: Date;
}
export const choices = async (sql: Sql): Promise<ChoiceRow[]> =>
  many<ChoiceRow>(
    sql,
    `
      select
        c.id, c.profile_version_id as profile_version, c.look_version_id as look_version, c.client,
        c.camera, c.light, c.file_kind, c.strength, pi.title as profile, pi.id as profile_item,
        li.title as look, li.id as look_item, p.name as person, c.at
      from house_choice c
        left join version pv on pv.id = c.profile_version_id
        left join item pi on pi.id = pv.item_id
        left join version lv on lv.id = c.look_version_id
        left join item li on li.id = lv.item_id
        left join person p on p.id = c.person_id
      order by lower(c.client), lower(c.camera), lower(c.light), c.file_kind
      limit 1000
    `,
  );
export interface NewChoice {
  client: string;
  camera: string;
  light: string;
  fileKind: string;
  profile: string | null;
  look: string | null;
  strength: number;
  personId: string;
}
/** Makes the choice, or puts it in the place of the one for the same case; says what stood there. */
export async function putChoice(
  sql: Sql,
  newChoice: NewChoice,
): Promise<{ id: number; before: { profile: string | null; look: string | null; strength: number } | null }> {
  const before =
    (await maybe<{ profile: string | null; look: string | null; strength: number }>(
      sql,
      `
        select
          profile_version_id as profile, look_version_id as look, strength
        from house_choice
        where lower(client) = lower($1)
          and lower(camera) = lower($2)
          and lower(light) = lower($3)
          and file_kind = $4
      `,
      [newChoice.client, newChoice.camera, newChoice.light, newChoice.fileKind],
    )) ?? null;
  const { id } = await one<{ id: number }>(
    sql,
    `
      insert into
        house_choice (
          client, camera, light, file_kind, profile_version_id, look_version_id, strength, person_id
        )
      values ($1, $2, $3, $4, $5, $6, $7, $8)
      on conflict (lower(client), lower(camera), lower(light), file_kind) do update
      set
        profile_version_id = excluded.profile_version_id, look_version_id = excluded.look_version_id,
        strength = excluded.strength, person_id = excluded.person_id, at = now()
      returning id
    `,
    [
      newChoice.client,
      newChoice.camera,
      newChoice.light,
      newChoice.fileKind,
      newChoice.profile,
      newChoice.look,
      newChoice.strength,
      newChoice.personId,
    ],
  );
  return { id, before };
}
export const removeChoice = async (sql: Sql, id: number): Promise<boolean> =>
  ((await sql.query('delete from house_choice where id = $1', [id])).rowCount ?? 0) > 0;
export const adviseStrength = (sql: Sql, itemId: string, strength: number) =>
  sql.query('update item set strength_usual = $2, revision = revision + 1 where id = $1', [itemId, strength]);
export const setCompensation = (sql: Sql, itemId: string, c: unknown) =>
  sql.query('update item set compensation = $2, revision = revision + 1 where id = $1', [itemId, JSON.stringify(c)]);
