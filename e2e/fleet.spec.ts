/** The fleet narrowed to what is looked for; what lay at a station before; and a rollout that another person confirms. */
import { awake, listed, planFor, signIn, takeIn } from './app';
import { approve, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

/** Eight workstations, and the card in the reader of one. */
const STATIONS = 9;

test('stations are found by a person, a system and by what they need; a number leads to what it counts', async ({
  page,
}) => {
  await page.goto('/stations');
  await awake(page);
  const rows = page.locator('main tbody tr');
  await expect(rows).toHaveCount(STATIONS);
  await page.getByLabel('Name of a station or a person').fill('sand');
  await page.keyboard.press('Enter');
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText('Glaze desk');
  await page.getByLabel('With which system').selectOption('Linux');
  await expect(page.getByText('None of 9 stations is like this.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(rows).toHaveCount(STATIONS);
  await page.getByLabel('In which order').selectOption('silent for longest first');
  await expect(page).toHaveURL(/order=report/);
  await expect(rows).toHaveCount(STATIONS);
  await page.goto('/stations');
  const due = page.getByRole('link', { name: /^\d+ (to see to|due|to be started)$/ }).first();
  const [count] = /^\d+/.exec((await due.textContent()) ?? '') ?? [];
  await due.click();
  await expect(rows).toHaveCount(Number(count));
});

test('a station is put into a group, is found by it, and is taken by it for a rollout', async ({ page }) => {
  const group = 'Upper floor';
  const grouped = async (names: string): Promise<void> => {
    await page.goto('/stations');
    await page.getByRole('link', { name: 'Model room' }).click();
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByLabel('Groups, with commas between them').fill(names);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
  };
  await grouped(group);
  await page.goto('/stations');
  await awake(page);
  await page.getByLabel('In which group').selectOption(group);
  const rows = page.locator('main tbody tr');
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText('Model room');
  await page.goto('/rollouts/new');
  await awake(page);
  await page.getByRole('button', { name: `All of ${group}` }).click();
  await expect(page.getByRole('checkbox', { name: 'Model room' }).first()).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Glaze desk' }).first()).not.toBeChecked();
  await grouped('');
  await page.goto('/stations');
  await expect(page.getByLabel('In which group').locator('option', { hasText: group })).toHaveCount(0);
});

test('another person confirms, where the lead asks for it; what lay there before is told by day', async ({
  page,
  browser,
}) => {
  test.setTimeout(seconds(150));
  const title = 'Sluice Umber';
  const files = { [`${title}.cube`]: redRaised(title, 3.31) };
  await takeIn(page, 'Sluice', files, { shelf: 'Sluice' });
  await approve(page, title);

  const other = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const lead = await other.newPage();
  await signIn(lead, 'lead');
  await lead.goto('/studio');
  const review = lead.getByRole('checkbox', { name: 'Another person confirms what one has planned' });
  try {
    await review.check();
    await expect(review).toBeChecked();
    await planFor(page, title, ['Model room']);
    await expect(page.getByText('Another person has to confirm this')).toBeVisible({ timeout: seconds(30) });
    await expect(page.getByRole('button', { name: /^Confirm/ })).toHaveCount(0);
    await lead.goto(page.url());
    await lead.getByRole('button', { name: /^Confirm: write/ }).click({ timeout: seconds(30) });
    await expect
      .poll(() => listed('Model room', 'oxbow@2').listed.filter((one) => one.title === title).length, {
        timeout: seconds(30),
      })
      .toBe(1);
  } finally {
    // what is shown is what is hoped for: the setting counts once the server has answered, and the page is left only then
    const kept = lead.waitForResponse((response) => response.url().endsWith('/api/studio/review'));
    await lead.goto('/studio');
    await review.uncheck();
    expect((await kept).status()).toBe(200);
    await other.close();
  }

  await page.goto('/stations');
  await page.getByRole('link', { name: 'Model room' }).click();
  await page.getByRole('link', { name: 'What lay there' }).click();
  await awake(page);
  await expect(page.getByRole('row', { name: new RegExp(title) })).toContainText('lies there still');
  await page.getByRole('button', { name: 'The day before' }).click();
  await expect(page.getByRole('heading', { name: /^At the end of \d{4}-/ })).toBeVisible();
  await expect(page.getByRole('row', { name: new RegExp(title) })).toHaveCount(0);
  await page.getByLabel('On which day').fill('2020-02-29');
  await expect(page.getByRole('heading', { name: 'At the end of 2020-02-29: nothing' })).toBeVisible();
  await page.getByRole('button', { name: 'Today', exact: true }).click();
  await expect(page.getByRole('row', { name: new RegExp(title) })).toHaveCount(1);
});
