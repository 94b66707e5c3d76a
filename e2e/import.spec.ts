/** A preset for an editor that takes presets only through its own import: it waits in the tray, is taken in, and is listed. */
import { execFileSync } from 'node:child_process';
import { awake, listed, origin, planFor, takeIn } from './app';
import { itemNamed } from './looks';
import { seconds } from './patience';
import { data } from './setup';
import { expect, test } from './test';

test('a preset waits in the hand-off folder until somebody has the editor take it in, and is listed then', async ({
  page,
}) => {
  test.setTimeout(seconds(120));
  const title = 'Cellar Soot';
  const text = [
    '; Marlstone preset',
    '[marlstone]',
    'edition=3',
    `name=${title}`,
    'drawer=House',
    '',
    '[light]',
    'level=23',
    '',
  ].join('\n');
  await takeIn(page, 'Cellar', { 'soot.mpreset': text }, { shelf: 'Cellar' });
  const { versionId } = await itemNamed(page, title);
  const approved = await page.request.post(`/api/versions/${versionId}/approve`, { data: {}, headers: origin() });
  expect(approved.status(), await approved.text()).toBe(200);
  execFileSync('bin/etagere', ['station', 'launch', 'Glaze desk', 'marlstone@3'], {
    env: { ...process.env, ETAGERE_DATA: data },
  });

  await planFor(page, title, ['Glaze desk']);
  await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
  const file = page.locator(`[data-path="Marlstone Tray/${title}.mpreset"]`);
  await expect(file).toHaveAttribute('data-state', 'import-due', { timeout: seconds(30) });
  await expect(file).toContainText('have it take in what lies in its tray, and confirm it');
  const titles = () => listed('Glaze desk', 'marlstone@3').listed.map((one) => one.title);
  expect(titles()).not.toContain(title);

  await page.getByRole('link', { name: 'Glaze desk' }).click();
  await awake(page);
  const editor = page.locator('[data-editor="marlstone@3"]');
  await editor.getByRole('button', { name: 'Take in what waits' }).click();
  await expect.poll(titles, { timeout: seconds(20) }).toContain(title);
  await expect(file).toHaveAttribute('data-state', 'listed', { timeout: seconds(20) });
  await expect(file).toContainText('has taken it in, and lists it');
  await expect(editor.getByRole('button', { name: 'Take in what waits' })).toBeHidden();
});
