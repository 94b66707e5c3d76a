import type { Outcome } from '@/core/conversion/outcome';
import type { Recipe } from '@/core/conversion/recipe';
import type { ToldProblem } from '@/core/problem';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';
import type { Kind } from '../items/queries/rows';

export type Status = 'planning' | 'planned' | 'running' | 'paused' | 'done' | 'stopped';
export type RowStatus = 'unplanned' | 'planned' | 'refused' | 'made' | 'failed';
export type Clash = 'number' | 'leave';

export interface ConversionRow {
  id: string;
  title: string;
  naming: string;
  shelf_id: string | null;
  clash: Clash | null;
  recipe: Recipe;
  again: boolean;
  status: Status;
  job_id: string | null;
  person_id: string;
  person: string;
  created_at: Date;
  finished_at: Date | null;
}

/** What changes against what was made before. */
export interface Changes {
  /** ΔE00 over the standard colors; null for what is no look */ color: { mean: number; max: number } | null;
  /** settings of the source, old and new */ settings: { setting: string; before: unknown; after: unknown }[];
}

export interface SourceRow {
  place: number;
  source_version_id: string;
  /** of its own, where it differs from the conversion's */ recipe: Recipe | null;
  again_version_id: string | null;
  title: string | null;
  excluded: boolean;
  status: RowStatus;
  outcome: (Outcome & { changes?: Changes }) | null;
  problem: ToldProblem | null;
  made_version_id: string | null;
  made_item_id: string | null;
  made_title: string | null;
  made_status: string | null;
  source: SourceItem;
  /** what becomes newer */ again: { item_id: string; title: string; variant: string } | null;
}
export interface SourceItem {
  item_id: string;
  title: string;
  kind: Kind;
  number: number;
  headings: string[];
  cameras: string[];
  supplier: string;
  shelf_id: string;
  shelf: string;
  selvedge: [string, string][] | null;
}

const columns = `
  c.id, c.title, c.naming, c.shelf_id, c.clash, c.recipe, c.again, c.status, c.job_id, c.person_id, p.name as person,
  c.created_at, c.finished_at
`;

export const insertConversion = (
  sql: Sql,
  {
    id,
    title,
    naming,
    recipe,
    again,
    jobId,
    personId,
  }: {
    id: string;
    title: string;
    naming: string;
    recipe: Recipe;
    again: boolean;
    jobId: string;
    personId: string;
  },
) =>
  sql.query(
    `
      insert into conversion (id, title, naming, recipe, again, status, job_id, person_id)
      values ($1, $2, $3, $4, $5, 'planning', $6, $7)
    `,
    [id, title, naming, JSON.stringify(recipe), again, jobId, personId],
  );

export interface NewRow {
  source: string;
  again: string | null;
  recipe: Recipe | null;
}

/** In their order. */
export const insertRows = (sql: Sql, conversionId: string, rows: readonly NewRow[]) =>
  sql.query(
    `
      insert into conversion_row (conversion_id, place, source_version_id, again_version_id, recipe)
      select $1, place, (row ->> 'source')::uuid, (row ->> 'again')::uuid, nullif(row -> 'recipe', 'null')
      from jsonb_array_elements($2::jsonb) with ordinality rows (row, place)
    `,
    [conversionId, JSON.stringify(rows)],
  );

/** With `lock`, it stays as it is until the transaction ends. */
export const conversionById = (sql: Sql, id: string, lock = false): Promise<ConversionRow | undefined> =>
  maybe<ConversionRow>(
    sql,
    `
      select ${columns}
      from conversion c
        join person p on p.id = c.person_id
      where c.id = $1
      ${lock ? 'for no key update of c' : ''}
    `,
    [id],
  );

export interface ListedConversion extends ConversionRow {
  rows: number;
  made: number;
  failed: number;
}

