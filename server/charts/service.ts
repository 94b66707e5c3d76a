/** Charts with measured values, and which frames show one, and where: what a bench measures patches by. */
import { benchEndpoints } from '@/core/api/bench';
import { must } from '@/core/must';
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { readChart } from '@/core/chart/cgats';
import { isConvex, type Point } from '@/core/chart/homography';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

export type { ChartRow } from './queries';

export async function listCharts(person: Person): Promise<q.ChartRow[]> {
  allow(person, 'view');
  return q.charts(pool());
}

/** Brings measured values in, as CGATS text. */
export async function addChart(person: Person, input: unknown): Promise<q.ChartRow> {
  allow(person, 'frame.edit');
  const brought = checked(benchEndpoints['POST /api/charts'].body, input);
  const bytes = new TextEncoder().encode(brought.text);
  const read = readChart(bytes);
  const row: q.ChartRow = {
    id: v7(),
    name: brought.name || read.title || 'Chart',
    columns: read.columns,
    rows: read.rows,
    patches: read.patches,
    outside: 0.5,
  };
  return transaction(async (sql) => {
    if (await q.chartByName(sql, row.name))
      throw new Problem(
        'chart-name',
        `There are measured values of the name ${row.name} already.`,
        row.name,
        'Give these another name.',
      );
    await q.insertChart(sql, { ...row, sha: await putBlob(sql, bytes) });
    await record(sql, actorOf(person), 'chart', row.id, 'measured values brought in', null, {
      name: row.name,
      patches: row.patches.length,
    });
    return row;
  });
}

/** Puts right what the text does not say: how many patches stand side by side, and by how many patches the marks stand outside the field. */
export async function layChartOut(person: Person, id: string, input: unknown): Promise<q.ChartRow> {
  allow(person, 'frame.edit');
  const { columns, outside } = checked(benchEndpoints['PATCH /api/charts/:id'].body, input);
  return transaction(async (sql) => {
    const had = await q.chartById(sql, id);
    if (!had) throw new Problem('not-found', 'There are no such measured values.', id, 'Reload the page.');
    const rows = had.patches.length / columns;
    if (!Number.isInteger(rows) || rows > 100)
      throw new Problem(
        'chart-layout',
        `${had.patches.length} patches do not fill rows of ${columns}.`,
        had.name,
        'Say how many patches stand side by side.',
      );
    await q.layChartOut(sql, id, columns, rows, outside);
    await record(
      sql,
      actorOf(person),
      'chart',
      id,
      'laid out',
      { columns: had.columns, outside: had.outside },
      { columns, outside },
    );
    return { ...had, columns, rows, outside };
  });
}

/** Says that a frame shows a chart, and where its field of patches lies; without a chart, that it shows none. */
export async function placeChart(person: Person, frame: string, input: unknown): Promise<void> {
  allow(person, 'frame.edit');
  const placed = checked(benchEndpoints['PUT /api/frames/:id/chart'].body, input) as {
    chart: string | null;
    corners: Point[] | null;
  };
  if (
    placed.chart &&
    (!placed.corners || placed.corners.some((c) => c.some((v) => !(v >= 0 && v <= 1))) || !isConvex(placed.corners))
  )
    throw new Problem(
      'chart-corners',
      'Four corners within the picture are needed, in order, of which no three lie on a line.',
      'corners',
      'Draw the corners onto the field of patches.',
    );
  await transaction(async (sql) => {
    const had = await q.frameChart(sql, frame);
    const chart = placed.chart ? await q.chartById(sql, placed.chart) : null;
    if (!had) throw new Problem('not-found', 'There is no such frame.', frame, 'Choose another frame.');
    if (placed.chart && !chart)
      throw new Problem('not-found', 'There are no such measured values.', placed.chart, 'Reload the page.');
    await q.setFrameChart(sql, frame, placed.chart, placed.chart ? placed.corners : null);
    await record(
      sql,
      actorOf(person),
      'frame',
      frame,
      placed.chart ? 'target placed' : 'target taken off',
      had.chart_id ? { corners: had.chart_corners } : null,
      placed.chart ? { chart: must(chart).name, corners: placed.corners } : null,
    );
  });
}
