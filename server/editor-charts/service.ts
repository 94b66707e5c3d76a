/** Charts that go through an editor: made, fetched as a file, given up. What comes back is read in reading.ts. */
import { randomInt } from 'node:crypto';
import { v7 } from 'uuid';
import type { BodyOf } from '@/core/api';
import { newChart } from '@/core/api/editor-charts';
import { layoutOf, MOST_NUMBER, PATCH } from '@/core/editor-chart/layout';
import { fileOf, stepsOf, type ChartFile, type Step } from '@/core/editor-chart/steps';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { getBlob } from '../blobs/service';
import { presetSource } from '../conversions/makers/bake';
import { sourceFor } from '../conversions/one';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { itemFor, versionFor, type VersionRow } from '../items/service';
import { actorOf, allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';
import type { ChartToMake, PresetSource } from '../threads/tasks';
import * as q from './queries';

export type { EditorChartRow, MeasuredRow, ReadingRow } from './queries';

const MOST_LISTED = 200;

export const notThere = (id: string): Problem =>
  new Problem('not-found', 'There is no such chart.', id, 'Go back to Charts; it may have been given up.');

export const listEditorCharts = (person: Person): Promise<q.EditorChartRow[]> => {
  allow(person, 'view');
  return q.editorCharts(pool(), MOST_LISTED);
};

export interface EditorChartView {
  chart: q.EditorChartRow;
  readings: q.ReadingRow[];
  steps: Step[];
  fileName: string;
}

/** Pixels of the picture. */
function pixelsOf({ kind, size, number }: q.EditorChartRow): { width: number; height: number } {
  if (kind === 'plain') return { width: Math.sqrt(size) ** 3, height: Math.sqrt(size) ** 3 };
  const { columns, rows } = layoutOf({ size, kind, id: number });
  return { width: columns * PATCH, height: rows * PATCH };
}

export async function editorChartFor(person: Person, id: string): Promise<EditorChartView> {
  allow(person, 'view');
  // it comes from an address
  if (!isUuid(id)) throw notThere(id);
  const sql = pool();
  const [chart, readings] = await Promise.all([q.editorChartById(sql, id), q.readingsOf(sql, id)]);
  if (!chart) throw notThere(id);
  const fileName = fileOf(chart);
  const { kind, editor, what, profile } = chart;
  return { chart, readings, fileName, steps: stepsOf({ fileName, kind, editor, what, profile, ...pixelsOf(chart) }) };
}

/** The preset's form that is switched on: its newest, where none is said. */
async function presetForm(person: Person, item: string, form: string | null): Promise<VersionRow> {
  const { item: preset, forms, newest } = await itemFor(person, item);
  const chosen = form ? forms.find(({ id }) => id === form) : newest;
  if (preset.kind === 'preset' && chosen) return chosen;
  throw new Problem(
    'convert-kind',
    `${preset.title} is no preset${chosen ? '' : ' of that form'}.`,
    preset.title,
    'Choose a preset.',
  );
}

async function profileVersion(person: Person, item: string): Promise<VersionRow> {
  const { item: profile, newest } = await itemFor(person, item);
  if (profile.kind === 'camera-profile' && newest.format === 'dcp') return newest;
  throw new Problem(
    'chart-camera',
    `${profile.title} is no DNG camera profile.`,
    profile.title,
    'Choose the camera profile by which the editor will develop the chart.',
  );
}

const renderedFile = (file: ChartFile): 'png' | 'tiff' => (file === 'png' ? 'png' : 'tiff');

/** A number that no other chart bears: the chart is known by it when it comes back. */
async function numbered(sql: Sql, chart: Omit<q.NewEditorChart, 'number'>): Promise<void> {
  for (let tries = 0; tries < 20; tries++)
    if (await q.insertEditorChart(sql, { ...chart, number: randomInt(1, MOST_NUMBER + 1) })) return;
  throw new Error('no number was free for a chart');
}

export async function makeEditorChart(
  person: Person,
  input: BodyOf<'POST /api/editor-charts'>,
): Promise<{ id: string }> {
  allow(person, 'item.convert');
  const { editor, what, preset, form, size, kind, file, profile } = checked(newChart, input);
  const isCamera = kind === 'camera data';
  const switchedOn = preset ? await presetForm(person, preset, form) : null;
  const developedBy = isCamera && profile ? await profileVersion(person, profile) : null;
  const words = what || (preset && (await itemFor(person, preset)).item.title);
  if (!words)
    throw new Problem(
      'chart-what',
      'It is not said what is switched on in the editor.',
      'what',
      'Choose a preset of the library, or say it in words.',
    );
  const id = v7();
  await transaction(async (sql) => {
    await numbered(sql, {
      id,
      size,
      kind,
      file: isCamera ? 'dng' : renderedFile(file),
      editor,
      what: words,
      preset: switchedOn?.id ?? null,
      profile: developedBy?.id ?? null,
      person: person.id,
    });
    await record(sql, actorOf(person), 'editor-chart', id, 'made', null, { editor, what: words });
  });
  return { id };
}

async function toMake(
  { kind, size, number, file, profile_version_id }: q.EditorChartRow,
  person: Person,
): Promise<ChartToMake> {
  const rendered = renderedFile(file);
  if (kind === 'plain') return { plain: size, file: rendered };
  const name = { size, kind, id: number };
  if (!profile_version_id) return { name, file: rendered };
  const { sha256 } = await versionFor(person, profile_version_id);
  return { name, file: 'dng', profile: new Uint8Array(await getBlob(sha256)) };
}

/** The file that goes through the editor; made anew each time, the same each time. */
export async function editorChartFile(person: Person, id: string): Promise<{ bytes: Uint8Array; fileName: string }> {
  allow(person, 'view');
  const chart = await q.editorChartById(pool(), id);
  if (!chart) throw notThere(id);
  return { bytes: await compute('chartFile', await toMake(chart, person)), fileName: fileOf(chart) };
}

export async function giveUpChart(person: Person, id: string): Promise<void> {
  allow(person, 'item.convert');
  await transaction(async (sql) => {
    const chart = await q.editorChartById(sql, id, true);
    if (!chart) throw notThere(id);
    if (chart.readings)
      throw new Problem(
        'chart-read',
        `${chart.readings} readings of this chart are kept.`,
        chart.what,
        'Take the readings off first.',
      );
    await q.removeEditorChart(sql, id);
    await record(
      sql,
      actorOf(person),
      'editor-chart',
      id,
      'given up',
      { editor: chart.editor, what: chart.what },
      null,
    );
  });
}

/** The preset that is switched on, as we render it; null where the library does not hold it. */
export const presetOn = async (
  person: Person,
  { preset_version_id }: q.EditorChartRow,
): Promise<PresetSource | null> =>
  preset_version_id ? presetSource(await sourceFor(person, preset_version_id, 'preset')) : null;

/** How well our rendering of a preset's version agrees with editors, by the newest reading of each. */
export const measuredFor = (person: Person, version: string): Promise<q.MeasuredRow[]> => {
  allow(person, 'view');
  return q.measuredFor(pool(), version);
};
