/** Charts against the database and a real editor of unknown mathematics: made, sent through it, given back, averaged, kept. */
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { readCube } from '@/core/look/cube';
import { residual } from '@/core/look/residual';
import { sampler } from '@/core/look/sample';
import { oxbowPreset } from '@/core/preset/testing';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { readChartOfArrival } from '../arrivals/charts';
import { entriesOf } from '../arrivals/queries';
import { arrive } from '../arrivals/testing';
import { getBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { itemFor, lineageOf } from '../items/service';
import { itemOf } from '../items/testing/item-of';
import { addShelf } from '../shelves/service';
import { forgetReading, lookOfChart, readEditorChart } from './reading';
import { editorChartFile, editorChartFor, giveUpChart, makeEditorChart, measuredFor } from './service';

withDatabase();
const work = mkdtempSync(join(tmpdir(), 'etagere-charts-'));
afterAll(() => rmSync(work, { recursive: true, force: true }));
let shelf = '';
let preset = { itemId: '', versionId: '' };
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Charts' });
  const text = oxbowPreset('<rdf:li run:step="lamp" run:stops="0.4"/>', { title: 'Lantern' });
  preset = await itemOf(text, 'Lantern.xmp', { shelfId: shelf });
});

const run = promisify(execFile);
/** What the editor makes of a chart. */
async function through(chart: string, as: string, ...options: string[]): Promise<Uint8Array> {
  const { bytes, fileName } = await editorChartFile(people.librarian, chart);
  const from = join(work, fileName);
  const to = join(work, as);
  writeFileSync(from, bytes);
  await run(process.execPath, ['dist/standins/quern.mjs', from, to, ...options]);
  return new Uint8Array(readFileSync(to));
}
const chartOf = async (said: object = {}): Promise<string> =>
  (await makeEditorChart(people.librarian, { editor: 'Quern 3', what: 'Velour', size: 17, ...said })).id;
const give = async (chart: string, bytes: Uint8Array, name = 'back.tif'): Promise<string> =>
  (await readEditorChart(people.librarian, chart, name, bytes)).id;

describe('a chart through an editor that nobody knows', () => {
  test('comes back as a table with its figures; two readings become one look on the shelf that is said', async () => {
    const chart = await chartOf();
    const fine = await give(chart, await through(chart, 'v.tif', '--preset', 'velour'), 'v.tif');
    const rough = await give(chart, await through(chart, 'v.jpg', '--preset', 'velour'), 'v.jpg');
    const { readings, steps, fileName } = await editorChartFor(people.retoucher, chart);
    expect(fileName).toMatch(/^Velour Quern 3 \d+\.tif$/);
    expect(steps.map(({ title }) => title)).toContain('Put on Velour');
    expect(readings.map(({ figures }) => figures.warnings.map(({ code }) => code))).toEqual([[], ['chart-lossy']]);
    expect(must(readings[0]).figures).toMatchObject({ noise: 0, agreement: null, validFor: 'rendered files' });
    const made = await lookOfChart(people.librarian, chart, { title: 'Velour', readings: [fine, rough], shelf });
    const { item, newest } = await itemFor(people.librarian, made.itemId);
    expect(item).toMatchObject({ title: 'Velour', shelf_id: shelf, supplier: '', status: 'draft' });
    expect(newest.facts).toMatchObject({
      size: 17,
      measured: { editor: 'Quern 3', readings: 2, validFor: 'rendered files', agreement: null },
    });
    const { spread } = newest.facts.measured as { spread: { mean: number; max: number } };
    expect(spread.mean).toBeGreaterThan(0);
    expect(spread.max).toBeLessThan(3);
    const look = readCube(new Uint8Array(await getBlob(newest.sha256)));
    const first = readCube(new Uint8Array(await getBlob(must(readings[0]).sha256)));
    expect(residual(sampler(look), sampler(first)).meanDeltaE).toBeLessThan(0.5);
  });

  test('with a preset of the library is compared with our rendering of it, and the look is made beside it', async () => {
    const chart = await chartOf({ what: '', preset: preset.itemId });
    const plain = await give(chart, await through(chart, 'n.tif'));
    const [reading] = (await editorChartFor(people.librarian, chart)).readings;
    // the editor did nothing, and our rendering is lighter: they cannot agree
    expect(must(must(reading).figures.agreement).meanDeltaE).toBeGreaterThan(2);
    const [measured] = await measuredFor(people.retoucher, preset.versionId);
    expect(measured).toMatchObject({ editor: 'Quern 3', valid_for: 'rendered files', chart_id: chart });
    const made = await lookOfChart(people.librarian, chart, { title: 'Lantern, measured', readings: [plain] });
    const found = await itemFor(people.librarian, made.itemId);
    expect(found.item.shelf_id).toBe(shelf);
    expect(found.newest.facts).toMatchObject({ measured: { agreement: { editor: 'Quern 3', readings: 1 } } });
    const { sources } = await lineageOf(people.librarian, found);
    expect(sources.map((one) => one.title)).toEqual(['Lantern']);
  });

  test('with sharpening left on is refused, and nothing is kept', async () => {
    const chart = await chartOf();
    const back = await through(chart, 'x.tif', '--preset', 'tin', '--on', 'crisp');
    await expect(give(chart, back)).rejects.toMatchObject({
      code: 'chart-local-adjustment',
      message: expect.stringContaining('sharpened') as string,
    });
    expect((await editorChartFor(people.librarian, chart)).readings).toEqual([]);
  });

  test('is known by its number: another’s is refused with whose it is, one of no studio’s as such', async () => {
    const own = await chartOf();
    const other = await chartOf({ what: 'Tin' });
    const back = await through(other, 'o.png', '--preset', 'tin');
    await expect(give(own, back)).rejects.toMatchObject({
      code: 'chart-wrong',
      message: 'This is the chart for Tin, Quern 3.',
    });
    await give(other, back);
    await expect(give(other, back)).rejects.toMatchObject({ code: 'chart-again' });
    const { readings } = await editorChartFor(people.librarian, other);
    await pool().query('update editor_chart set number = 1 + number % 16777215 where id = $1', [other]);
    await expect(give(own, back)).rejects.toMatchObject({ message: expect.stringContaining('did not make') as string });
    await expect(giveUpChart(people.librarian, other)).rejects.toMatchObject({ code: 'chart-read' });
    await forgetReading(people.librarian, must(readings[0]).id);
    await giveUpChart(people.librarian, other);
    await expect(editorChartFor(people.librarian, other)).rejects.toMatchObject({ code: 'not-found' });
  });

  test('comes back with a delivery, and is read from there by its number', async () => {
    const chart = await chartOf();
    const arrival = await arrive({
      'Back/tin.png': await through(chart, 'a.png', '--preset', 'tin'),
      'Back/tin.jpg': await through(chart, 'a.jpg', '--preset', 'tin'),
    });
    const entries = await entriesOf(pool(), arrival);
    expect(entries.map(({ kind, format }) => [kind, format])).toEqual([
      ['chart', 'editor-chart'],
      ['chart', 'editor-chart'],
    ]);
    for (const { id } of entries)
      expect(await readChartOfArrival(people.lead, arrival, { entry: id })).toEqual({ id: chart });
    const { readings } = await editorChartFor(people.librarian, chart);
    expect(readings.map(({ file_name }) => file_name).sort()).toEqual(['tin.jpg', 'tin.png']);
    const [first] = entries;
    await expect(readChartOfArrival(people.lead, arrival, { entry: must(first).id })).rejects.toMatchObject({
      code: 'chart-again',
    });
  });

  test('a TIFF that is a JPEG inside is as rough as one, and said to be', async () => {
    const chart = await chartOf({ kind: '8 bits' });
    await give(chart, await through(chart, 'j.tif', '--preset', 'tin', '--pack', 'jpeg'));
    const [reading] = (await editorChartFor(people.librarian, chart)).readings;
    expect(must(reading).figures.warnings.map(({ code }) => code)).toEqual(['chart-lossy']);
  });
});

