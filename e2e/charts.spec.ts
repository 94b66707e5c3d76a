/** A chart for an editor whose mathematics nobody knows: asked for from the preset, sent through it, given back, made a look. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { oxbowPreset } from '../core/preset/testing';
import { aChart, takeIn } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

const work = mkdtempSync(join(tmpdir(), 'etagere-charts-'));
test.afterAll(() => rmSync(work, { recursive: true, force: true }));

/** Downloads the chart and has the editor export it; where the export lies. */
async function through(page: Page, as: string, ...options: string[]): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download the chart' }).click(),
  ]);
  const from = join(work, download.suggestedFilename());
  const to = join(work, as);
  await download.saveAs(from);
  execFileSync(process.execPath, ['dist/standins/quern.mjs', from, to, ...options]);
  return to;
}
/** Why a chart is refused. */
const refusal = (page: Page) => page.getByRole('region', { name: 'What to do' }).getByRole('alert');
const give = (page: Page, path: string) => page.getByLabel('The picture that the editor exported').setInputFiles(path);

test('a preset is measured by a chart: what was left on is refused, two readings become one look that knows how well we agree', async ({
  page,
}) => {
  test.setTimeout(seconds(150));
  const title = 'Charted Lantern';
  const text = oxbowPreset('<rdf:li run:step="lamp" run:stops="0.3"/>', { title });
  await takeIn(page, title, { [`${title}.xmp`]: text }, { shelf: 'Charts' });
  await page.goto(`/shelves?q=${encodeURIComponent(title)}`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByRole('link', { name: 'Measure it by a chart' }).click();
  await expect(page.getByLabel('What is switched on there')).toHaveValue(title);
  await expect(page.getByLabel('Editor, with its version')).toHaveValue('Oxbow 2');
  await page.getByLabel('Editor, with its version').fill('Quern 3');
  await page.getByLabel('Points an axis').selectOption('17');
  await page.getByRole('button', { name: 'Make the chart' }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();

  await give(page, await through(page, 'crisp.tif', '--preset', 'tin', '--on', 'crisp'));
  await expect(refusal(page)).toContainText('sharpened', { timeout: seconds(30) });
  await give(page, await through(page, 'tin.tif', '--preset', 'tin'));
  const row = (name: string) => page.getByRole('row', { name: new RegExp(name) });
  await expect(row('tin.tif')).toContainText('valid for rendered files', { timeout: seconds(30) });
  await give(page, await through(page, 'tin.jpg', '--preset', 'tin'));
  await expect(row('tin.jpg')).toContainText('compressed with loss', { timeout: seconds(30) });

  await page.getByRole('button', { name: 'Make the look of 2 readings, averaged' }).click();
  await expect(page.getByRole('heading', { name: `${title}, Quern 3`, level: 1 })).toBeVisible();
  await expect(page.getByText(/Quern 3, 2 readings/).first()).toBeVisible();
  await expect(page.getByText('our rendering of the preset against what the editor made')).toBeVisible();
  await page.goto(`/shelves?q=${encodeURIComponent(title)}&kind=preset`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Quern 3', exact: true })).toBeVisible();
});

test('a chart of another design is told by its number, and one that is not needed is given up', async ({ page }) => {
  test.setTimeout(seconds(90));
  await page.goto(`/convert/charts/${await aChart(page, 'Tin')}`);
  const tin = await through(page, 'other.png', '--preset', 'tin');
  await page.goto(`/convert/charts/${await aChart(page, 'Velour')}`);
  await give(page, tin);
  await expect(refusal(page)).toContainText('This is the chart for Tin, Quern 3.', { timeout: seconds(30) });
  await page.getByRole('button', { name: 'Give this chart up' }).click();
  await expect(page.getByRole('heading', { name: 'Charts', level: 1 })).toBeVisible();
});
