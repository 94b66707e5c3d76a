/** A camera profile reaches the body that it is for, at the stations where that is used, and is listed there; no other gets it. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { awake, listed, planFor, stationRoot } from './app';
import { seconds } from './patience';
import { expect, test } from './test';

const PROFILE = 'Perrin Alder IR Neutral';
const PATH = `Oxbow/Profiles/Perrin Alder, infrared/${PROFILE}.dcp`;

test('the infrared profile goes where the infrared body is used, is listed there, and is left out elsewhere', async ({
  page,
}) => {
  test.setTimeout(seconds(90));
  await planFor(page, PROFILE, ['Glaze desk', 'Model room']);

  const room = page.getByRole('region', { name: 'Model room' });
  await expect(room.getByText('camera not used there')).toBeVisible();
  await expect(room.getByText('Perrin Alder, infrared is not used at Model room: it is left out')).toBeVisible();
  const desk = page.getByRole('region', { name: 'Glaze desk' });
  await expect(desk.getByText(PATH)).toBeVisible();
  await expect(desk.getByText('Marlstone 4 reads camera profiles as ICC; this one is DCP')).toBeVisible();

  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  await expect(desk.locator(`tr[data-path="${PATH}"]`)).toHaveAttribute('data-state', 'listed', {
    timeout: seconds(30),
  });
  expect(listed('Glaze desk', 'oxbow@2').listed.map(({ path }) => path)).toContain(PATH);
  expect(existsSync(join(stationRoot('model-room'), PATH))).toBe(false);
});

test('a plan that leaves a profile out takes it in once somebody says that its camera is used there', async ({
  page,
}) => {
  test.setTimeout(seconds(90));
  await planFor(page, 'Ondine 40 Neutral', ['Glaze desk', 'Model room']);
  await page.getByRole('button', { name: 'These cameras are used at Model room: plan it again' }).click();
  const room = page.getByRole('region', { name: 'Model room' });
  await expect(room.getByText('Oxbow/Profiles/Ondine 40/Ondine 40 Neutral.dcp')).toBeVisible({ timeout: seconds(30) });
  await expect(page.getByRole('region', { name: 'Glaze desk' }).getByText('camera not used there')).toBeVisible();
  await page.getByRole('link', { name: 'Model room' }).click();
  await expect(page.getByText('Cameras used there: Corvane Ley; Ondine 40; Perrin Alder.')).toBeVisible();
  await awake(page);

  // and it goes again, by the station's own form
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('group', { name: 'Cameras used there' }).getByLabel('Ondine 40').uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Cameras used there: Corvane Ley; Perrin Alder.')).toBeVisible();
});

test('a lens database reaches the editors that read them, and is listed as its release', async ({ page }) => {
  test.setTimeout(seconds(90));
  const [station, folder] = ['Model room', 'model-room'];
  await planFor(page, 'Saltmarsh Lens Bureau', [station]);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  const path = 'Oxbow/Lenses/Saltmarsh Lens Bureau.xml';
  await expect(page.locator(`tr[data-path="${path}"]`)).toHaveAttribute('data-state', 'listed', {
    timeout: seconds(30),
  });
  expect(readFileSync(join(stationRoot(folder), path), 'utf8')).toContain('<lens-database');
});
