/** A camera match on the demo's stage model, which two cameras have seen from one place, each in a light of its own. */
import { awake } from './app';
import { expect, test } from './test';
import { seconds } from './patience';

/** The mean in “ΔE00 mean 4.21, max 9.80”. */
const meanIn = (text: string): number => Number(/mean ([\d.]+)/.exec(text)?.[1]);

test('two frames of one scene are compared; the look brings them nearer, for the one camera alone', async ({
  page,
}) => {
  await page.goto('/convert/match');
  await awake(page);
  await page.getByLabel('The frame that is changed').selectOption({ label: 'OND 2207, stage model' });
  await expect(page).toHaveURL(/from=/);
  await page.getByLabel('It is to look like').selectOption({ label: 'LEY 0031, stage model' });
  const fact = (name: string) => page.locator('dl.facts > div', { hasText: name });
  await expect(fact('After')).toContainText('ΔE00', { timeout: seconds(20) });
  const [before, after] = [await fact('Before').innerText(), await fact('After').innerText()].map(meanIn);
  expect(after).toBeLessThan(before!);
  const title = 'Ondine as Ley';
  await page.getByLabel('Title of the look').fill(title);
  await expect(page.getByLabel(/^Only for pictures of the/)).toBeChecked();
  await page.getByRole('button', { name: 'Make the look' }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  await expect(page.getByText(/OND 2207, stage model made like/)).toBeVisible();
});
