/** Favorites: a ribbon comes into the editors' own lists, as they tell themselves; what people there chose stays. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { awake, listed, origin, planFor, stationRoot, takeIn } from './app';
import { approve, itemNamed, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a ribbon comes into an editor’s list; their own stays, what they take off stays off', async ({ page }) => {
  test.setTimeout(seconds(180));
  const [ours, theirs] = ['Vault Lead', 'Vault Tin'];
  await takeIn(
    page,
    'Vault',
    {
      [`${ours}.cube`]: redRaised(ours, 1.47),
      [`${theirs}.cube`]: redRaised(theirs, 2.11),
    },
    { shelf: 'Vault' },
  );
  await approve(page, ours);
  await approve(page, theirs);
  for (const title of [ours, theirs]) {
    await planFor(page, title, ['Model room']);
    await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
    await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  }
  const list = join(stationRoot('model-room'), 'Oxbow/Looks/first.list');
  const path = (title: string): string => `Oxbow/Looks/${title}.cube`;
  const told = () =>
    listed('Model room', 'oxbow@2').favorites.filter((one) => /Vault/.test(one) && one.endsWith('.cube'));
  writeFileSync(list, `${theirs}.cube\n`);

  const { id } = await itemNamed(page, ours);
  const ribbon = await page.request.post(`/api/items/${id}/ribbon`, {
    data: { on: true, whose: 'mine' },
    headers: origin(),
  });
  expect(ribbon.status()).toBe(200);
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Favorites' }).click();
  const row = page.locator('[data-list="Model room Oxbow/Looks/first.list"]');
  await expect(row).toContainText(`${theirs} their own`, { timeout: seconds(20) });
  await expect(row).toContainText(`${ours} comes`);
  await awake(page);
  await row.getByRole('button', { name: /^Bring in step/ }).click();
  await expect(page.getByRole('heading', { name: 'Favorites at Model room' })).toBeVisible({ timeout: seconds(30) });
  await expect(page.locator('[data-path="Oxbow/Looks/first.list"]')).toContainText('keeps 1 favorite of their own');
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await expect.poll(told, { timeout: seconds(30) }).toEqual([path(ours), path(theirs)]);
  expect(readFileSync(list, 'utf8')).toContain(`${theirs}.cube\n`);

  // taken off by somebody there: it stays off until it is asked for again
  writeFileSync(list, `${theirs}.cube\n`);
  await expect.poll(told, { timeout: seconds(20) }).toEqual([path(theirs)]);
  await page.goto('/stations/favorites');
  await expect(row).toContainText(`${ours} taken off there`, { timeout: seconds(20) });
  await expect(row).toContainText('in step');
  await awake(page);
  await row.getByRole('button', { name: /^Put back what was taken off/ }).click();
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await expect.poll(told, { timeout: seconds(30) }).toHaveLength(2);

  // what they chose becomes a ribbon
  await page.goto('/stations/favorites');
  await awake(page);
  await row.getByRole('button', { name: /^Ribbons for their own/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'My ribbons' }).click();
  await expect(row).not.toContainText(`${theirs} their own`);
  await page.goto('/ribbons');
  await expect(page.getByRole('link', { name: theirs })).toBeVisible();
});
