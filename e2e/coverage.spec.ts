/** Gear: what the studio's cameras and lenses lack, asked for; photos that an editor does not show, judged by the editor; whether an item will show. */
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { awake, stationRoot } from './app';
import { smallDng } from '../demo/testing/small-dng';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});
const folder = mkdtempSync(join(tmpdir(), 'etagere-photos-'));
test.beforeAll(() => {
  mkdirSync(join(folder, 'Shoot'));
  for (let i = 0; i < 3; i++)
    writeFileSync(join(folder, 'Shoot', `LEY_000${i}.dng`), smallDng('Corvane', 'Corvane Ley'));
  writeFileSync(join(folder, 'Shoot', 'ALD_1.dng'), smallDng('Perrin', 'Perrin Alder'));
  writeFileSync(join(folder, 'Shoot', 'list.txt'), 'what was photographed');
});
test.afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});
const row = (name: string | RegExp) =>
  page.getByRole('row').filter({ has: page.getByRole('button', { name, exact: true }) });

test('cameras and lenses with gaps stand first, and say what they lack', async () => {
  await page.goto('/coverage');
  const first = page.getByRole('table', { name: 'Cameras' }).locator('tbody tr').first();
  await expect(first).toContainText('Corvane Ley II');
  await expect(first).toContainText('none held');
  await expect(first).toContainText('camera profile sent');
  const lens = page.getByRole('table', { name: 'Lenses' }).locator('tbody tr').first();
  await expect(lens).toContainText('Perrin Macro 90 mm f/2.8');
  await expect(lens).toContainText('in no database');
  await expect(page.getByRole('table', { name: 'Lenses' }).locator('tbody tr', { hasText: '24-70' })).toContainText(
    'distortion, lateral chromatic aberration, vignetting, 24–70\u00a0mm',
  );
  await page.getByRole('link', { name: 'Gaps only' }).click();
  await expect(page).toHaveURL(/gaps=1/);
  await expect(page.getByRole('table', { name: 'Lenses' }).locator('tbody tr')).toHaveCount(1);
  await expect(page.getByRole('table', { name: 'Cameras' }).locator('tbody tr')).toHaveCount(2); // the Ley is not read by Marlstone 3
});

test('what is missing is asked for by keyboard, tracked to its end, and is in the activity', async () => {
  await page.goto('/coverage');
  await awake(page);
  const ask = page.getByRole('button', { name: 'Ask for something for the Perrin Macro 90 mm f/2.8' });
  await ask.focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Ask for what is missing' });
  await expect(dialog.getByLabel('What is wanted')).toHaveValue('lens calibration');
  await dialog.getByLabel('Asked of').fill('Saltmarsh Lens Bureau');
  await dialog.getByLabel('Note').fill('at 1:2 too');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(dialog).toBeHidden();
  const request = page.getByRole('table', { name: 'Requests' }).locator('tbody tr', { hasText: 'Macro 90' });
  const of = request.getByLabel(/^Of whom/);
  await expect(of).toHaveValue('Saltmarsh Lens Bureau');
  await of.fill('Saltmarsh Lens Bureau, Ines');
  await page.keyboard.press('Tab');
  await expect(of).toHaveValue('Saltmarsh Lens Bureau, Ines');
  await ask.click(); // the same is not asked twice
  await page.getByRole('button', { name: 'Note the request' }).click();
  await expect(dialog).toContainText('is asked for already');
  await page.keyboard.press('Escape');
  await request.getByLabel(/^Where the request/).selectOption('promised');
  await expect(page.getByRole('table', { name: 'Lenses' })).toContainText('lens calibration promised');
  await page.reload();
  await expect(request.getByLabel(/^Where the request/)).toHaveValue('promised');
  await expect(of).toHaveValue('Saltmarsh Lens Bureau, Ines');
  await page.goto('/activity?subject=request');
  await expect(page.getByText('promised').first()).toBeVisible();
});

