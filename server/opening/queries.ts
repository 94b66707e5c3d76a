/** SQL of the studio's opening rules. */
import type { Rule } from '@/core/opening/rule';
import type { Sql } from '../db/pool';
import { many, one } from '../db/query';

export interface StudioRules {
  rules: Rule[];
  revision: number;
}

export const studioRules = (sql: Sql, lock = false): Promise<StudioRules> =>
  one<StudioRules>(sql, `select rules, revision from opening_rules ${lock ? 'for update' : ''}`);

export const setStudioRules = (sql: Sql, rules: readonly Rule[]) =>
  sql.query('update opening_rules set rules = $1, revision = revision + 1', [JSON.stringify(rules)]);

/** The versions of presets and looks of these titles, case aside. */
export const versionsNamed = (
  sql: Sql,
  titles: readonly string[],
): Promise<{ version: string; item: string; title: string }[]> =>
  many(
    sql,
    `
      select v.id as version, i.id as item, i.title
      from item i join version v on v.item_id = i.id
      where i.kind in ('look', 'preset')
        and i.archived_at is null
        and lower(i.title) = any ($1::text[])
    `,
    [titles.filter(Boolean).map((title) => title.toLowerCase())],
  );

/** The studio's cameras as items name them: the model, and what was done to the body. */
export const cameraNames = async (sql: Sql): Promise<string[]> =>
  (
    await many<{ name: string }>(
      sql,
      `
        select model || case when conversion <> '' then ', ' || conversion else '' end as name
        from camera
        order by 1
      `,
    )
  ).map(({ name }) => name);

export const profileTitles = async (sql: Sql): Promise<string[]> =>
  (
    await many<{ title: string }>(
      sql,
      `
        select distinct i.title
        from item i
        where i.kind = 'camera-profile'
          and i.archived_at is null
          and exists (
            select 1
            from version v
            where v.item_id = i.id and v.status = 'approved'
          )
        order by i.title
        limit 500
      `,
    )
  ).map(({ title }) => title);

export type NamedKind = 'camera-profile' | 'preset' | 'look';

/** What a name in a rule may mean: the best version of an item that bears it. */
export interface NamedItem {
  /** bodies that it is for */ cameras: string[];
  version: string;
  format: string;
}

export const itemsNamed = (sql: Sql, kind: NamedKind, name: string): Promise<NamedItem[]> =>
  many<NamedItem>(
    sql,
    `
      select i.cameras, v.id as version, v.format
      from item i
        cross join lateral (
          select id, format
          from version
          where item_id = i.id
          order by (variant = '') desc, (status = 'approved') desc, number desc
          limit 1
        ) v
      where i.id = any (meant_by($1, $2))
      order by i.title, i.id
    `,
    [kind, name],
  );

/** Whether a version of a lens database has these bytes. */
export const isLensDatabase = async (sql: Sql, sha: Buffer): Promise<boolean> =>
  (
    await sql.query(
      `
        select 1
        from version v join item i on i.id = v.item_id
        where v.sha256 = $1 and i.kind = 'lens-database'
        limit 1
      `,
      [sha],
    )
  ).rowCount === 1;
