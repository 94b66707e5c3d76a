/** Opening rules: compared over the stations, set for the studio, rolled out, and what the editor then begins a photo with. */
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { awake, stationRoot } from './app';
import { smallDng } from '../demo/testing/small-dng';
import { seconds } from './patience';
import { expect, test } from './test';

/** What Oxbow at the Model room begins a photo with, as it tells itself. */
function begunWith(photo: string): Record<string, unknown> {
  try {
    const told = JSON.parse(readFileSync(join(stationRoot('model-room'), '.config/oxbow/contents.json'), 'utf8')) as {
      cards: { path: string; opens?: Record<string, unknown> }[];
    };
    return told.cards.find(({ path }) => path === photo)?.opens ?? {};
  } catch {
    return {};
  }
}

test('a rule is added for a camera, comes to a station, and its editor begins photos by it; their own rules stay', async ({
  page,
}) => {
  test.setTimeout(seconds(150));
  const iso = '6400-';
  const words = `Ondine 40, ISO from ${iso.slice(0, -1)}`;
  const pictures = join(stationRoot('model-room'), 'Pictures');
  mkdirSync(pictures, { recursive: true });
  writeFileSync(join(pictures, 'OND_fast.dng'), smallDng('Ondine', 'Ondine 40', { iso: 12800 }));
  writeFileSync(join(pictures, 'OND_slow.dng'), smallDng('Ondine', 'Ondine 40', { iso: 100 }));
  await expect
    .poll(() => begunWith('Pictures/OND_fast.dng'), { timeout: seconds(20) })
    .toMatchObject({ grain: 'lift specks' });

  await page.goto('/stations');
  await page.getByRole('link', { name: 'Opening rules' }).click();
  const room = page.locator('[data-list="Model room Oxbow 2"]');
  await expect(room).toContainText('has no words for Exposure offset in the file: applied, shown as zero');
  await expect(room.getByRole('row', { name: /rendered SDR/ })).toContainText('their own');
  await awake(page);
  await page.getByRole('button', { name: 'Add a rule' }).click();
  const dialog = page.getByRole('dialog', { name: 'Add a rule' });
  await dialog.getByLabel('Camera', { exact: true }).fill('Ondine 40');
  await dialog.getByLabel('ISO').fill('6400');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('ISO is a range such as 100-800, or 1600- for all above.')).toBeVisible();
  await expect(dialog.getByText('A rule says at least one thing that a photo is begun with.')).toBeVisible();
  await dialog.getByLabel('ISO').fill(iso);
  await dialog.getByLabel('Noise reduction').selectOption('color and luminance');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  // for every photo comes last, so the new one has to stand before it
  await page.getByRole('button', { name: `Move up: ${words}` }).click();
  const studio = page.getByRole('region', { name: 'Rules of the studio' });
  // the new one is told to be hidden by the one for any photo for as long as it stands behind it
  await expect(studio.getByText('never taken')).toHaveCount(0);
  await expect(studio.getByRole('listitem').last()).not.toContainText(words);

  const comes = room.getByRole('row', { name: new RegExp(words) });
  await expect(comes).toContainText('comes');
  await expect(comes).toContainText('color and luminance');
  await page.getByRole('button', { name: 'Bring in step: Model room, Oxbow 2' }).click();
  await expect(page.getByRole('heading', { name: 'Opening rules at Model room' })).toBeVisible();
  await expect(page.locator('[data-path=".config/oxbow/opening.rules"]')).toContainText('keeps 1 rule of their own');
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await expect.poll(() => begunWith('Pictures/OND_fast.dng'), { timeout: seconds(30) }).toEqual({ grain: 'lift all' });
  expect(begunWith('Pictures/OND_slow.dng')).toEqual({ correct: 'by name', grain: 'lift specks' });
  const rules = join(stationRoot('model-room'), '.config/oxbow/opening.rules');
  expect(readFileSync(rules, 'utf8')).toContain('# prints are corrected already\nfile = print => correct = never\n');

  // somebody there has it otherwise: it stays so, and is told, until the studio's goes over it
  writeFileSync(rules, readFileSync(rules, 'utf8').replace(/(speed = .*grain = )lift all/, '$1keep'));
  await page.goto('/stations/opening');
  await expect(comes).toContainText('the studio’s: color and luminance', { timeout: seconds(20) });
  await awake(page);
  await page.getByRole('button', { name: 'Put the studio’s over theirs: Model room, Oxbow 2' }).click();
  await page.getByRole('button', { name: /^Confirm: write/ }).click();
  await expect.poll(() => begunWith('Pictures/OND_fast.dng'), { timeout: seconds(30) }).toEqual({ grain: 'lift all' });
  rmSync(join(pictures, 'OND_fast.dng'));
  rmSync(join(pictures, 'OND_slow.dng'));
});

test('what the rules do to a frame is seen side by side, with how far each is from the studio’s', async ({ page }) => {
  await page.goto('/stations/opening');
  await awake(page);
  await page.getByLabel('Frame on which the rules are shown').selectOption({ label: 'LEY 0044, window' });
  await page.waitForURL(/frame=/);
  const section = page.getByRole('region', { name: 'On a frame' });
  // the file asks to be lighter; the studio follows it, the Kiln room does not
  const studio = section.getByRole('figure', { name: /^As begun by the studio/ });
  await expect(studio.getByRole('img').first()).toHaveJSProperty('complete', true, { timeout: seconds(30) });
  await expect(studio).toContainText(
    /lens: Corvane 35 mm f\/1\.8, by Saltmarsh Lens Bureau [\d-]+; places move by up to \d+/,
  );
  const kiln = section.getByRole('figure').filter({ hasText: 'Kiln room, Oxbow 2' });
  await expect(kiln).toContainText('exposure offset in the file: ignored');
  await expect(kiln.getByText(/ΔE00 \d+\.\d\d from the studio’s on average/)).toBeVisible();
  // of each way the whole frame, and a piece of it at full size
  const widths = () =>
    section.getByRole('img').evaluateAll((all) => all.map((img) => (img as HTMLImageElement).naturalWidth));
  await expect
    .poll(async () => (await widths()).map((width, at) => (at % 2 ? width === 340 : width > 500)), {
      timeout: seconds(30),
    })
    .not.toContain(false);
  expect((await widths()).length).toBeGreaterThanOrEqual(4);
  // what the Model room lacks is brought there by a click
  await section
    .getByRole('figure')
    .filter({ hasText: 'Model room, Oxbow 2' })
    .getByRole('link', { name: /^Roll out/ })
    .click();
  await page.waitForURL(/\/rollouts\/new/);
  await expect(page.getByRole('checkbox', { name: 'Model room' })).toBeChecked();
});