export const conversions = (sql: Sql, most: number): Promise<ListedConversion[]> =>
  many<ListedConversion>(
    sql,
    `
      select
        ${columns}, count(r.id)::int as rows,
        (count(*) filter (where r.status = 'made'))::int as made,
        (count(*) filter (where r.status in ('failed', 'refused') and not r.excluded))::int as failed
      from conversion c
        join person p on p.id = c.person_id
        left join conversion_row r on r.conversion_id = c.id
      group by c.id, p.name
      order by c.created_at desc
      limit $1
    `,
    [most],
  );

/** All rows of a conversion, in their order. */
export const rowsOf = (sql: Sql, conversionId: string): Promise<SourceRow[]> =>
  many<SourceRow>(
    sql,
    `
      select
        r.place, r.source_version_id, r.recipe, r.again_version_id, r.title, r.excluded, r.status, r.outcome,
        r.problem, r.made_version_id, m.item_id as made_item_id, mi.title as made_title,
        m.status as made_status,
        jsonb_build_object(
          'item_id', i.id, 'title', i.title, 'kind', i.kind, 'number', v.number, 'headings', i.headings,
          'cameras', i.cameras, 'supplier', i.supplier, 'shelf_id', i.shelf_id, 'shelf', s.name,
          'selvedge', v.selvedge
        ) as source,
        case
          when g.id is not null
            then jsonb_build_object('item_id', gi.id, 'title', gi.title, 'variant', g.variant)
        end as again
      from conversion_row r
        join version v on v.id = r.source_version_id
        join item i on i.id = v.item_id
        join shelf s on s.id = i.shelf_id
        left join version m on m.id = r.made_version_id
        left join item mi on mi.id = m.item_id
        left join version g on g.id = r.again_version_id
        left join item gi on gi.id = g.item_id
      where r.conversion_id = $1
      order by r.place
    `,
    [conversionId],
  );

export const setConversion = (
  sql: Sql,
  id: string,
  set: Partial<Pick<ConversionRow, 'naming' | 'shelf_id' | 'clash' | 'status' | 'job_id'>> & { recipe?: Recipe },
) => {
  const fields = Object.entries(set);
  if (!fields.length) return Promise.resolve();
  const assignments = fields.map(([name], i) => `${name} = $${i + 2}`);
  const values = fields.map(([name, value]) => (name === 'recipe' ? JSON.stringify(value) : value));
  return sql.query(`update conversion set ${assignments.join(', ')} where id = $1`, [id, ...values]);
};
export const finishConversion = (sql: Sql, id: string, status: Status) =>
  sql.query('update conversion set status = $2, finished_at = now() where id = $1', [id, status]);
export const deleteConversion = (sql: Sql, id: string) => sql.query('delete from conversion where id = $1', [id]);

/** Those without a recipe of their own, or all, are worked out anew. */
export const unplanRows = (sql: Sql, conversionId: string, places: readonly number[] | null) =>
  sql.query(
    `
      update conversion_row
      set status = 'unplanned', outcome = null, problem = null
      where conversion_id = $1
        and status <> 'made'
        and case when $2::int[] is null then recipe is null else place = any ($2) end
    `,
    [conversionId, places],
  );

export const setRows = (
  sql: Sql,
  conversionId: string,
  places: readonly number[],
  set: { excluded?: boolean; title?: string | null; recipe?: Recipe | null },
) => {
  const fields = Object.entries(set);
  if (!fields.length) return Promise.resolve();
  const assignments = fields.map(([name], i) => `${name} = $${i + 3}`);
  const values = fields.map(([name, value]) => (name === 'recipe' && value ? JSON.stringify(value) : value));
  return sql.query(
    `update conversion_row set ${assignments.join(', ')} where conversion_id = $1 and place = any ($2::int[])`,
    [conversionId, places, ...values],
  );
};

