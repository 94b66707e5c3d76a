/** A chart that comes back: checked to be the one, read in a thread, kept with its figures; and several as a look. */
import { v7 } from 'uuid';
import { tableFacts } from '@/core/look/table-facts';
import type { BodyOf } from '@/core/api';
import { editorChartEndpoints } from '@/core/api/editor-charts';
import type { Agreement } from '@/core/editor-chart/figures';
import type { ChartName } from '@/core/editor-chart/layout';
import { distinct } from '@/core/lists';
import { counted } from '@/core/words';
import { computedEncoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { getBlob, putBlob, sha256 } from '../blobs/service';
import { sourceFor } from '../conversions/one';
import type { Kept } from '../conversions/keep';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { createItem, takenOver } from '../items/create';
import * as items from '../items/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';
import * as q from './queries';
import { notThere, presetOn } from './service';

/** Of a picture that comes back. */
export const MOST_BYTES = 200e6;

const chartWords = ({ what, editor }: q.EditorChartRow): string => `${what}, ${editor}`;

const notOurs = (name: ChartName): Problem =>
  new Problem(
    'chart-wrong',
    `This is chart ${name.id}, which this studio did not make.`,
    'its number',
    'Give a chart that was downloaded here.',
  );

/** Refuses a picture that is no reading of this chart; says whose it is. */
async function checkName(chart: q.EditorChartRow, name: ChartName | null, points: number): Promise<void> {
  const wrong = (message: string, remedy: string): Problem => new Problem('chart-wrong', message, 'its number', remedy);
  if (chart.kind === 'plain') {
    if (!name && points === chart.size) return;
    throw wrong(
      name
        ? 'This is a chart with a number; a plain Hald image was made here.'
        : `This Hald image has ${points} points an axis, not ${chart.size}.`,
      'Give the image that was made here, as the editor exported it.',
    );
  }
  if (!name)
    throw wrong('This is a plain Hald image, not a chart with a number.', 'Give the chart that was made here.');
  if (name.id === chart.number && name.size === chart.size && name.kind === chart.kind) return;
  const other = await q.editorChartByNumber(pool(), name.id);
  if (!other || other.size !== name.size) throw notOurs(name);
  throw wrong(`This is the chart for ${chartWords(other)}.`, 'Give it back on that chart’s page.');
}

/** Reads a chart that came back by another way than its own page: known by the number that it carries. The chart that it is. */
export async function readChartByNumber(person: Person, fileName: string, bytes: Uint8Array): Promise<{ id: string }> {
  allow(person, 'item.convert');
  const name = await compute('chartName', { bytes, fileName });
  if (!name)
    throw new Problem(
      'chart-plain',
      'A plain Hald image does not say which chart it is.',
      fileName,
      'Give it back on the page of its chart.',
    );
  const chart = await q.editorChartByNumber(pool(), name.id);
  if (!chart) throw notOurs(name);
  await readEditorChart(person, chart.id, fileName, bytes);
  return { id: chart.id };
}

/** Reads what came back. The picture itself is not kept: the table that it holds is. */
export async function readEditorChart(
  person: Person,
  id: string,
  fileName: string,
  bytes: Uint8Array,
): Promise<{ id: string }> {
  allow(person, 'item.convert');
  const chart = await q.editorChartById(pool(), id);
  if (!chart) throw notThere(id);
  const label = fileName.trim().slice(0, 255) || 'the picture';
  const picture = sha256(bytes);
  const read = await compute('chartRead', { bytes, fileName: label, preset: await presetOn(person, chart) });
  await checkName(chart, read.name, read.points);
  const reading = v7();
  await transaction(async (sql) => {
    // it may have been given up while it was read
    if (!(await q.editorChartById(sql, id, true))) throw notThere(id);
    const sha = await putBlob(sql, read.bytes);
    const fresh = await q.insertReading(sql, {
      id: reading,
      chart: id,
      picture,
      fileName: label,
      sha,
      figures: read.figures,
      person: person.id,
    });
    if (!fresh)
      throw new Problem(
        'chart-again',
        'This very picture was read before.',
        label,
        'Export the chart once more for another reading.',
      );
    await record(sql, actorOf(person), 'editor-chart', id, 'read', null, { file: label });
  });
  return { id: reading };
}

export async function forgetReading(person: Person, id: string): Promise<void> {
  allow(person, 'item.convert');
  await transaction(async (sql) => {
    const gone = await q.removeReading(sql, id);
    if (!gone) throw new Problem('not-found', 'There is no such reading.', id, 'Reload the page.');
    await record(
      sql,
      actorOf(person),
      'editor-chart',
      gone.chart_id,
      'reading taken off',
      { file: gone.file_name },
      null,
    );
  });
}

async function chosenReadings(chart: string, ids: readonly string[]): Promise<q.ReadingRow[]> {
  const chosen = (await q.readingsOf(pool(), chart)).filter(({ id }) => ids.includes(id));
  if (chosen.length === ids.length) return chosen;
  throw new Problem(
    'chart-readings',
    'A reading that was chosen is not there any more.',
    'readings',
    'Reload the page and choose again.',
  );
}

/** Where a look stands, and whose it is: as its preset, or own work on a shelf that is said. */
async function placeOf(person: Person, chart: q.EditorChartRow, shelf: string | null) {
  if (chart.preset_version_id) {
    const { item, version } = await sourceFor(person, chart.preset_version_id, 'preset');
    await allowUnderLicence(person, item, 'convert');
    return { ...takenOver(item), ...(shelf ? { shelfId: shelf } : {}), headings: version.headings };
  }
  if (!shelf)
    throw new Problem(
      'chart-shelf',
      'It is not said on which shelf the look shall stand.',
      'shelf',
      'Choose a shelf: the library does not hold the preset, beside which it would stand.',
    );
  return { shelfId: shelf, supplier: '', headings: [] };
}

/** A draft of readings, averaged: it knows the editor, the preset, and how well our rendering agrees. */
export async function lookOfChart(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/editor-charts/:id/look'>,
): Promise<Kept> {
  allow(person, 'item.convert');
  const asked = checked(editorChartEndpoints['POST /api/editor-charts/:id/look'].body, input);
  const { title, shelf } = asked;
  const ids = distinct(asked.readings);
  const chart = await q.editorChartById(pool(), id);
  if (!chart) throw notThere(id);
  const readings = await chosenReadings(id, ids);
  const place = await placeOf(person, chart, shelf);
  const tables = await Promise.all(readings.map(async ({ sha256: sha }) => new Uint8Array(await getBlob(sha))));
  const made = await compute('chartLook', { tables, title, preset: await presetOn(person, chart) });
  const { size, domain, range, spread } = made;
  const validFor = readings[0]?.figures.validFor ?? '';
  const measured = { editor: chart.editor, readings: readings.length, validFor, at: new Date().toISOString() };
  const agreement: Agreement | null = made.agreement && { ...made.agreement, ...measured };
  return transaction(async (sql) => {
    const kept = await createItem(sql, actorOf(person), {
      kind: 'look',
      title,
      ...place,
      sha: await putBlob(sql, made.bytes),
      fileName: `${title}.cube`,
      format: 'cube',
      selvedge: made.threads,
      encoding: computedEncoding,
      notes: `read from a chart through ${chart.editor}, ${counted(readings.length, 'reading')}: valid for ${validFor}`,
      facts: {
        ...tableFacts({ size, domain, range }, title),
        measured: { ...measured, spread, agreement },
      },
    });
    const recipe = { tool: 'chart', chart: id, editor: chart.editor, readings: ids, spread };
    if (chart.preset_version_id) await items.insertLineage(sql, kept.versionId, chart.preset_version_id, recipe);
    await record(sql, actorOf(person), 'item', kept.itemId, 'read from a chart', null, { editor: chart.editor });
    return kept;
  });
}