test('a camera is added, with its other name, and taken off again', async () => {
  await page.goto('/coverage');
  await awake(page);
  await page.getByRole('button', { name: 'Add a camera' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Maker').fill('Ondine');
  await dialog.getByLabel('Model, as its files name it').fill('Ondine 40');
  await dialog.getByRole('button', { name: 'List it' }).click();
  await expect(dialog).toContainText('Ondine 40 is listed already');
  await dialog.getByLabel('Model, as its files name it').fill('Ondine Forty');
  await dialog.getByLabel(/^Other names/).fill('Ondine 40, ON-40');
  await dialog.getByRole('button', { name: 'List it' }).click();
  await expect(dialog).toBeHidden();
  await expect(row('Ondine Forty')).toContainText('covered'); // by its other name
  await row('Ondine Forty').getByRole('button', { name: 'Ondine Forty', exact: true }).click();
  await dialog.getByRole('button', { name: 'Take off the list' }).click();
  await dialog.getByRole('button', { name: 'Take Ondine Forty off the list' }).click();
  await expect(row('Ondine Forty')).toHaveCount(0);
});

test('a folder that looks empty is explained as the editor itself shows it', async () => {
  await page.goto('/coverage');
  await awake(page);
  const sent: string[] = [];
  page.on('request', (request) => {
    if (request.url().endsWith('/api/gear/photos')) sent.push(request.postData() ?? '');
  });
  await page.locator('input[aria-label="Folder to explain"][webkitdirectory]').setInputFiles(join(folder, 'Shoot'));
  await expect(page.getByText('4 of 5 files are photos that say what they are; 1 is none')).toBeVisible();
  expect(sent[0]!.length).toBeLessThan(400); // what they say, not the photos
  const ley = page.getByRole('region', { name: 'Corvane Ley, camera data' });
  const line = (editor: string) =>
    ley.getByRole('row').filter({ has: page.getByRole('cell', { name: editor, exact: true }) });
  await expect(line('Marlstone 3')).toContainText('3 photos of the Corvane Ley are not supported here');
  await expect(line('Marlstone 3')).toContainText('Use Marlstone 4, which 3 stations have: it reads them.');
  await expect(line('Marlstone 4')).toContainText('yes');
  // the editors' own word for it
  const pictures = join(stationRoot('glaze-desk'), 'Pictures');
  mkdirSync(pictures, { recursive: true });
  for (const file of ['LEY_0000.dng', 'ALD_1.dng'])
    writeFileSync(join(pictures, file), readFileSync(join(folder, 'Shoot', file)));
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Glaze desk' }).click();
  for (const edition of ['3', '4']) {
    const editor = page.locator(`[data-editor="marlstone@${edition}"]`);
    await expect(editor.getByRole('button').first()).toBeVisible();
    await editor
      .getByRole('button', { name: /^(Start|Restart)$/ })
      .first()
      .click();
    const cards = () => {
      try {
        return (
          JSON.parse(
            readFileSync(
              join(stationRoot('glaze-desk'), `Library/Application Support/.marlstone-${edition}/catalogue.json`),
              'utf8',
            ),
          ) as { cards: { path: string; card: string }[] }
        ).cards.map((c) => `${c.path} ${c.card}`);
      } catch {
        return [];
      }
    };
    await expect
      .poll(cards, { timeout: seconds(20) })
      .toEqual(['Pictures/ALD_1.dng shown', `Pictures/LEY_0000.dng ${edition === '3' ? 'empty' : 'shown'}`]);
  }
  rmSync(pictures, { recursive: true });
});

test('an item says whether it will show for a photo, and why not', async () => {
  await page.goto('/shelves?q=bisque');
  await page.locator('[data-spine]').first().click();
  await page.waitForURL(/\/items\//);
  const table = page.getByRole('table', { name: 'Will it show' });
  const line = (text: string) => table.locator('tbody tr', { hasText: text }).filter({ hasText: 'Glaze desk' });
  await expect(line('Marlstone 4')).toContainText(
    'Its newest version is a draft, and only approved ones are placed. Approve it, then roll it out.',
  );
  const frames = page.getByLabel('For a photo like');
  const ley = await frames.locator('option', { hasText: 'Corvane Ley' }).first().getAttribute('value');
  await frames.selectOption(ley!);
  await expect(line('Marlstone 3')).toContainText(
    'Marlstone 3 does not read the Corvane Ley: the photo itself stays an empty card',
  );
  await expect(line('Marlstone 4')).not.toContainText('empty card');
  await page.goto('/shelves?kind=camera-profile&q=ondine+standard');
  await page.locator('[data-spine]').first().click();
  await expect(
    page.getByRole('table', { name: 'Will it show' }).locator('tbody tr', { hasText: 'Tessel 7' }).first(),
  ).toContainText('Tessel 7 takes no camera profiles');
});

test('a retoucher may ask, and is not offered the list to change', async ({ pageOf }) => {
  const own = await pageOf('retoucher');
  await own.goto('/coverage');
  await expect(own.getByRole('button', { name: 'Add a camera' })).toHaveCount(0);
  await awake(own);
  await own.getByRole('button', { name: 'Ask for something that is not listed' }).click();
  await own.getByLabel('Camera or lens').fill('Perrin Oak');
  await own.getByRole('button', { name: 'Note the request' }).click();
  await expect(own.getByRole('table', { name: 'Requests' })).toContainText('Perrin Oak');
});
