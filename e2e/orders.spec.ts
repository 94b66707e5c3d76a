/** A shelf is followed: what is missing at its stations is told, planned and brought there; what is approved later is due again. */
import { awake, listed, takeIn } from './app';
import { approve, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a shelf is followed by a station, which is brought in step, and told of what is approved later', async ({
  page,
}) => {
  test.setTimeout(seconds(150));
  const [name, shelf] = ['Salt glazes', 'Salt'];
  const [first, later] = ['Salt Orange', 'Salt Brown'];
  const files = {
    [`${first}.cube`]: redRaised(first, 1.31),
    [`${later}.cube`]: redRaised(later, 1.83),
  };
  await takeIn(page, shelf, files, { shelf });
  await approve(page, first);

  await page.goto('/stations');
  await page.getByRole('link', { name: 'Standing orders' }).click();
  await expect(page.getByRole('region', { name: 'Everyday desks' })).toBeVisible();
  await awake(page);
  await page.getByRole('button', { name: 'New standing order' }).click();
  const dialog = page.getByRole('dialog', { name: 'New standing order' });
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('group', { name: 'Stations that follow' }).getByLabel('Model room').check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('Nothing is followed by this order.')).toBeVisible();
  await dialog.getByRole('group', { name: 'Shelves followed' }).getByLabel(shelf, { exact: true }).check();
  await dialog.getByRole('button', { name: 'Save' }).click();

  const order = page.getByRole('region', { name });
  const room = order.getByRole('row', { name: /Model room/ });
  await expect(room).toContainText('missing');
  await order.getByRole('button', { name: `Plan what is due by ${name}` }).click();
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click({ timeout: seconds(30) });
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  await expect
    .poll(() => listed('Model room', 'oxbow@2').listed.map(({ title }) => title), { timeout: seconds(20) })
    .toContain(first);

  await page.goto('/stations/orders');
  await expect(room).toContainText('in step');
  await expect(order.getByRole('button', { name: /Plan what is due/ })).toBeHidden();
  await approve(page, later);
  await page.goto('/stations/orders');
  await expect(room).toContainText('missing');
  await room.getByRole('link', { name: 'Model room' }).click();
  const due = page.getByRole('region', { name });
  await expect(due.getByText('1 file due, 1 put there')).toBeVisible();
  await expect(due.getByRole('row', { name: new RegExp(later) })).toContainText('version 1 should lie there');

  await page.goto('/stations/orders');
  await awake(page);
  await page.getByRole('button', { name: `Remove ${name}` }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(order).toBeHidden();
});
