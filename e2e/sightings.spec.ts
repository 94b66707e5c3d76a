/** A look that is listed is seen working by the editor's own picture of a frame; an export by hand that is without it is told. */
import { execFileSync } from 'node:child_process';
import { oxbowOf } from '../demo/files';
import { awake, origin, planFor, takeIn } from './app';
import { approve, ownLook } from './looks';
import { seconds } from './patience';
import { data } from './setup';
import { expect, test } from './test';

test('a look is asked for at two editors and seen working; an export without it is found out', async ({ page }) => {
  test.setTimeout(seconds(180));
  const title = 'Scullery Sienna';
  await ownLook(page, title, 'Scullery in red', 0.8);
  const launch = (verb: string) =>
    execFileSync('bin/etagere', ['station', verb, 'Glaze desk', 'marlstone@4'], {
      env: { ...process.env, ETAGERE_DATA: data },
    });
  launch('launch');
  await planFor(page, title, ['Glaze desk']);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const oxbow = page.locator('[data-path^="Oxbow/Looks/"]').filter({ hasText: title });
  const marlstone = page.locator('[data-path*=".marlstone-4/looks/"]').filter({ hasText: title });
  await expect(oxbow).toHaveAttribute('data-state', 'listed', { timeout: seconds(40) });
  await expect(marlstone).toHaveAttribute('data-state', 'restart-due', { timeout: seconds(40) });
  launch('quit');
  launch('launch');
  await expect(marlstone).toHaveAttribute('data-state', 'listed', { timeout: seconds(30) });

  const desk = page.getByRole('region', { name: 'Glaze desk' });
  await desk.getByRole('button', { name: 'See them working' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading')).toContainText('2 files');
  await dialog.getByLabel('Frame').selectOption({ index: 1 });
  await dialog.getByRole('button', { name: 'Ask the editors' }).click();
  await expect(dialog.getByText('2 pictures asked for')).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  for (const file of [oxbow, marlstone]) {
    await expect(file).toHaveAttribute('data-state', 'seen-working', { timeout: seconds(40) });
    await expect(file).toContainText('own picture of');
  }
  await oxbow.getByRole('button', { name: `The pictures of ${title}` }).click();
  const pictures = dialog.locator('img');
  await expect(pictures).toHaveCount(4);
  const widths = () => pictures.evaluateAll((all) => all.map((one) => (one as HTMLImageElement).naturalWidth));
  await expect.poll(widths, { timeout: seconds(20) }).toEqual([900, 900, 900, 900]);
  await dialog.getByRole('button', { name: 'Close' }).click();

  // by hand, and what is given is the picture as it was
  await page.getByRole('link', { name: 'Glaze desk' }).first().click();
  await page.waitForURL(/\/stations\//);
  await awake(page);
  await oxbow.getByRole('button', { name: /^See it working/ }).click();
  await dialog.getByRole('button', { name: 'Export it by hand' }).click();
  const href = await dialog.getByRole('link', { name: 'Save the picture' }).getAttribute('href');
  const given = await page.request.get(href ?? '', { headers: origin() });
  await dialog
    .getByLabel('The exported picture')
    .setInputFiles({ name: 'export.png', mimeType: 'image/png', buffer: await given.body() });
  await expect(dialog.getByText('is as it was without it')).toBeVisible({ timeout: seconds(20) });
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(oxbow.locator('[data-sighting="differs"]')).toContainText('does something else');
});

test('a preset is developed by its editor, and seen working there', async ({ page }) => {
  test.setTimeout(seconds(120));
  const title = 'Tallow Row';
  const preset = oxbowOf({
    title,
    headings: [],
    steps: [
      ['cast', { mired: 60, leaf: -6 }],
      ['spread', { by: -0.2 }],
      ['line', { on: 'blue', through: '0,30 128,120 255,220' }],
      ['petal', { at: 255, span: 120, turn: 14, rich: -40 }],
      ['wash', { over: 'deep', hue: 60, load: 40 }],
    ],
  });
  await takeIn(page, `${title} set`, { [`${title}.xmp`]: preset }, { shelf: `${title} set` });
  await approve(page, title, 'preset');
  await planFor(page, title, ['Glaze desk']);
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  const file = page.locator('[data-path^="Oxbow/Presets/"]').filter({ hasText: title });
  await expect(file).toHaveAttribute('data-state', 'listed', { timeout: seconds(40) });
  await page.getByRole('region', { name: 'Glaze desk' }).getByRole('button', { name: 'See them working' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Frame').selectOption({ index: 1 });
  await dialog.getByRole('button', { name: 'Ask the editors' }).click();
  await expect(dialog.getByText(/picture.* asked for/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(file).toHaveAttribute('data-state', 'seen-working', { timeout: seconds(40) });
  await expect(file).toContainText('own picture of');
});
