/** A workstation without a way to the server, and paths that are shown at one that has it. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { awake, origin, planFor, stationRoot } from './app';
import { seconds } from './patience';
import { expect, test } from './test';

test('what waits at a workstation off the network is carried there, and its answer tells what became of it', async ({
  page,
}) => {
  test.setTimeout(seconds(120));
  const name = 'Pier hut';
  const folder = mkdtempSync(join(tmpdir(), 'etagere-pier-'));
  const root = join(folder, 'root');
  mkdirSync(root);
  const made = await page.request.post('/api/stations', {
    data: { name, system: 'linux', person: 'Jory Tamm', editors: ['oxbow@2'] },
    headers: origin(),
  });
  const { id } = (await made.json()) as { id: string };
  try {
    await planFor(page, 'Scrim', [name]);
    await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
    await page.goto(`/stations/${id}`);
    await awake(page);
    await page.getByRole('button', { name: 'Carry by hand' }).click();
    const dialog = page.getByRole('dialog', { name: `Carry by hand to ${name}` });
    await expect(dialog).toContainText('the file enrols it');
    const download = page.waitForEvent('download');
    await dialog.getByRole('button', { name: 'Make the file' }).click();
    const file = join(folder, (await download).suggestedFilename());
    await (await download).saveAs(file);
    await expect(dialog.getByRole('list', { name: 'Files made lately' })).toContainText('1 operation');

    // there, in another building: the program comes out of the file
    const lines = await dialog.getByLabel('Carry it out', { exact: true }).textContent();
    expect(lines).toContain(`carry ${file.slice(folder.length + 1)}`);
    execFileSync('unzip', ['-o', file, 'etagere-agent.mjs'], { cwd: folder });
    execFileSync(process.execPath, ['etagere-agent.mjs', 'carry', file, '--root', root, '--system', 'linux'], {
      cwd: folder,
    });
    const row = page.locator('[data-path^="Oxbow/Looks/"]');

    const answer = file.replace(/\.zip$/, '.answer.zip');
    await dialog.getByLabel('The answer that was carried back').setInputFiles(answer);
    await expect(dialog.getByText('Taken: what became of 1 operation is known.')).toBeVisible({
      timeout: seconds(20),
    });
    // the same once more is no news
    await dialog.getByLabel('The answer that was carried back').setInputFiles(answer);
    await expect(dialog.getByRole('alert')).toContainText('This answer was given already');
    await dialog.getByRole('button', { name: 'Close' }).click();
    await expect(row).toHaveAttribute('data-state', 'launch-due', { timeout: seconds(20) });
    expect(existsSync(join(root, (await row.getAttribute('data-path')) ?? '?'))).toBe(true);
  } finally {
    const gone = { data: { name, person: '', retired: true }, headers: origin() };
    await page.request.patch(`/api/stations/${id}`, gone);
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a path is shown in the file manager of its workstation', async ({ page }) => {
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Glaze desk' }).click();
  await awake(page);
  const row = page.locator('[data-path^="Oxbow/Looks/"]').first();
  const path = (await row.getAttribute('data-path')) ?? '';
  await row.getByRole('button', { name: `Show ${path} in the file manager there` }).click();
  await expect(row.getByText('shown there')).toBeVisible({ timeout: seconds(30) });
  expect(readFileSync(join(dirname(stationRoot('glaze-desk')), 'shown.log'), 'utf8')).toContain(`${path}\n`);
});
