/** The library as a whole: an arrival decided file by file and taken back, a pack as a unit, many items at once, the agent's lines, a server that is gone. */
import type { Settings } from '../core/preset/kinds';
import { cubeOf } from '../demo/files';
import { awake, deliver, takeIn } from './app';
import { faultsOf } from './axe';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const cube = (title: string, settings: Settings) => cubeOf({ title, headings: [], settings }, 9);
const region = (name: string) => page.getByRole('region', { name, exact: true });
const row = (path: string) => page.locator(`[data-entry="${path}"]`);
const toast = (words: RegExp | string) => page.getByRole('listitem').filter({ hasText: words });
const sound = async () => expect(await faultsOf(page)).toEqual([]);

/** A folder that was brought in, and is open to be settled. */
async function bring(name: string, files: Record<string, string>): Promise<void> {
  const within = Object.fromEntries(Object.entries(files).map(([path, text]) => [`${name}/${path}`, text]));
  await page.goto(`/intake/${await deliver(page, name, within)}`);
  await expect(page.getByRole('button', { name: /^Accept/ })).toBeVisible({ timeout: seconds(30) });
  await awake(page);
}

test('an arrival is decided file by file: titles, what is left out and taken back, papers beside their fields; and it is undone from a toast', async () => {
  await bring('Weir set', {
    'Looks/Wier Mist.cube': cube('Wier Mist', { warmth: -31, contrast: 0.9 }),
    'Looks/Sluice.cube': cube('Sluice', { warmth: 44, chroma: 1.2 }),
    'Licence.txt': 'Two seats. Not to be spread further.',
  });
  // each look is seen on a frame
  const picture = row('Weir set/Looks/Sluice.cube').getByRole('button', { name: 'See Sluice larger' });
  await expect
    .poll(() => picture.locator('img').evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(100);
  await picture.click();
  await expect(page.getByRole('dialog', { name: 'Sluice' }).locator('img')).toHaveCount(2);
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Correct the title Wier Mist' }).click();
  await page.getByLabel('Title of Wier Mist').fill('Weir Mist');
  await page.keyboard.press('Enter');
  await expect(region('New')).toContainText('Weir Mist');

  await page.getByLabel('Sluice becomes').selectOption({ label: 'nothing: leave it out' });
  await expect(page.getByRole('button', { name: 'Accept 1 as proposed' })).toBeVisible();
  await page.getByLabel('Sluice becomes').selectOption({ label: 'what was proposed' });
  await expect(page.getByRole('button', { name: 'Accept 2 as proposed' })).toBeVisible();

  await page.getByLabel('Find files in this arrival').fill('mist');
  await expect(page.locator('[data-entry]')).toHaveCount(1);
  await page.getByLabel('Find files in this arrival').fill('');
  await expect(page.locator('[data-entry]')).toHaveCount(3);

  await page.getByRole('button', { name: 'Source and papers' }).click();
  await expect(page.getByLabel('Text of Weir set/Licence.txt')).toHaveText('Two seats. Not to be spread further.');
  await expect(page.getByLabel('Its name')).toHaveValue('Weir set');
  await page.getByLabel('Price').fill('20 EUR');
  await page.getByLabel('Supplier').fill('Weir House');
  await sound();
  await page.getByRole('button', { name: 'Accept 2 as proposed' }).click();
  await page.waitForURL(/\/shelves/);
  // a board far down the page is painted once somebody comes near
  await region('Weir set').scrollIntoViewIfNeeded();
  await expect(region('Weir set').locator('[data-spine]')).toHaveCount(2);

  await toast('2 items taken in from Weir set').getByRole('button', { name: 'Undo' }).click();
  await expect(toast('Undone.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Weir set', exact: true })).toHaveCount(0);
});

test('an arrival is discarded and brought back as it was', async () => {
  await bring('Ford set', { 'Ford.cube': cube('Ford', { warmth: 52 }), 'Leat.cube': cube('Leat', { warmth: -53 }) });
  await page.getByRole('button', { name: 'Correct the title Ford' }).click();
  await page.getByLabel('Title of Ford').fill('Fordable');
  await page.keyboard.press('Enter');
  await expect(region('New')).toContainText('Fordable');
  await page.getByRole('button', { name: 'Discard the arrival' }).click();
  await page.waitForURL(/\/intake$/);
  await page.getByText(/^Discarded in the last 30 days/).click();
  await page.getByRole('button', { name: 'Bring back Ford set' }).click();
  await page.getByRole('link', { name: 'Ford set', exact: true }).click();
  await expect(region('New')).toContainText('Fordable');
});

