/** Keeping a studio: who is signed in where, what comes from outside and waits for the lead, and stations that cannot follow. */
import { readFileSync } from 'node:fs';
import { address, awake, pids, planFor, stationRoot, tree } from './app';
import { expect, nobody, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

test('a session is signed out from another one, and what it looks at ends with it', async ({ browser }) => {
  const elsewhere = await browser.newContext({
    storageState: nobody,
    userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0',
  });
  const other = await elsewhere.newPage();
  const { email, password } = address().signIns.find(({ role }) => role === 'librarian')!;
  await elsewhere.request.post('/api/session', { data: { email, password } });
  await other.goto('/shelves');
  await awake(other);

  await page.goto('/shelves');
  await awake(page);
  await page.getByRole('button', { name: /: menu$/ }).click();
  await page.getByRole('menuitem', { name: 'Your account' }).click();
  await expect(page.getByRole('heading', { name: 'Odile Wren', level: 1 })).toBeVisible();
  await awake(page);
  await page.getByRole('button', { name: /^Sign out Firefox on Linux/ }).click();
  await expect(page.getByRole('button', { name: /^Sign out Firefox on Linux/ })).toBeHidden();
  await expect(page.getByText('here, now')).toBeVisible();
  await other.reload();
  await expect(other).toHaveURL(/\/sign-in/);
  await elsewhere.close();
});

test('a link into the library survives signing in, and a session that ends under a form asks for the password over it', async ({
  browser,
}) => {
  const own = await browser.newContext({ storageState: nobody });
  const mine = await own.newPage();
  const { email, password } = address().signIns.find(({ role }) => role === 'librarian')!;
  await mine.goto('/shelves?kind=preset&view=table');
  await expect(mine).toHaveURL(/\/sign-in\?to=/);
  await mine.getByLabel('E-mail address').fill(email);
  await mine.getByLabel('Password').fill(password);
  await mine.getByRole('button', { name: 'Sign in' }).click();
  await expect(mine).toHaveURL(/\/shelves\?kind=preset&view=table/);

  await mine.goto('/shelves');
  await awake(mine);
  await mine.getByRole('button', { name: 'New shelf' }).click();
  await mine.getByLabel('Name', { exact: true }).fill('Kept through the night');
  await own.clearCookies();
  await mine
    .getByRole('button', { name: /^(Make|Save|New|Add)/ })
    .last()
    .click();
  const again = mine.getByRole('dialog', { name: 'Your session has ended' });
  await again.getByLabel('Password').fill(password);
  await again.getByRole('button', { name: 'Sign in' }).click();
  await expect(mine.getByRole('heading', { name: 'Kept through the night' })).toBeVisible();
  await own.close();
});

test('somebody is invited by a link, comes in by it, and is shut out', async ({ browser, pageOf }) => {
  const lead = await pageOf('lead');
  await lead.goto('/studio');
  await lead.getByRole('link', { name: 'People and what they may do' }).click();
  await awake(lead);
  await lead.getByLabel('Name', { exact: true }).fill('Berrin Loe');
  await lead.getByLabel('E-mail address').fill('berrin@wrenandtallow.example');
  await lead.getByRole('button', { name: 'Invite', exact: true }).click();
  const link = await lead.getByRole('textbox', { name: 'Link for Berrin Loe' }).inputValue();
  const row = lead.locator('[data-person="berrin@wrenandtallow.example"]');
  await expect(row).toContainText('invited, has not come yet');

  const elsewhere = await browser.newContext({ storageState: nobody });
  const berrin = await elsewhere.newPage();
  await berrin.goto(link);
  await expect(berrin.getByRole('heading', { name: 'Berrin Loe' })).toBeVisible();
  await berrin.getByLabel(/^Password/).fill('ten letters and more');
  await berrin.getByRole('button', { name: 'Set the password and sign in' }).click();
  await expect(berrin.getByRole('heading', { name: 'Shelves', level: 1 })).toBeVisible();
  await berrin.goto('/studio');
  await expect(berrin.getByRole('link', { name: 'People and what they may do' })).toBeHidden();
  await berrin.goto(link);
  await expect(berrin.getByText('Ask whoever gave it to you for another one.')).toBeVisible();

  await lead.reload();
  await awake(lead);
  await expect(row).toContainText('signed in');
  await row.getByRole('combobox', { name: 'Role of Berrin Loe' }).selectOption('librarian');
  await expect(lead.getByText('Berrin Loe is librarian now')).toBeAttached();
  await row.getByRole('button', { name: 'What can be done about Berrin Loe' }).click();
  await lead.getByRole('menuitem', { name: 'Deactivate' }).click();
  await expect(row).toContainText('may not sign in');
  await berrin.goto('/shelves');
  await expect(berrin).toHaveURL(/\/sign-in/);
  await elsewhere.close();
});

test('a descriptor from outside waits for the lead, is told with what it would change, and changes nothing when declined', async ({
  pageOf,
}) => {
  const own = JSON.parse(readFileSync('standins/descriptors/oxbow-2.json', 'utf8')) as { places: object };
  const sly = {
    ...own,
    title: 'Oxbow 2, better',
    places: { ...own.places, looks: { linux: '{home}/Music' } },
  };
  await page.goto('/studio');
  await awake(page);
  await page
    .getByLabel('Descriptor to bring in')
    .setInputFiles({ name: 'better.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(sly)) });
  const proposed = page.getByRole('region', { name: 'Proposed descriptors' });
  await expect(proposed).toContainText('It waits for the studio lead.');
  await expect(proposed).toContainText('{home}/Music');

  const lead = await pageOf('lead');
  await lead.goto('/studio');
  await awake(lead);
  await expect(lead.getByRole('button', { name: 'Use this descriptor' })).toBeDisabled();
  await lead.getByRole('checkbox', { name: /^These places are right/ }).check();
  await expect(lead.getByRole('button', { name: 'Use this descriptor' })).toBeEnabled();
  await lead.getByRole('button', { name: 'Decline' }).click();
  await expect(lead.getByRole('region', { name: 'Proposed descriptors' })).toBeHidden();
  await expect(lead.getByRole('table', { name: 'Editors' })).not.toContainText('better');
});

test('what a station cannot carry out is left out, and the next rollout goes on', async () => {
  const root = stationRoot('model-room');
  const before = tree(root);
  const [agent] = pids('dist/agent.mjs', 'run', root);
  process.kill(agent!, 'SIGSTOP');
  try {
    await planFor(page, 'Plate Monochrome', ['Model room']);
    await page.getByRole('button', { name: /Confirm: write 1 file/ }).click();
    await page.getByRole('button', { name: 'Leave out what waits' }).click();
    await page.getByRole('button', { name: 'Leave out 1 file' }).click();
    await expect(page.locator('[data-state="left"]')).toContainText('left out by Odile Wren');
    await expect(page.getByRole('button', { name: 'Leave out what waits' })).toBeHidden();
  } finally {
    process.kill(agent!, 'SIGCONT');
  }
  await planFor(page, 'Amber Proscenium', ['Model room']);
  await page.getByRole('button', { name: /Confirm: write 1 file/ }).click();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(20) });
  await page.getByRole('button', { name: 'Undo the rollout' }).click();
  await page.getByRole('button', { name: 'Take back 1 file on 1 station' }).click();
  await expect(page.getByRole('heading', { name: 'Undo: Amber Proscenium' })).toBeVisible();
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(20) });
  expect(tree(root)).toEqual(before);
});
