/** Why an item is not there: asked for a photo at hand, and cured from where it is told, until the editor lists it. */
import { awake, listed, takeIn } from './app';
import { approve, itemNamed, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a look that is not there is planned from where that is told, and shows for a photo at hand', async ({ page }) => {
  test.setTimeout(seconds(120));
  const title = 'Pantry Slip';
  await takeIn(page, 'Pantry', { [`${title}.cube`]: redRaised(title, 2.91) }, { shelf: 'Pantry' });
  const { id } = await itemNamed(page, title);
  await page.goto(`/items/${id}`);
  await awake(page);
  const table = page.getByRole('table', { name: 'Will it show' });
  const row = table.getByRole('row').filter({ hasText: 'Oxbow 2' }).filter({ hasText: 'Model room' });
  await expect(row.getByRole('button', { name: 'Approve it: Oxbow 2 at Model room' })).toBeVisible();
  await approve(page, title);
  await expect(row).toContainText('It is not placed there', { timeout: seconds(20) });

  // a picture without color, of no camera
  const gray = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(64, 48);
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#777';
    context.fillRect(0, 0, 64, 48);
    const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
    return [...bytes];
  });
  await page
    .getByLabel('The photo to ask about')
    .setInputFiles({ name: 'Slip.png', mimeType: 'image/png', buffer: Buffer.from(gray) });
  await expect(
    page.getByText('no camera named, rendered, without color; it was read here, and not sent.'),
  ).toBeVisible();
  await row.getByRole('button', { name: 'Plan it: Oxbow 2 at Model room' }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  await page.getByRole('button', { name: /^Confirm: write 1 file/ }).click();
  const file = page.locator('[data-path^="Oxbow/Looks/"]').filter({ hasText: title });
  await expect(file).toHaveAttribute('data-state', 'listed', { timeout: seconds(40) });
  expect(listed('Model room', 'oxbow@2').listed.map((one) => one.title)).toContain(title);
  const readings = page.getByRole('list', { name: 'What the editors listed before and after' });
  await expect(readings).toContainText(`Came: ${title}`, { timeout: seconds(20) });

  await page.goto(`/items/${id}`);
  await expect(row).toContainText('nothing stands in its way', { timeout: seconds(20) });
});