test('a pack is a unit: its members, its papers, a change said of all, drafts approved as far as they can be', async () => {
  const looks = { Heron: { warmth: 61 }, Bittern: { warmth: -62 }, Egret: { chroma: 0.5 } };
  const files = Object.fromEntries(
    Object.entries(looks).map(([title, settings]) => [`${title}.cube`, cube(title, settings)]),
  );
  await takeIn(
    page,
    'Waders',
    { ...files, 'Read me.md': '# Three waders' },
    { shelf: 'Waders', supplier: 'Marsh & Co' },
  );
  await page.goto('/packs');
  await page.getByRole('link', { name: 'Waders', exact: true }).click();
  await expect(page.locator('[data-member]')).toHaveCount(3);
  await expect(page.getByLabel('Text of Read me.md')).toHaveText('# Three waders');
  await sound();

  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Change the pack' });
  await dialog.getByLabel('Release').fill('2026');
  await dialog.getByLabel('Price').fill('12 EUR');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(toast('The pack and 3 items of it are changed.')).toBeVisible();
  await expect(page.getByText('release 2026')).toBeVisible();

  await page.getByRole('button', { name: 'Approve 3 drafts' }).click();
  await expect(toast(/0 versions approved\. 3 were not approved: .* \(its encoding is only assumed\)/)).toBeVisible();

  // all of it on the shelves: chosen, its encodings said, approved
  await page.getByRole('link', { name: 'On the shelves' }).click();
  await expect(page.locator('[data-spine]')).toHaveCount(3);
  await awake(page);
  await page.locator('[data-spine]').first().focus();
  await page.keyboard.press('Control+a');
  const bar = region('What is chosen');
  await expect(bar).toContainText('3 chosen');
  await bar.getByRole('button', { name: 'Confirm 3 encodings' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Confirm', exact: true }).click();
  await expect(toast('The encoding of 3 looks is confirmed.')).toBeVisible();
  await page.locator('[data-spine]').first().focus();
  await page.keyboard.press(' ');
  await page.locator('[data-spine]').last().focus();
  await page.keyboard.press('Shift+ ');
  await bar.getByRole('button', { name: 'Approve' }).click();
  await expect(toast('3 versions approved.')).toBeVisible();
  await expect(page.locator('[data-spine][aria-label*="approved"]')).toHaveCount(3);
  await toast('3 versions approved.').getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-spine][aria-label*="draft"]')).toHaveCount(3);
});

test('the agent comes onto a workstation by one line, which is told when it has', async ({ request }) => {
  await page.goto('/stations');
  await awake(page);
  await page.getByRole('button', { name: 'Add a station' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Weir desk');
  await dialog.getByLabel('System').selectOption('linux');
  await dialog.getByRole('button', { name: 'Add and make a code' }).click();
  const line = (await page.getByLabel('Fetch the agent and enrol it', { exact: true }).textContent()) ?? '';
  const code = /--code (\S+)/.exec(line)?.[1] ?? '';
  const program = await request.get('/api/agent/program');
  expect(await program.text()).toContain('etagere-agent');
  await expect(page.getByText('waiting for the agent to enrol')).toBeVisible();
  const enrolled = await request.post('/api/agent/enrol', {
    data: { code, system: 'linux', host: 'weir', agentVersion: '0.1.0' },
  });
  expect(enrolled.status()).toBe(200);
  await expect(page.getByText('enrolled: it reports as soon as it runs')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();

  await page.getByRole('link', { name: 'Weir desk' }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('button', { name: 'Retire it' }).click();
  await expect(page.getByText(/nothing is planned for it/)).toBeVisible();
  await page.goto('/stations');
  await expect(page.getByRole('row', { name: /Weir desk/ })).toHaveCount(0);
});

test.describe('where the server is gone', () => {
  test.use({ expectedFault: /ERR_INTERNET_DISCONNECTED|[Ff]ailed to (fetch|load)|net::/ });
  test('a banner says so, the page and what is typed stay, and it goes on by itself', async ({ context }) => {
    await page.goto('/shelves');
    await awake(page);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await context.setOffline(true);
    await expect(page.getByText('The server does not answer.')).toBeVisible({ timeout: seconds(15) });
    await page.getByRole('link', { name: 'Copies' }).click();
    await expect(page).toHaveURL(/\/shelves/);
    await expect(page.getByRole('heading', { name: 'Shelves', level: 1 })).toBeVisible();
    // a page that is asked for all the same is one of ours
    const other = await context.newPage();
    await other.goto('/copies').catch(() => {});
    await expect(other.getByRole('heading', { name: 'Etagere cannot be reached' })).toBeVisible();
    await other.close();
    await context.setOffline(false);
    await expect(page.getByText('The server does not answer.')).toBeHidden({ timeout: seconds(15) });
  });
});
