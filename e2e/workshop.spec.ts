/** A new editor is described in the workshop by its presets alone, and its presets go both ways without a line of code. */
import { readFileSync } from 'node:fs';
import { oxbowPreset } from '../core/preset/testing';
import { signIn, takeIn } from './app';
import { expect, test } from './test';
import { seconds } from './patience';

const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });

test('an editor that nobody knew is mapped by its samples, proposed, taken, and its presets are converted both ways', async ({
  page,
  browser,
}) => {
  test.setTimeout(seconds(180));
  const editor = 'Halyard';
  const sample = (title: string, lines: string) => `made-with = ${editor} 1\ntitle = ${title}\n${lines}`;
  await page.goto('/studio');
  await page.getByRole('link', { name: 'Describe an editor by its presets' }).click();
  await page
    .getByLabel('Sample presets')
    .setInputFiles([
      file(
        'dawn.hyp',
        sample('Dawn', 'exposure = 40\nsaturation = -20\ncurve = 0:0; 128:140; 255:250\nflavour = mild\n'),
      ),
      file('dusk.hyp', sample('Dusk', 'exposure = -100\nsaturation = 35\n')),
    ]);
  await page.getByLabel('Name of the editor').fill(editor);
  await page.getByLabel('Linux').fill(`{home}/${editor}/Presets`);
  await expect(page.getByLabel('A file is one of its presets where')).toContainText(`made-with is “${editor} 1”`);
  await page.getByRole('button', { name: 'Map its properties' }).click();

  const properties = page.getByRole('table', { name: 'Properties' });
  await expect(properties.locator('[data-row="exposure"]')).toContainText('whole numbers, -100 to 40');
  await properties
    .locator('[data-row="exposure"]')
    .getByRole('button', { name: /^Level\?/ })
    .click();
  await expect(properties.locator('[data-row="exposure"]')).toContainText('-5 to 2 EV');
  await page.getByLabel('times, of exposure').fill('0.01');
  await page.getByLabel('times, of exposure').press('Enter');
  await expect(properties.locator('[data-row="exposure"]')).toContainText('-1 to 0.4 EV');
  await properties
    .locator('[data-row="saturation"]')
    .getByRole('button', { name: /^Chroma gain\?/ })
    .click();
  await expect(properties.locator('[data-row="saturation"]')).toContainText('0.8 to 1.35 factor');
  await properties
    .locator('[data-row="curve"]')
    .getByRole('button', { name: /^Curve\?/ })
    .click();
  await page.getByLabel('What title stands for').selectOption('the preset’s title');
  const picture = page.getByRole('img', { name: /with dawn.hyp, as the mapping reads it$/ });
  await expect(picture).toHaveAttribute('data-shown', /\d/, { timeout: seconds(20) });
  await expect(page.getByRole('list', { name: 'Not mapped' })).toContainText('flavour in 1 sample');

  await page.getByLabel('Presets are written into').selectOption({ label: 'dusk.hyp, emptied of all that is mapped' });
  const trips = page.getByRole('table', { name: 'Round trips' });
  await expect(trips.locator('[data-row="dawn.hyp"]')).toContainText('reads as before');
  await expect(trips.locator('[data-row="dusk.hyp"]')).toContainText('reads as before');
  await page.reload();
  await expect(page.getByText('What you were working on here is back.')).toBeVisible();
  await expect(trips.locator('[data-row="dawn.hyp"]')).toContainText('reads as before');
  await page.getByRole('button', { name: `Propose ${editor}` }).click();
  await expect(page.getByText(`${editor} is proposed.`)).toBeVisible();

  const elsewhere = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const other = await elsewhere.newPage();
  await signIn(other, 'lead');
  await other.goto('/studio');
  await other
    .getByRole('article')
    .filter({ hasText: editor })
    .getByRole('button', { name: 'Use this descriptor' })
    .click();
  await expect(other.getByRole('table', { name: 'Editors' })).toContainText(editor, { timeout: seconds(20) });
  await elsewhere.close();

  const noon = `Noon ${editor}`;
  await takeIn(
    page,
    noon,
    { [`${noon}.hyp`]: sample(noon, 'exposure = 60\ncurve = 0:0; 100:120; 255:255\nflavour = strong\n') },
    { shelf: `From ${editor}` },
  );
  await page.goto(`/shelves?q=${encodeURIComponent(noon)}`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByRole('link', { name: 'A preset of Oxbow 2' }).click();
  await page.getByRole('button', { name: 'Write it for Oxbow 2' }).click();
  await page.waitForURL(/\/items\/.*form=/);

  const rope = `Rope ${editor}`;
  await takeIn(
    page,
    rope,
    {
      [`${rope}.xmp`]: oxbowPreset('<rdf:li run:step="lamp" run:stops="1.37"/>', {
        title: rope,
      }),
    },
    { shelf: `To ${editor}` },
  );
  await page.goto(`/shelves?q=${encodeURIComponent(rope)}`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByRole('link', { name: `A preset of ${editor}`, exact: true }).click();
  await page.getByRole('button', { name: `Write it for ${editor}` }).click();
  await page.waitForURL(/\/items\/.*form=/);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /\.hyp$/ }).click(),
  ]);
  const written = readFileSync(await download.path(), 'utf8');
  expect(written).toContain(`made-with = ${editor} 1`);
  expect(written).toContain('exposure = 137');
  expect(written).toContain(`title = ${rope}`);
});
