/** An editor that keeps all it has in one file: what goes there waits while it runs, and is listed after its next start. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { oxbowPreset } from '../core/preset/testing';
import { awake, listed, planFor, stationRoot, takeIn } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const BUNDLE = 'AppData/Roaming/Tessel/tessel.json';
interface Bundle {
  desk: { opened: number };
  presets: Record<string, unknown>;
  panes: Record<string, unknown>;
}
const bundle = (): Bundle => JSON.parse(readFileSync(join(stationRoot('print-room'), BUNDLE), 'utf8')) as Bundle;
const titles = (): string[] => listed('Print room', 'tessel@7').listed.map(({ title }) => title);
const tessel = () => page.locator('[data-editor="tessel@7"]');

async function atPrintRoom(): Promise<void> {
  await page.goto('/stations');
  await page.getByRole('link', { name: 'Print room' }).click();
  await awake(page);
  await expect(tessel().getByRole('button').first()).toBeVisible();
}
async function start(): Promise<void> {
  await atPrintRoom();
  const button = tessel().getByRole('button', { name: 'Start' });
  if (await button.isVisible()) await button.click();
  await expect(tessel().getByRole('button', { name: 'Quit' })).toBeVisible({ timeout: seconds(20) });
}
async function quit(): Promise<void> {
  await atPrintRoom();
  await tessel().getByRole('button', { name: 'Quit' }).click();
  // the agent tells it
  await expect(tessel().getByRole('button', { name: 'Start' })).toBeVisible({ timeout: seconds(20) });
}

test('a preset and a look go into a bundle as entries: not while its editor runs, and by themselves once it is quit', async () => {
  test.setTimeout(seconds(180));
  const title = 'Lacquer Proof';
  // a form of a design bears what sets it apart
  const key = `${title} Tessel 7`;
  await test.step('Tessel runs, lists what it has, and says what it cannot use', async () => {
    await start();
    expect(titles()).toEqual(expect.arrayContaining(['Counter Proof', 'Late Gallery', 'Plain']));
    await expect(tessel()).toContainText('it calls the pane Sleeve 2019, which is not in the bundle');
  });

  await test.step('a preset of another editor is written for it', async () => {
    const stops = -1.7;
    const steps = `<rdf:li run:step="lamp" run:stops="${stops}"/><rdf:li run:step="dye" run:rich="61"/>`;
    await takeIn(page, 'Proofs', { 'Proofs/Lacquer.xmp': oxbowPreset(steps, { title }) }, { shelf: 'Proofs' });
    await page.goto(`/shelves?q=${encodeURIComponent(title)}`);
    await page.locator('[data-spine]').first().click();
    await page.getByRole('link', { name: 'Convert', exact: true }).click();
    await page.getByRole('link', { name: 'A preset of Tessel 7' }).click();
    await page.getByRole('button', { name: 'Write it for Tessel 7' }).click();
    await page.waitForURL(/\/items\/.*form=/);
    await awake(page);
    await page.getByRole('button', { name: 'Approve', exact: true }).click();
    await page.getByRole('link', { name: 'Roll out' }).click();
  });

  await test.step('the plan shows the entry; confirmed, it waits, since Tessel would write over it', async () => {
    await page.getByRole('checkbox', { name: 'Print room' }).check();
    await page.getByRole('button', { name: 'Show every file' }).click();
    await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
    const entry = page.locator(`[data-path="${BUNDLE}#presets/${key}"]`);
    await expect(entry).toBeVisible();
    await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
    await expect(entry).toHaveAttribute('data-state', 'quit-due');
    await expect(entry).toContainText('once it is quit, this goes on by itself');
    expect(Object.keys(bundle().presets)).not.toContain(key);
  });

  const waiting = page.url();
  await test.step('what goes elsewhere is not held up', async () => {
    await planFor(page, 'Gypsum', ['Model room']);
    await page.getByRole('button', { name: /^Confirm: write/ }).click();
    await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  });

  await test.step('once it is quit the entry is written, beside all that Tessel had', async () => {
    const { opened } = bundle().desk;
    await quit();
    await page.goto(waiting);
    await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
    const { desk, presets } = bundle();
    expect(Object.keys(presets)).toEqual(expect.arrayContaining(['Counter Proof', 'Late Gallery', 'Old Sleeve', key]));
    expect(desk.opened).toBe(opened + 1);
  });

  await test.step('a look becomes a pane, of which Tessel says that it is one', async () => {
    await planFor(page, 'Gallery Neutral', ['Print room']);
    await expect(page.locator(`[data-path="${BUNDLE}#panes/Gallery Neutral"]`)).toContainText('25 points');
    await page.getByRole('button', { name: 'Confirm: write 1 file on 1 station' }).click();
    await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
  });
  const panes = page.url();

  await test.step('both are listed after its start, and stay when it writes its bundle anew', async () => {
    await start();
    await expect.poll(titles, { timeout: seconds(15) }).toEqual(expect.arrayContaining([title, 'Gallery Neutral']));
    await page.goto(waiting);
    await expect(page.locator(`[data-path="${BUNDLE}#presets/${key}"][data-state="listed"]`)).toBeVisible({
      timeout: seconds(15),
    });
    await quit();
    expect(Object.keys(bundle().panes)).toContain('Gallery Neutral');
    await expect(page.locator(`[data-path="${BUNDLE}#presets/${key}"][data-state="listed"]`)).toBeVisible();
  });

  await test.step('the look is taken out again', async () => {
    await page.goto(panes);
    await page.getByRole('button', { name: 'Undo the rollout' }).click();
    await page.getByRole('button', { name: /^Take back/ }).click();
    await expect(page.getByRole('heading', { name: 'Undo: Gallery Neutral' })).toBeVisible();
    await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
    expect(Object.keys(bundle().panes)).not.toContain('Gallery Neutral');
  });
});

test('what lies in a bundle is taken in, entry by entry', async () => {
  await atPrintRoom();
  await page.getByRole('button', { name: /^Take in \d+ files?/ }).click();
  await page.waitForURL(/\/intake\/[0-9a-f-]{36}/);
  await expect(page.getByRole('heading', { name: 'Found on Print room' })).toBeVisible();
  await expect(page.locator('[data-entry$="#presets/Late Gallery"]')).toContainText('Tessel 7', {
    timeout: seconds(40),
  });
});