/** Writes what a row came to, if its conversion is still the job's; whether it is. */
export const settleRow = async (
  sql: Sql,
  { conversionId, jobId, place }: { conversionId: string; jobId: string; place: number },
  row: { status: RowStatus; outcome?: unknown; problem?: ToldProblem | null; madeVersionId?: string },
): Promise<boolean> =>
  (
    await sql.query(
      `
        update conversion_row r
        set
          status = $4, outcome = coalesce($5, r.outcome), problem = $6,
          made_version_id = coalesce($7, r.made_version_id)
        from conversion c
        where c.id = $1 and c.job_id = $2 and r.conversion_id = c.id and r.place = $3
      `,
      [
        conversionId,
        jobId,
        place,
        row.status,
        row.outcome ? JSON.stringify(row.outcome) : null,
        row.problem ? JSON.stringify(row.problem) : null,
        row.madeVersionId ?? null,
      ],
    )
  ).rowCount === 1;

export const retryFailed = (sql: Sql, conversionId: string) =>
  sql.query(
    `
      update conversion_row
      set status = 'planned', problem = null
      where conversion_id = $1 and status = 'failed'
    `,
    [conversionId],
  );

/** Titles that items of a kind bear on shelves; in lower case. */
export const titlesOn = async (sql: Sql, kind: string, shelves: readonly string[]): Promise<Set<string>> =>
  new Set(
    (
      await many<{ key: string }>(
        sql,
        `
          select shelf_id || ' ' || lower(title) as key
          from item
          where kind = $1 and shelf_id = any ($2::uuid[]) and archived_at is null
        `,
        [kind, shelves],
      )
    ).map(({ key }) => key),
  );

export interface Convertible {
  version_id: string;
  title: string;
  kind: Kind;
}
const convertible = `
  select v.id as version_id, i.title, i.kind
  from item i
    join version v on v.id = i.newest_version_id
`;
const kinds = `i.kind in ('look', 'preset', 'camera-profile') and i.archived_at is null`;

/** The newest versions of items, in the order in which these are given. */
export const convertibleItems = (sql: Sql, items: readonly string[]): Promise<Convertible[]> =>
  many<Convertible>(
    sql,
    `${convertible} join unnest($1::uuid[]) with ordinality asked (id, place) on asked.id = i.id where ${kinds} order by asked.place`,
    [items],
  );
export const convertibleOnShelf = (sql: Sql, shelf: string): Promise<Convertible[]> =>
  many<Convertible>(sql, `${convertible} where i.shelf_id = $1 and ${kinds} order by i.shelf_order, i.sort_title`, [
    shelf,
  ]);
export const convertibleInPack = (sql: Sql, pack: string): Promise<Convertible[]> =>
  many<Convertible>(
    sql,
    `
      ${convertible}
      where ${kinds}
        and i.id in (
          select m.item_id
          from pack_member p
            join version m on m.id = p.version_id
          where p.pack_id = $1
        )
      order by i.sort_title
    `,
    [pack],
  );

export interface StaleResult {
  version_id: string;
  title: string;
  recipe: Record<string, unknown>;
  /** the newest plain version of what it was made from */ source_version_id: string;
}

/** Of items, the newest versions that were made from something, with what that is now. */
export const resultsToRenew = (sql: Sql, items: readonly string[]): Promise<StaleResult[]> =>
  many<StaleResult>(
    sql,
    `
      select v.id as version_id, i.title, l.recipe, n.id as source_version_id
      from unnest($1::uuid[]) with ordinality asked (id, place)
        join item i on i.id = asked.id
        join lateral (
          select distinct on (variant) *
          from version
          where item_id = i.id
          order by variant, number desc
        ) v on true
        join lineage l on l.version_id = v.id
        join version s on s.id = l.source_version_id
        join lateral (
          select id
          from version
          where item_id = s.item_id and variant = s.variant
          order by number desc
          limit 1
        ) n on true
      where n.id <> s.id
      order by asked.place
    `,
    [items],
  );
