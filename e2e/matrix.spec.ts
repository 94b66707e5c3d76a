/** Who has what: what a shelf's items lack is seen for all stations, and rolled out from there. */
import { awake, takeIn } from './app';
import { approve, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a new look is missing everywhere, is rolled out where it is due, and is in step then', async ({ page }) => {
  test.setTimeout(seconds(120));
  const [title, shelf] = ['Cistern Jade', 'Cistern'];
  const files = { [`${title}.cube`]: redRaised(title, 2.71) };
  await takeIn(page, shelf, files, { shelf });
  await approve(page, title);
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Who has what' }).click();
  await awake(page);
  await page.getByLabel('What it is of').selectOption(shelf);
  const row = page.getByRole('row', { name: new RegExp(title) });
  await expect(row).toContainText('missing');
  await row.getByRole('link', { name: `Roll out ${title} where it is due` }).click();
  await expect(page.getByRole('checkbox', { name: 'Model room' }).first()).toBeChecked();
  await page.getByRole('button', { name: 'Show every file' }).click();
  await page.getByRole('button', { name: /^Confirm: write/ }).click({ timeout: seconds(30) });
  await expect(page.locator(`[data-path="Oxbow/Looks/${title}.cube"]`).first()).not.toHaveAttribute(
    'data-state',
    'waiting',
    { timeout: seconds(30) },
  );
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Who has what' }).click();
  await awake(page);
  await page.getByLabel('What it is of').selectOption(shelf);
  await expect(row).toContainText('in step');
});
