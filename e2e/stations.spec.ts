/** A station changes: an editor's new version comes, another goes, and a card is put into its reader. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { awake, origin, planFor, stationRoot, takeIn } from './app';
import { approve, itemNamed, redRaised } from './looks';
import { expect, test } from './test';
import { seconds } from './patience';

test('a station gets another editor and loses it again; what lay there stays', async ({ page }) => {
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Print room' }).click();
  await awake(page);
  const change = async (editor: string, words: string | null) => {
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'Change Print room' });
    await dialog.getByLabel(editor).click();
    if (words) await expect(dialog.getByRole('status')).toContainText(words);
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toBeHidden();
  };
  await change('Oxbow 2', null);
  await expect(page.locator('[data-editor="oxbow@2"]')).toBeVisible();
  await planFor(page, 'Plaster Dust', ['Print room']);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const file = page.locator('[data-path^="Oxbow/Looks/"]').first();
  await expect(file).not.toHaveAttribute('data-state', 'waiting', { timeout: seconds(30) });
  await page.getByRole('link', { name: 'Print room' }).click();
  await awake(page);
  await change('Oxbow 2', 'Etagere has put 1 file for Oxbow 2 there. They stay where they are');
  await expect(page.locator('[data-editor="oxbow@2"]')).toBeHidden();
  await page.goto('/activity');
  await expect(page.getByText(/changed the editors of Print room: Oxbow 2 went, 1 file of ours/).first()).toBeVisible();
});

test('what somebody changed there gets ours again, after a look at the plan; an undo brings theirs back', async ({
  page,
}) => {
  test.setTimeout(seconds(120));
  const title = 'Wet Cast';
  const path = `Oxbow/Looks/${title}.cube`;
  const file = join(stationRoot('model-room'), path);
  await planFor(page, title, ['Model room']);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  const ours = readFileSync(file, 'utf8');
  const theirs = `# stronger, by hand\n${ours}`;
  writeFileSync(file, theirs);

  await page.getByRole('link', { name: 'Model room' }).click();
  const row = page.locator(`[data-path="${path}"]`);
  await expect(row).toHaveAttribute('data-state', 'changed-there', { timeout: seconds(20) });
  await row.getByRole('button', { name: `Put ours again: ${path}` }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  await expect(row).toContainText('is kept and comes back with an undo');
  await expect(page.locator('[data-path]')).toHaveCount(1);
  expect(readFileSync(file, 'utf8')).toBe(theirs);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  expect(readFileSync(file, 'utf8')).toBe(ours);

  await page.getByRole('button', { name: 'Undo the rollout' }).click();
  await page.getByRole('button', { name: /^Take back/ }).click();
  await expect(page.getByRole('heading', { name: 'Undo: Ours again at Model room' })).toBeVisible();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  expect(readFileSync(file, 'utf8')).toBe(theirs);
});

test('a card is added to the reader of a workstation, and gets what is rolled out to it', async ({ page }) => {
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Print room' }).click();
  await awake(page);
  await page.getByRole('button', { name: 'Add a card' }).click();
  const dialog = page.getByRole('dialog', { name: 'Add a card in the reader of Print room' });
  const name = 'Card two';
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  await expect(page.getByText('card in the reader of Print room')).toBeVisible();
  await planFor(page, 'Plaster Dust', [name]);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await expect(page.getByText(/^(\d+) of \1 files reported$/)).toBeVisible({ timeout: seconds(30) });
  expect(existsSync(join(stationRoot('print-room'), 'media/ALDER/LOOKS/Plaster_Dust.cube'))).toBe(true);
});

test('what is archived lies there still, is taken away by a plan, and comes back with its undo', async ({ page }) => {
  test.setTimeout(seconds(120));
  const title = 'Raku Crackle';
  const files = { [`${title}.cube`]: redRaised(title, 0.62) };
  await takeIn(page, title, files, { shelf: title });
  await approve(page, title);
  await planFor(page, title, ['Model room']);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  const { id } = await itemNamed(page, title);
  const archived = await page.request.post('/api/items/archive', {
    data: { items: [id], archived: true },
    headers: origin(),
  });
  expect(archived.status(), await archived.text()).toBe(200);

  await page.getByRole('link', { name: 'Model room' }).click();
  await awake(page);
  const path = `Oxbow/Looks/${title}.cube`;
  const row = page.locator(`[data-path="${path}"]`);
  await expect(row).toContainText('its item is archived, and it lies here still');
  await row.getByRole('button', { name: `Take away: ${path}` }).click();
  await page.getByRole('button', { name: 'Confirm: take away 1 file on 1 station' }).click();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  expect(existsSync(join(stationRoot('model-room'), path))).toBe(false);

  await page.getByRole('button', { name: 'Undo the rollout' }).click();
  await page.getByRole('button', { name: /^Take back/ }).click();
  await expect(page.getByRole('heading', { name: 'Undo: Take 1 file away at Model room' })).toBeVisible();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  expect(existsSync(join(stationRoot('model-room'), path))).toBe(true);
});

test('an editor that the agent finds there is proposed, and looked after from then on', async ({ page }) => {
  test.setTimeout(seconds(90));
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Fly gallery' }).click();
  await awake(page);
  const found = page.getByRole('region', { name: 'Found on the machine' });
  await expect(found).toContainText('Oxbow 2', { timeout: seconds(30) });
  await found.getByRole('button', { name: 'Add Oxbow 2' }).click();
  await expect(page.locator('[data-editor="oxbow@2"]')).toBeVisible({ timeout: seconds(20) });
  await expect(found).toBeHidden();
  const id = new URL(page.url()).pathname.split('/').at(-1) ?? '';
  const back = { name: 'Fly gallery', person: 'Jory Tamm', went: ['oxbow@2'] };
  await page.request.patch(`/api/stations/${id}`, { data: back, headers: origin() });
});

test('what is theirs and of no interest is ignored, and told of again', async ({ page }) => {
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Glaze desk' }).click();
  await awake(page);
  const path = 'Oxbow/Presets/notes.txt';
  const row = page.locator(`[data-path="${path}"]`);
  await page.getByRole('button', { name: `Ignore it: ${path}` }).click();
  await expect(row).toBeHidden({ timeout: seconds(20) });
  await page.getByText('1 file that is ignored until somebody changes it').click();
  await expect(row).toBeVisible();
  await page.getByRole('button', { name: `Tell of it again: ${path}` }).click();
  await expect(page.getByRole('button', { name: `Ignore it: ${path}` })).toBeVisible({ timeout: seconds(20) });
});
