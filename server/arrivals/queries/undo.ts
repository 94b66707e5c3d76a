/** Taking an arrival back, and what stands in the way of it. */
import type { Sql } from '../../db/pool';
import { many } from '../../db/query';

const WHAT_HANGS = `
  with
    mine as (
      select v.id, v.item_id
      from arrival_entry e join version v on v.id = e.version_id
      where e.arrival_id = $1
        and e.outcome in ('new', 'version', 'variant')
    ),
    -- items that would go, as no other version of theirs is left
    whole as (
      select i.id, i.title, i.revision
      from item i
      where i.id in (select item_id from mine)
        and not exists (
          select 1
          from version v
          where v.item_id = i.id
            and v.id not in (select id from mine)
        )
    ),
    brought as (
      select f.id, f.name
      from arrival_entry e join frame f on f.id = e.frame_id
      where e.arrival_id = $1
    )
  select *
  from (
    select
      'placed on a station' as what, count(*)::int as n,
      coalesce(min(s.name || ': ' || p.path), '') as example
    from placement p join mine on mine.id = p.version_id join station s on s.id = p.station_id
    union all
    select
      'part of a rollout', count(distinct r.id)::int, coalesce(min(r.title), '')
    from rollout_step st
      join mine on mine.id = st.version_id
      join rollout r on r.id = st.rollout_id
    union all
    select
      'converted into other items', count(*)::int, coalesce(min(i.title), '')
    from lineage l
      join mine on mine.id = l.source_version_id
      join version v on v.id = l.version_id
      join item i on i.id = v.item_id
    where v.id not in (select id from mine)
    union all
    select
      'given newer versions since', count(*)::int, coalesce(min(i.title), '')
    from version v
      join mine m on m.item_id = v.item_id
      join version mv on mv.id = m.id
      join item i on i.id = v.item_id
    where v.number > mv.number
      and v.id not in (select id from mine)
    union all
    select
      'part of another pack', count(*)::int, coalesce(min(p.name), '')
    from pack_member m join mine on mine.id = m.version_id join pack p on p.id = m.pack_id
    where p.arrival_id <> $1
    union all
    select
      'merged with other items', count(*)::int, coalesce(min(i.title), '')
    from item i
    where i.merged_into in (select item_id from mine)
      or (
        i.id in (select item_id from mine)
        and i.merged_into is not null
      )
    union all
    select
      'judged on the bench', count(*)::int, coalesce(min(i.title), '')
    from verdict d join item i on i.id = d.item_id
    where d.version_id in (select id from mine)
      or d.item_id in (select id from whole)
      or d.frame_id in (select id from brought)
    union all
    select
      'a house choice', count(*)::int, coalesce(min(nullif(client, '')), '')
    from house_choice
    where profile_version_id in (select id from mine)
      or look_version_id in (select id from mine)
    union all
    select
      'marked with a ribbon', count(distinct w.id)::int, coalesce(min(w.title), '')
    from ribbon r join whole w on w.id = r.item_id
    union all
    select
      'meant to stand beside another', count(distinct w.id)::int, coalesce(min(w.title), '')
    from meant_twice m join whole w on w.id in (m.item_a, m.item_b)
    union all
    select
      'changed by hand since', count(*)::int, coalesce(min(title), '')
    from whole
    where revision > 1
    union all
    select
      'a frame of a set', count(distinct b.id)::int, coalesce(min(b.name), '')
    from frame_set_member m join brought b on b.id = m.frame_id
    union all
    select
      'a frame with what an editor made of it', count(distinct b.id)::int, coalesce(min(b.name), '')
    from frame_export x join brought b on b.id = x.frame_id
    union all
    select
      'a descriptor that was described anew since', count(*)::int, coalesce(min(d.editor_id), '')
    from descriptor_proposal d
      join editor_revision r on r.editor_id = d.editor_id and r.editor_version = d.editor_version
    where d.arrival_id = $1
      and r.n > d.revision
      and not exists (
        select 1
        from descriptor_proposal o
        where o.arrival_id = $1
          and o.editor_id = d.editor_id
          and o.editor_version = d.editor_version
          and o.revision = r.n
      )
    union all
    select
      'a descriptor of an editor that stations have', count(distinct e.station_id)::int,
      coalesce(min(d.editor_id), '')
    from descriptor_proposal d
      join station_editor e on e.editor_id = d.editor_id and e.editor_version = d.editor_version
    where d.arrival_id = $1
      and d.revision = 1
  ) d
  where n > 0
`;