describe('a plain Hald image', () => {
  test('is made and read, with what it cannot tell; a chart is no such image', async () => {
    const plain = await chartOf({ kind: 'plain', size: 25 });
    await give(plain, await through(plain, 'h.png', '--preset', 'tin'));
    const [reading] = (await editorChartFor(people.librarian, plain)).readings;
    expect(must(reading).figures).toMatchObject({ noise: null, warnings: [{ code: 'chart-plain' }] });
    const chart = await chartOf();
    await expect(give(plain, await through(chart, 'c.png'))).rejects.toMatchObject({ code: 'chart-wrong' });
    await expect(give(chart, await through(plain, 'p.png'))).rejects.toMatchObject({ code: 'chart-wrong' });
  });
});

describe('what cannot be', () => {
  test.each([
    ['no editor', { editor: '  ' }, 'input-invalid'],
    ['nothing that is switched on', { what: '' }, 'chart-what'],
    ['points that no chart has', { size: 19 }, 'input-invalid'],
    ['camera data of no camera', { kind: 'camera data' }, 'input-invalid'],
    ['a plain image of 33 points', { kind: 'plain', size: 33 }, 'input-invalid'],
  ])('%s is refused', async (_, said, code) => {
    await expect(chartOf(said)).rejects.toMatchObject({ code });
  });
  test('a preset as a camera’s profile, a picture that is no chart, a look without a shelf, another’s right', async () => {
    await expect(chartOf({ kind: 'camera data', profile: preset.itemId })).rejects.toMatchObject({
      code: 'chart-camera',
    });
    const chart = await chartOf();
    const gray = sharp({ create: { width: 640, height: 480, channels: 3, background: '#777' } });
    await expect(give(chart, new Uint8Array(await gray.png().toBuffer()))).rejects.toMatchObject({
      code: expect.stringMatching(/^chart-/) as string,
    });
    await expect(give(chart, new Uint8Array([1, 2, 3]))).rejects.toMatchObject({ code: 'chart-unreadable' });
    const reading = await give(chart, await through(chart, 'l.png'));
    await expect(lookOfChart(people.librarian, chart, { title: 'Nowhere', readings: [reading] })).rejects.toMatchObject(
      { code: 'chart-shelf' },
    );
    await expect(editorChartFor(people.librarian, 'nonsense')).rejects.toMatchObject({ code: 'not-found' });
    await expect(makeEditorChart(people.retoucher, { editor: 'Quern 3', what: 'x' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });
});
