/** Editors described in a form: what would change is seen, it is proposed, and the lead decides. */
import { awake } from './app';
import { expect, test } from './test';

test('a known editor is described anew, and counts once the lead has taken it', async ({ page, pageOf }) => {
  const note = 'quit it before a sync';
  await page.goto('/studio');
  await page.getByRole('link', { name: 'Describe Tessel 7' }).click();
  await expect(page.getByRole('heading', { name: 'Describe Tessel 7' })).toBeVisible();
  await awake(page);
  await expect(page.getByText('Nothing is changed: this is what is known of it.')).toBeVisible();
  // a path that leads nowhere is told at once, and put right
  const looks = page.getByRole('textbox', { name: 'lenses, Windows' });
  const was = await looks.inputValue();
  await looks.fill('C:/Tessel');
  await expect(page.locator('main').getByRole('alert')).toContainText('must begin with {home}, {config} or {media}');
  await expect(page.getByRole('button', { name: 'Propose Tessel 7' })).toHaveCount(0);
  await looks.fill(was);
  await page.getByLabel(/^Notes/).fill(note);
  await expect(page.getByRole('table', { name: '1 difference from what is known' })).toContainText(note);
  // what was begun is there after the page was left
  await page.reload();
  await expect(page.getByLabel(/^Notes/)).toHaveValue(note);
  await page.getByRole('button', { name: 'Propose Tessel 7' }).click();
  await expect(page.getByText('Tessel 7 is proposed.')).toBeVisible();

  const lead = await pageOf('lead');
  await lead.goto('/studio');
  await awake(lead);
  const proposal = lead.locator('article', { hasText: note });
  await proposal.getByRole('button', { name: 'Use this descriptor' }).click();
  await expect(proposal).toHaveCount(0);
  await page.goto('/studio/describe?editor=tessel@7');
  await expect(page.getByLabel(/^Notes/)).toHaveValue(note);
});

test('an editor that nobody knows is described from nothing', async ({ page }) => {
  await page.goto('/studio/describe');
  await awake(page);
  await page.getByLabel('Name', { exact: true }).fill('Trestle');
  await page.getByRole('button', { name: 'Add a place' }).click();
  const name = page.getByLabel('Name of the place place');
  await name.fill('looks');
  await name.press('Enter');
  for (const system of ['macOS', 'Windows', 'Linux'])
    await page.getByRole('textbox', { name: `looks, ${system}` }).fill('{home}/Trestle/Looks');
  await page.getByRole('button', { name: 'Add what it takes' }).click();
  await page.getByLabel('Points').fill('2 to 65, best 33');
  await page.getByLabel('Curve').selectOption('linear light');
  await expect(page.getByText('Trestle is described as an editor that is new here: trestle@1.')).toBeVisible();
  await page.getByRole('button', { name: 'Show its JSON' }).click();
  await expect(page.getByLabel('Descriptor as JSON')).toHaveValue(/"prefer": 33/);
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.locator('main').getByRole('alert')).toContainText('Title is a required field');
});
