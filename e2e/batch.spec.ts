/** A whole pack converted as a librarian does it: planned first, one left out, one that cannot be, made, and made again after a new release. */
import { oxbowPreset } from '../core/preset/testing';
import { awake, takeIn } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const lamp = (stops: number) => `<rdf:li run:step="lamp" run:stops="${stops}"/>`;
const relief = '<rdf:li run:step="edge" run:relief="0.2"/>';
const file = (title: string, steps: string): [string, string] => [
  `Lanterns/${title}.xmp`,
  oxbowPreset(steps, { title }),
];
const row = (title: string) => page.locator(`[data-row="${title}"]`);

const release = (one: number) =>
  Object.fromEntries([
    file('Lantern One', lamp(one) + relief),
    file('Lantern Two', lamp(-0.3)),
    file('Lantern Three', lamp(0.7)),
    file('Lantern Relief', relief),
  ]);

test('a whole pack becomes tables: one left out, one that cannot be; and it is made again after a new release', async () => {
  test.setTimeout(seconds(180));
  await takeIn(page, 'Lanterns', release(0.4), { shelf: 'Lanterns' });
  await page.goto('/packs');
  await page.getByRole('link', { name: 'Lanterns', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Lanterns', level: 1 })).toBeVisible();
  await awake(page);
  await page.getByRole('button', { name: 'Convert all' }).click();
  await page.waitForURL(/\/convert\/[0-9a-f-]{36}/);

  // the plan first: what is carried, what is left, and why one cannot be made
  await expect(page.getByRole('button', { name: 'Make 3 items' })).toBeVisible({ timeout: seconds(60) });
  await expect(row('Lantern One')).toContainText('1 carried, 1 left out');
  await expect(row('Lantern One')).toContainText('within the studio’s limits');
  await expect(row('Lantern Relief')).toContainText('Nothing would be left of this preset in a look.');
  await row('Lantern One').locator('summary').click();
  await expect(row('Lantern One')).toContainText('Local contrast');

  await page.getByLabel('Make Lantern Two').uncheck();
  await page.getByLabel('Title, as a pattern').fill('{title} table');
  await page.getByLabel('Title, as a pattern').press('Enter');
  await expect(page.getByLabel('Title of what Lantern One becomes')).toHaveValue('Lantern One table');
  await page.getByLabel('Points an axis').selectOption('17');
  await page.getByRole('button', { name: 'Work it out anew' }).click();
  await expect(row('Lantern One')).toContainText('table of 17 points', { timeout: seconds(60) });
  await page.getByRole('button', { name: 'Make 2 items' }).click();
  await expect(page.getByRole('button', { name: 'Approve 2 drafts' })).toBeVisible({ timeout: seconds(60) });
  await expect(row('Lantern Two')).toContainText('left out');
  await page.getByRole('button', { name: 'Approve 2 drafts' }).click();
  await expect(row('Lantern One')).toContainText('open the approved');

  // a newer release makes what was made of it stale, and the same recipe makes it again
  await takeIn(page, 'Lanterns', release(0.9), { shelf: 'Lanterns, anew' });
  await page.goto('/shelves?stale=yes&q=Lantern');
  await awake(page);
  const spine = page.locator('[data-spine]', { hasText: 'Lantern One table' });
  await expect(spine).toContainText('stale');
  await spine.focus();
  await page.keyboard.press('x');
  await page.getByRole('button', { name: 'Make the stale one again' }).click();
  await page.waitForURL(/\/convert\/[0-9a-f-]{36}/);
  await expect(row('Lantern One')).toContainText('changed: Level', { timeout: seconds(60) });
  await expect(row('Lantern One')).toContainText('table of 17 points');
  await page.getByRole('button', { name: 'Make 1 item' }).click();
  await row('Lantern One')
    .getByRole('link', { name: 'open the draft' })
    .click({ timeout: seconds(60) });
  await expect(page.getByRole('heading', { name: 'Lantern One table', level: 1 })).toBeVisible();
  await expect(page.getByText('made from preset version 2')).toBeVisible();
});

test('names that are borne already are asked about once, and a run is paused and goes on', async () => {
  const files = Object.fromEntries(
    Array.from({ length: 12 }, (_, n) =>
      file(`Taper ${n + 1}`, lamp((n + 1) / 20) + '<rdf:li run:step="tooth" run:load="0.2"/>'),
    ),
  );
  await takeIn(page, 'Tapers', files, { shelf: 'Tapers' });
  const convertAll = async () => {
    await page.goto('/shelves');
    await awake(page);
    await page.getByRole('region', { name: 'Tapers', exact: true }).scrollIntoViewIfNeeded();
    await page.getByRole('button', { name: 'The shelf Tapers' }).click();
    await page.getByRole('menuitem', { name: 'Convert all of it' }).click();
    await page.waitForURL(/\/convert\/[0-9a-f-]{36}/);
  };
  test.setTimeout(seconds(180));
  await convertAll();
  await expect(page.getByRole('button', { name: 'Make 12 items' })).toBeVisible({ timeout: seconds(60) });
  // so fine that there is time to pause
  await page.getByLabel('Points an axis').selectOption('65');
  await page.getByRole('button', { name: 'Work it out anew' }).click();
  await expect(page.locator('[data-row="Taper 12"]')).toContainText('table of 65 points', { timeout: seconds(60) });
  await page.getByRole('button', { name: 'Make 12 items' }).click({ timeout: seconds(60) });
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('button', { name: /^Go on with \d+ items?$/ }).click();
  await expect(page.getByRole('button', { name: 'Approve 12 drafts' })).toBeVisible({ timeout: seconds(60) });

  // a second time their names are there; looks among them become nothing by this recipe
  await convertAll();
  await expect(page.getByRole('group', { name: '12 names borne already' })).toBeVisible({ timeout: seconds(60) });
  await page.getByRole('button', { name: 'Make 12 items' }).click();
  await expect(page.getByText(/12 names are borne already where they will stand/)).toBeVisible();
  await page.getByLabel('Put a number behind it').check();
  await expect(page.getByLabel('Title of what Taper 12 becomes')).toHaveValue('Taper 12 2');
  await page.getByLabel('Leave these out').check();
  await expect(page.getByRole('button', { name: 'Nothing to make' })).toBeDisabled();
  await page.getByRole('button', { name: 'Drop the plan' }).click();
  await page.waitForURL(/\/convert$/);
});
