/** A rollout to one station first: it is looked at there, and the rest goes by a word. */
import { listed, planFor } from './app';
import { ownLook } from './looks';
import { seconds } from './patience';
import { expect, test } from './test';

test('a look goes to the Model room first, and to the Glaze desk when all is listed there; halted in between', async ({
  page,
}) => {
  test.setTimeout(seconds(150));
  const title = 'Loft Indigo';
  await ownLook(page, title, 'Loft', 2.43);
  await planFor(page, title, ['Glaze desk', 'Model room']);
  await page.getByLabel('To which station it goes first').selectOption('Model room first');
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const pace = page.getByRole('region', { name: 'How it goes on' });
  await expect(pace).toContainText('It is at Model room, and all of it is listed there', { timeout: seconds(30) });
  const desk = page.getByRole('region', { name: 'Glaze desk' });
  await expect(desk.getByText('waits until the rest is let go').first()).toBeVisible();
  const at = (station: string) => listed(station, 'oxbow@2').listed.filter((one) => one.title === title).length;
  expect([at('Model room'), at('Glaze desk')]).toEqual([1, 0]);

  await pace.getByRole('button', { name: 'Halt' }).click();
  await expect(pace).toContainText('Halted');
  await pace.getByRole('button', { name: 'Let the rest go' }).click();
  await expect(desk.getByText('the rollout is halted').first()).toBeVisible();
  expect(at('Glaze desk')).toBe(0);
  await pace.getByRole('button', { name: 'Go on' }).click();
  await expect.poll(() => at('Glaze desk'), { timeout: seconds(30) }).toBe(1);
  await expect(pace).toBeHidden({ timeout: seconds(30) });
  await page.goto('/activity');
  await expect(page.getByText(/let the rollout .* go to the rest of its stations/).first()).toBeVisible();
});

test('the rest goes by itself once all of it is listed at the first station', async ({ page }) => {
  test.setTimeout(seconds(120));
  const title = 'Loft Madder';
  await ownLook(page, title, 'Loft by itself', 0.44);
  await planFor(page, title, ['Glaze desk', 'Model room']);
  await page.getByLabel('To which station it goes first').selectOption('Model room first, then by itself');
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const at = (station: string) => listed(station, 'oxbow@2').listed.filter((one) => one.title === title).length;
  await expect.poll(() => at('Glaze desk'), { timeout: seconds(60) }).toBe(1);
  expect(at('Model room')).toBe(1);
  await page.goto('/activity');
  await expect(page.getByText(/since all of it is listed at Model room/).first()).toBeVisible();
});

test('a rollout is confirmed for a time, waits for it, and begins before it by a word', async ({ page }) => {
  test.setTimeout(seconds(120));
  const title = 'Loft Umber';
  await ownLook(page, title, 'Loft at night', 3.9);
  await planFor(page, title, ['Model room']);
  const tonight = new Date(Date.now() + 8 * 3600e3);
  // as the field has it: in the clock of the browser, to the minute
  const local = new Date(tonight.getTime() - tonight.getTimezoneOffset() * 60e3).toISOString().slice(0, 16);
  await page.getByLabel('When it begins, if not at once').fill(local);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const pace = page.getByRole('region', { name: 'How it goes on' });
  await expect(pace).toContainText('nothing is written before');
  const room = page.getByRole('region', { name: 'Model room' });
  await expect(room.getByText('the time at which it begins is still to come').first()).toBeVisible();
  const at = () => listed('Model room', 'oxbow@2').listed.filter((one) => one.title === title).length;
  expect(at()).toBe(0);
  await pace.getByRole('button', { name: 'Begin now' }).click();
  await expect.poll(at, { timeout: seconds(40) }).toBe(1);
});
