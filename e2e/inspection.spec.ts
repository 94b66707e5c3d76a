/** Many looks are inspected side by side and held against a camera's card; what has to change is changed from there. */
import { readFileSync } from 'node:fs';
import { cubeOf } from '../demo/files';
import { awake, takeIn } from './app';
import { expect, test } from './test';
import { seconds } from './patience';

test('a shelf is inspected, sorted, saved as a table, and made ready for the card of the camera', async ({ page }) => {
  test.setTimeout(seconds(120));
  const name = (title: string) => `Trestle ${title}`;
  const design = (title: string, level: number) => ({
    title,
    headings: [],
    settings: { level, chroma: 0.93 },
  });
  const steps = [...Array(17 ** 3).keys()].map((i) => {
    const at = [i % 17, Math.floor(i / 17) % 17, Math.floor(i / 289)];
    return at.map((x) => (Math.floor((x / 16) * 4) / 4).toFixed(4)).join(' ');
  });
  const shelf = name('card');
  await takeIn(
    page,
    shelf,
    {
      [`${name('fine')}.cube`]: cubeOf(design('', 0.173), 33),
      [`${name('large')}.cube`]: cubeOf(design('', -0.337), 40),
      [`${name('steps')}.cube`]: `LUT_3D_SIZE 17\n${steps.join('\n')}\n`,
    },
    { shelf },
  );
  await page.goto('/shelves');
  await awake(page);
  await page.getByRole('region', { name: shelf, exact: true }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: `The shelf ${shelf}` }).click();
  await page.getByRole('menuitem', { name: 'Inspect all of it' }).click();
  await expect(page.getByRole('heading', { name: 'Inspection', level: 1 })).toBeVisible();
  const figures = page.getByRole('table', { name: 'Figures' });
  const titles = () =>
    figures.locator('[data-row]').evaluateAll((rows) => rows.map((row) => row.getAttribute('data-row')));
  await expect(figures.locator('[data-row]', { hasText: name('steps') })).toContainText('poor', {
    timeout: seconds(30),
  });
  await expect(page.getByRole('button', { name: 'CSV' })).toBeEnabled({ timeout: seconds(30) });
  expect((await titles())[0]).toBe(name('steps'));
  await figures.getByRole('button', { name: /^Item/ }).click();
  expect(await titles()).toEqual([name('fine'), name('large'), name('steps')]);
  await expect(page.getByRole('img', { name: `The neutral scale of ${name('steps')}` })).toBeVisible();

  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  const lines = readFileSync(await csv.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[3]).toContain('poor');

  await page.getByLabel('Check for').selectOption({ label: 'card of the Perrin Alder' });
  const list = page.getByRole('table', { name: 'Checklist for Perrin Alder' });
  const row = (title: string) => list.locator(`[data-row="${name(title)}"]`);
  await expect(row('large')).toContainText('40 become 33');
  await expect(row('fine')).toContainText('nobody has said it');
  await page.getByRole('button', { name: 'Say the encoding of 3 looks' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Confirm' }).click();
  await expect(row('fine')).not.toContainText('nobody has said it');
  await page.getByRole('button', { name: 'Approve 3 drafts' }).click();
  await expect(row('fine')).not.toContainText('to change');
  await expect(row('fine')).toContainText('on the way');

  await page.getByRole('button', { name: /^Make tables of 33 points/ }).click();
  await expect(page).toHaveURL(/\/convert\/[0-9a-f-]{36}$/, { timeout: seconds(20) });
  await expect(page.getByText(name('large')).first()).toBeVisible();
  await expect(page.getByText(name('fine'))).toHaveCount(0);
});
