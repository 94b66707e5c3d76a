/** Verdicts, and what the studio chose by them. */
import type { Verdict } from '@/core/bench/verdict';
import type { Sql } from '../../db/pool';
import { many, maybe, one } from '../../db/query';

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
  blind: boolean;
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
            display, provisional, person_id, as_meant, blind
          )
        values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)
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
        newVerdict.blind,
      ],
    )
  ).id;

export type VerdictRow = Verdict & { at: Date };

export const verdictsOf = async (sql: Sql, itemId: string): Promise<VerdictRow[]> =>
  many<VerdictRow>(sql, {
    name: 'verdicts of an item',
    text: `
      select
        d.id, v.number as version, f.name as frame, d.camera, d.light, d.strength, d.stages, d.beside,
        d.words, d.chosen, d.as_meant, d.display, d.provisional, d.blind,
        p.name as person, d.at
      from verdict d
        join version v on v.id = d.version_id
        left join frame f on f.id = d.frame_id
        left join person p on p.id = d.person_id
      where d.item_id = $1
      order by d.at desc, d.id desc
      limit 200
    `,
    values: [itemId],
  });

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

export const setCompensation = (sql: Sql, itemId: string, compensation: unknown) =>
  sql.query('update item set compensation = $2, revision = revision + 1 where id = $1', [
    itemId,
    compensation ? JSON.stringify(compensation) : null,
  ]);