/** What hangs on what an arrival made, people's work above all: each in words, with a count and an example. */
export const dependents = (sql: Sql, arrivalId: string): Promise<{ what: string; n: number; example: string }[]> =>
  many<{ what: string; n: number; example: string }>(sql, WHAT_HANGS, [arrivalId]);

/** The shelf and the licence that an arrival made, where nothing else uses them and nobody has worked on them since. */
async function takeBackMade(sql: Sql, arrivalId: string): Promise<void> {
  await sql.query(
    `
      delete from shelf s
      using arrival a
      where a.id = $1
        and s.id = a.made_shelf_id
        and not exists (select 1 from item i where i.shelf_id = s.id)
        and not exists (
          select 1
          from event e
          where e.subject = 'shelf' and e.subject_id = s.id::text and e.action <> 'made'
        )
    `,
    [arrivalId],
  );
  await sql.query('update arrival set licence_id = null where id = $1 and licence_id = made_licence_id', [arrivalId]);
  await sql.query(
    `
      delete from licence l
      using arrival a
      where a.id = $1
        and l.id = a.made_licence_id
        and not exists (select 1 from item i where i.licence_id = l.id)
        and not exists (select 1 from pack p where p.licence_id = l.id)
        and not exists (select 1 from arrival o where o.licence_id = l.id)
        and not exists (
          select 1
          from event e
          where e.subject = 'licence' and e.subject_id = l.id::text and e.action <> 'made'
        )
    `,
    [arrivalId],
  );
  await sql.query('update arrival set made_shelf_id = null, made_licence_id = null where id = $1', [arrivalId]);
}

/** Takes back what an arrival made; the order keeps references whole. */
export const takeBack = async (
  sql: Sql,
  arrivalId: string,
): Promise<{ versions: number; items: number; frames: number }> => {
  const versions = await many<{ id: string; item_id: string }>(
    sql,
    `
      select v.id, v.item_id
      from arrival_entry e join version v on v.id = e.version_id
      where e.arrival_id = $1
        and e.outcome in ('new', 'version', 'variant')
    `,
    [arrivalId],
  );
  const frames = (
    await many<{ id: string }>(
      sql,
      `
        select frame_id as id
        from arrival_entry
        where arrival_id = $1 and frame_id is not null
      `,
      [arrivalId],
    )
  ).map((r) => r.id);
  const ids = versions.map((v) => v.id);
  await sql.query('delete from pack where arrival_id = $1', [arrivalId]);
  await sql.query('update arrival_entry set version_id = null, frame_id = null where arrival_id = $1', [arrivalId]);
  // what another arrival was compared with must not name what is gone
  await sql.query(
    `
      update arrival_entry
      set held_version_id = null
      where held_version_id = any($1::uuid[])
    `,
    [ids],
  );
  await sql.query('delete from lineage where version_id = any ($1::uuid[])', [ids]);
  await sql.query(
    `
      delete from rendition r
      where version_id = any($1::uuid[])
        and not exists (select 1 from placement p where p.rendition_id = r.id)
        and not exists (
          select 1
          from rollout_step s
          where s.rendition_id = r.id
        )
    `,
    [ids],
  );
  await sql.query('delete from version where id = any ($1::uuid[])', [ids]);
  await sql.query(
    `
      update arrival_entry
      set target_item_id = null
      where target_item_id = any($1::uuid[])
        and not exists (
          select 1
          from version v
          where v.item_id = target_item_id
        )
    `,
    [versions.map((v) => v.item_id)],
  );
  const items = await sql.query(
    `
      delete from item i
      where id = any($1::uuid[])
        and not exists (select 1 from version v where v.item_id = i.id)
    `,
    [versions.map((v) => v.item_id)],
  );
  if (frames.length) await sql.query('delete from frame where id = any ($1::uuid[])', [frames]);
  await takeBackMade(sql, arrivalId);
  return { versions: ids.length, items: items.rowCount ?? 0, frames: frames.length };
};
