/** A guest's laptop without an agent: its sheet is followed by hand, and what was done is noted; another version goes over it. */
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { awake, origin, planFor, takeIn } from './app';
import { approve, redRaised } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a rollout is carried out by its sheet where no agent is, and its station is in step by that word', async ({
  page,
}) => {
  test.setTimeout(seconds(120));
  const [guest, title] = ['Guest of the week', 'Loan Umber'];
  const made = await page.request.post('/api/stations', {
    data: { name: guest, system: 'windows', person: '', editors: ['marlstone@4'] },
    headers: origin(),
  });
  const { id } = (await made.json()) as { id: string };
  const files = { [`${title}.cube`]: redRaised(title, 1.62) };
  await takeIn(page, 'Loan', files, { shelf: 'Loan' });
  await approve(page, title);
  await planFor(page, title, [guest]);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  await page.getByRole('link', { name: 'sheet for doing it by hand' }).click();

  const sheet = page.getByRole('region', { name: 'Marlstone 4' });
  await expect(sheet.getByRole('listitem').first()).toHaveText('Quit Marlstone 4, if it runs.');
  await expect(sheet).toContainText('Press Windows-R, paste the path');
  await expect(sheet.getByText('%APPDATA%\\.marlstone-4\\looks', { exact: true })).toBeVisible();
  await expect(sheet).toContainText('Start Marlstone 4.');
  await sheet.getByLabel(`Marlstone 4 lists ${title}.`).check();
  await awake(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Files as a zip' }).click(),
  ]);
  expect(Object.keys(unzipSync(readFileSync(await download.path())))).toEqual([
    `AppData/Roaming/.marlstone-4/looks/${title}.mlook`,
  ]);
  // on paper there is nothing to press
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(sheet.getByText('Quit Marlstone 4, if it runs.')).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  await page.getByRole('button', { name: 'Note 1 file as done by hand' }).click();
  await expect(page.getByRole('button', { name: /^Note/ })).toBeHidden();
  await page.goto(`/stations/${id}`);
  const row = page.locator(`[data-path="AppData/Roaming/.marlstone-4/looks/${title}.mlook"]`);
  await expect(row).toContainText('put there by hand');
  await page.goto('/activity');
  await expect(page.getByText(`was carried out by hand at ${guest}, 1 file`).first()).toBeVisible();
});
