/** SQL of charts that go through an editor, and of what was read when they came back. */
import type { ReadingFigures } from '@/core/editor-chart/figures';
import type { ChartFile, SheetKind } from '@/core/editor-chart/steps';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface EditorChartRow {
  id: string;
  number: number;
  size: number;
  kind: SheetKind;
  file: ChartFile;
  editor: string;
  what: string;
  preset_version_id: string | null;
  preset_item_id: string | null;
  profile_version_id: string | null;
  profile: string | null;
  person: string;
  created_at: Date;
  readings: number;
}

const select = `
  select
    c.id, c.number, c.size, c.kind, c.file, c.editor, c.what,
    c.preset_version_id, preset.item_id as preset_item_id,
    c.profile_version_id, profile_item.title as profile,
    p.name as person, c.created_at,
    (select count(*)::int from chart_reading r where r.chart_id = c.id) as readings
  from editor_chart c
    join person p on p.id = c.person_id
    left join version preset on preset.id = c.preset_version_id
    left join version profile on profile.id = c.profile_version_id
    left join item profile_item on profile_item.id = profile.item_id
`;

export const editorCharts = (sql: Sql, most: number): Promise<EditorChartRow[]> =>
  many<EditorChartRow>(sql, `${select} order by c.created_at desc, c.id limit $1`, [most]);

/** With `hold`, it stays until the transaction ends. */
export const editorChartById = (sql: Sql, id: string, hold = false): Promise<EditorChartRow | undefined> =>
  maybe<EditorChartRow>(sql, `${select} where c.id = $1 ${hold ? 'for update of c' : ''}`, [id]);

export const editorChartByNumber = (sql: Sql, number: number): Promise<EditorChartRow | undefined> =>
  maybe<EditorChartRow>(sql, `${select} where c.number = $1`, [number]);

export interface NewEditorChart {
  id: string;
  number: number;
  size: number;
  kind: SheetKind;
  file: ChartFile;
  editor: string;
  what: string;
  preset: string | null;
  profile: string | null;
  person: string;
}

/** False where the number is another chart's. */
export async function insertEditorChart(sql: Sql, chart: NewEditorChart): Promise<boolean> {
  const { rowCount } = await sql.query(
    `
      insert into editor_chart (
        id, number, size, kind, file, editor, what, preset_version_id, profile_version_id, person_id
      )
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
      on conflict (number) do nothing
    `,
    [
      chart.id,
      chart.number,
      chart.size,
      chart.kind,
      chart.file,
      chart.editor,
      chart.what,
      chart.preset,
      chart.profile,
      chart.person,
    ],
  );
  return rowCount === 1;
}

export const removeEditorChart = (sql: Sql, id: string) => sql.query('delete from editor_chart where id = $1', [id]);

export interface ReadingRow {
  id: string;
  chart_id: string;
  file_name: string;
  sha256: Buffer;
  figures: ReadingFigures;
  person: string;
  read_at: Date;
}

const readingSelect = `
  select r.id, r.chart_id, r.file_name, r.sha256, r.figures, p.name as person, r.read_at
  from chart_reading r join person p on p.id = r.person_id
`;

export const readingsOf = (sql: Sql, chart: string): Promise<ReadingRow[]> =>
  many<ReadingRow>(sql, `${readingSelect} where r.chart_id = $1 order by r.read_at, r.id`, [chart]);

export interface NewReading {
  id: string;
  chart: string;
  picture: Buffer;
  fileName: string;
  sha: Buffer;
  figures: ReadingFigures;
  person: string;
}

/** False where this very picture was read for the chart before. */
export async function insertReading(sql: Sql, reading: NewReading): Promise<boolean> {
  const { rowCount } = await sql.query(
    `
      insert into chart_reading (id, chart_id, picture_sha256, file_name, sha256, figures, person_id)
      values ($1, $2, $3, $4, $5, $6, $7)
      on conflict (chart_id, picture_sha256) do nothing
    `,
    [
      reading.id,
      reading.chart,
      reading.picture,
      reading.fileName,
      reading.sha,
      JSON.stringify(reading.figures),
      reading.person,
    ],
  );
  return rowCount === 1;
}

export const removeReading = (sql: Sql, id: string): Promise<{ chart_id: string; file_name: string } | undefined> =>
  maybe<{ chart_id: string; file_name: string }>(
    sql,
    'delete from chart_reading where id = $1 returning chart_id, file_name',
    [id],
  );

export interface MeasuredRow {
  chart_id: string;
  editor: string;
  valid_for: string;
  figures: ReadingFigures;
  read_at: Date;
}

/** For a version of a preset: the newest reading of each editor that was compared with our rendering. */
export const measuredFor = (sql: Sql, version: string): Promise<MeasuredRow[]> =>
  many<MeasuredRow>(
    sql,
    `
      select distinct on (c.editor, r.figures ->> 'validFor')
        c.id as chart_id, c.editor, r.figures ->> 'validFor' as valid_for, r.figures, r.read_at
      from editor_chart c join chart_reading r on r.chart_id = c.id
      where c.preset_version_id = $1 and r.figures -> 'agreement' <> 'null'::jsonb
      order by c.editor, r.figures ->> 'validFor', r.read_at desc
    `,
    [version],
  );
