/** A second copy of a file of ours at a station goes by a plan, and comes back when that is undone. */
import { copyFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { awake, listed, planFor, stationRoot } from './app';
import { ownLook } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('what lies twice at the Glaze desk is told, taken away by a plan, and brought back', async ({ page }) => {
  test.setTimeout(seconds(150));
  const title = 'Annex Umber';
  await ownLook(page, title, 'Annex', 4.6);
  await planFor(page, title, ['Glaze desk']);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const ours = page.locator('[data-path^="Oxbow/Looks/"]').filter({ hasText: title });
  await expect(ours).toHaveAttribute('data-state', 'listed', { timeout: seconds(40) });
  const root = stationRoot('glaze-desk');
  const path = (await ours.getAttribute('data-path')) ?? '';
  const copy = `Oxbow/Looks/Mirre, old/${title} copy.cube`;
  mkdirSync(dirname(join(root, copy)), { recursive: true });
  copyFileSync(join(root, path), join(root, copy));
  const bytes = readFileSync(join(root, copy));

  await page.getByRole('link', { name: 'Glaze desk' }).first().click();
  await page.waitForURL(/\/stations\//);
  await awake(page);
  const twice = page.getByRole('region', { name: 'Lies there twice' });
  const row = twice.getByRole('listitem').filter({ hasText: copy });
  await expect(row).toContainText('the same file', { timeout: seconds(30) });
  await row.getByRole('button', { name: `Plan to keep ${path} alone` }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  const step = page.locator(`[data-path="${copy}"]`);
  await expect(step).toContainText('is theirs, and the same as a file of ours');
  await page.getByRole('button', { name: /^Confirm: take away 1 file/ }).click();
  await expect.poll(() => existsSync(join(root, copy)), { timeout: seconds(30) }).toBe(false);
  expect(existsSync(join(root, path))).toBe(true);
  const paths = () => listed('Glaze desk', 'oxbow@2').listed.map((one) => one.path);
  await expect.poll(paths, { timeout: seconds(20) }).not.toContain(copy);

  const undo = page.getByRole('button', { name: 'Undo the rollout' });
  await expect(undo).toBeEnabled({ timeout: seconds(30) });
  await undo.click();
  await page.getByRole('button', { name: /^Take back 1 file/ }).click();
  await expect.poll(() => existsSync(join(root, copy)), { timeout: seconds(30) }).toBe(true);
  expect(readFileSync(join(root, copy)).equals(bytes)).toBe(true);
});
