/** SQL of charts: measured values, and the frames that show them. */
import type { Patch } from '@/core/chart/cgats';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface ChartRow {
  id: string;
  name: string;
  columns: number;
  rows: number;
  patches: Patch[];
  outside: number;
}
const columns = 'id, name, columns, rows, patches, outside';
export const charts = async (sql: Sql): Promise<ChartRow[]> =>
  many<ChartRow>(sql, `select ${columns} from chart order by lower(name) limit 500`);
export const chartById = async (sql: Sql, id: string): Promise<ChartRow | undefined> =>
  maybe<ChartRow>(sql, `select ${columns} from chart where id = $1`, [id]);
export const chartByName = async (sql: Sql, name: string): Promise<ChartRow | undefined> =>
  maybe<ChartRow>(sql, `select ${columns} from chart where lower(name) = lower($1)`, [name]);
export const insertChart = (sql: Sql, chart: ChartRow & { sha: Buffer }) =>
  sql.query(
    `
      insert into chart (id, name, columns, rows, patches, outside, source_sha256)
      values ($1, $2, $3, $4, $5, $6, $7)
    `,
    [chart.id, chart.name, chart.columns, chart.rows, JSON.stringify(chart.patches), chart.outside, chart.sha],
  );
export const layChartOut = (sql: Sql, id: string, columns: number, rows: number, outside: number) =>
  sql.query('update chart set columns = $2, rows = $3, outside = $4 where id = $1', [id, columns, rows, outside]);
export const frameChart = async (
  sql: Sql,
  frame: string,
): Promise<{ name: string; chart_id: string | null; chart_corners: [number, number][] | null } | undefined> =>
  maybe<{ name: string; chart_id: string | null; chart_corners: [number, number][] | null }>(
    sql,
    'select name, chart_id, chart_corners from frame where id = $1 for update',
    [frame],
  );
export const setFrameChart = (
  sql: Sql,
  frame: string,
  chart: string | null,
  corners: readonly (readonly [number, number])[] | null,
) =>
  sql.query('update frame set chart_id = $2, chart_corners = $3 where id = $1', [
    frame,
    chart,
    corners ? JSON.stringify(corners) : null,
  ]);
