/** Converting as a librarian does it: a preset into another editor's language, listed there; and what presets refer to. */
import { cubeOf } from '../demo/files';
import { oxbowPreset } from '../core/preset/testing';
import { address, awake, idle, listed, takeIn } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const open = async (title: string) => {
  await page.goto(`/shelves?q=${encodeURIComponent(title)}`);
  await page.locator('[data-spine]').first().click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
};
const cube = (title: string, level: number) => cubeOf({ title, headings: [], settings: { level } }, 9);
const shown = () => page.locator('canvas[data-shown]').first();

test('a preset is written for another editor: what becomes of each setting first, then a form that the editor lists', async () => {
  test.setTimeout(seconds(120));
  const steps =
    '<rdf:li run:step="lamp" run:stops="0.4"/><rdf:li run:step="edge" run:relief="0.2"/><rdf:li run:step="petal" run:at="40" run:span="80" run:rich="20"/>';
  const title = 'Wing Light';
  await takeIn(page, 'Wing set', { 'Wing set/Wing.xmp': oxbowPreset(steps, { title }) }, { shelf: 'Wings' });
  await open(title);
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByRole('link', { name: 'A preset of Marlstone 4' }).click();
  await expect(page.getByRole('row', { name: /Hue sectors .* Marlstone 4 has sectors at 20°/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Local contrast Marlstone 4 has no such setting/ })).toBeVisible();
  await page.getByRole('button', { name: 'Write it for Marlstone 4' }).click();
  await page.waitForURL(/\/items\/.*form=/);
  const forms = page.getByRole('navigation', { name: 'Forms of this design' });
  await expect(forms.locator('[aria-current="page"]')).toContainText('Marlstone 4');
  await awake(page);
  await page.getByRole('button', { name: 'Approve', exact: true }).click();
  await page.getByRole('link', { name: 'Roll out' }).click();
  await page.getByRole('checkbox', { name: 'Glaze desk' }).check();
  await page.getByRole('button', { name: 'Show every file' }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  await expect(page.locator('[data-path*=".marlstone-4/presets/"]').first()).toBeVisible();
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await page.getByText('restart due for Marlstone 4').click({ timeout: seconds(30) });
  const row = page.locator('[data-editor="marlstone@4"]');
  await row.getByRole('button', { name: 'Restart' }).click();
  await expect
    .poll(() => listed('Glaze desk', 'marlstone@4').listed.map((one) => one.title), { timeout: seconds(30) })
    .toContain(title);
  // as it is wanted by whoever starts it next
  await row.getByRole('button', { name: 'Quit' }).click();
  await expect(row.getByRole('button', { name: 'Start' })).toBeVisible();
});

test('a preset is shown with the look that it calls: missing, asked where two fit, and then bound', async () => {
  const calling = oxbowPreset(
    '<rdf:li run:step="tooth" run:load="0.2"/><rdf:li run:step="table" run:name="Proscenium Haze" run:share="0.5"/>',
    { title: 'Haze Call' },
  );
  await takeIn(page, 'Haze set', { 'Haze set/Haze Call.xmp': calling }, { shelf: 'Haze' });
  await open('Haze Call');
  await expect(page.getByText('No item of this name is held')).toBeVisible();
  await expect(page.getByText(/Not shown: grain\. Without “Proscenium Haze”/)).toBeVisible();
  await shown().waitFor();
  await takeIn(
    page,
    'One',
    { 'One/Haze.cube': cube('Proscenium Haze', 1) },
    { shelf: 'Haze one', supplier: 'Sable Row' },
  );
  await takeIn(
    page,
    'Two',
    { 'Two/Haze.cube': cube('Proscenium Haze', -1) },
    { shelf: 'Haze two', supplier: 'Quarry' },
  );
  // the first that came was the only one then
  await open('Haze Call');
  await expect(page.getByText(/and Proscenium Haze at 50 %/)).toBeVisible();
  const again = oxbowPreset('<rdf:li run:step="table" run:name="Proscenium Haze" run:share="0.5"/>', {
    title: 'Haze Again',
  });
  await takeIn(page, 'Three', { 'Three/Haze Again.xmp': again }, { shelf: 'Haze three' });
  await open('Haze Again');
  await expect(page.getByText('Several items have this name. Which is meant?')).toBeVisible();
  await awake(page);
  await page.getByRole('button', { name: 'This one: Proscenium Haze from Quarry' }).click();
  await expect(page.getByText(/and Proscenium Haze at 50 %/)).toBeVisible();
  await idle(page);
});

test('a look gets a companion preset, which calls it and touches nothing else', async () => {
  await takeIn(page, 'Gauze set', { 'Gauze set/Gauze.cube': cube('Evening Gauze', 0.5) }, { shelf: 'Gauze' });
  await open('Evening Gauze');
  await awake(page);
  await page.getByRole('button', { name: 'More to do with the item' }).click();
  await page.getByRole('menuitem', { name: 'Make a preset that calls it' }).click();
  const dialog = page.getByRole('dialog', { name: 'A preset that calls it' });
  await dialog.getByRole('button', { name: 'Make the preset' }).click();
  await expect(dialog.getByText('Choose an editor.')).toBeVisible();
  await dialog.getByLabel('Editor').selectOption({ label: 'Oxbow 2' });
  await dialog.getByLabel('Title').fill('With evening gauze');
  await dialog.getByLabel('Strength, in percent').fill('70');
  await dialog.getByRole('button', { name: 'Make the preset' }).click();
  await expect(page.getByRole('heading', { name: 'With evening gauze', level: 1 })).toBeVisible();
  await expect(page.getByText(/and Evening Gauze at 70 %/)).toBeVisible();
});

/** The versions of an item, approved by the endpoint that the screen uses. */
async function approved(title: string): Promise<string> {
  const { rows } = (await (await page.request.get(`/api/items?q=${encodeURIComponent(title)}`)).json()) as {
    rows: { id: string; title: string; versionId: string }[];
  };
  const item = rows.find((row) => row.title === title);
  expect(item, `${title} among ${rows.map((row) => row.title).join(', ')}`).toBeDefined();
  const answer = await page.request.post('/api/items/approve', {
    data: { items: [item!.id] },
    headers: { origin: address().url },
  });
  expect(answer.status(), await answer.text()).toBe(200);
  return item!.versionId;
}
const plan = async (versions: string[]) => {
  await page.goto(`/rollouts/new?versions=${versions.join(',')}`);
  await page.getByRole('checkbox', { name: 'Model room' }).check();
  await page.getByRole('button', { name: 'Show every file' }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  await page.locator('[data-path]').first().waitFor();
};

test('a plan with a preset and the look that was made from it warns of the double effect; the companion preset cures it', async () => {
  test.setTimeout(seconds(120));
  const [preset, look, companion] = ['Moth Wing', 'Moth Wing look', 'Moth Wing companion'];
  // far from the levels of other tests: presets of nearly one effect are copies
  const steps = '<rdf:li run:step="lamp" run:stops="-0.87"/>';
  await takeIn(page, 'Moth set', { 'Moth set/Moth.xmp': oxbowPreset(steps, { title: preset }) }, { shelf: 'Moths' });
  await open(preset);
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByLabel('Title of the look').fill(look);
  await page.getByRole('button', { name: /^Make the look/ }).click();
  await expect(page.getByRole('heading', { name: look, level: 1 })).toBeVisible({ timeout: seconds(20) });
  const [ofPreset, ofLook] = [await approved(preset), await approved(look)];
  await plan([ofPreset, ofLook]);
  const warning = page.getByRole('status').filter({ hasText: 'the effect twice' });
  await expect(warning).toContainText(`${preset} goes to the same editor as ${look}`);
  await warning.getByRole('link', { name: look }).click();
  await expect(page.getByRole('heading', { name: look, level: 1 })).toBeVisible();
  await awake(page);
  await page.getByRole('button', { name: 'More to do with the item' }).click();
  await page.getByRole('menuitem', { name: 'Make a preset that calls it' }).click();
  const dialog = page.getByRole('dialog', { name: 'A preset that calls it' });
  await dialog.getByLabel('Editor').selectOption({ label: 'Oxbow 2' });
  await dialog.getByLabel('Title').fill(companion);
  await dialog.getByRole('button', { name: 'Make the preset' }).click();
  await expect(page.getByRole('heading', { name: companion, level: 1 })).toBeVisible();
  await plan([await approved(companion), ofLook]);
  await expect(page.locator('[data-path]')).toHaveCount(2);
  await expect(warning).toHaveCount(0);
});
