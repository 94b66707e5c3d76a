/** Every screen, in light and in dark, has no fault that axe finds; none scrolls sideways at 200 % zoom, but for tables. */
import AxeBuilder from '@axe-core/playwright';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { aChart, aConversion, awake, planFor } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

/** Every page there is, found on the disk; those with an id are reached from the list that they are in. */
const pages = (at: string): string[] =>
  readdirSync(at, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) return pages(join(at, entry.name));
    return entry.name === 'page.tsx' ? [at.slice('app/(app)'.length)] : [];
  });
const screens = pages('app/(app)').sort();
/** From which list, by which link, a page with an id is reached. */
const lists: Record<string, { list: string; link: string }> = {
  '/intake/[id]': { list: '/intake', link: 'main table a[href^="/intake/"]' },
  '/items/[id]': { list: '/shelves', link: '[data-spine]' },
  '/items/[id]/convert': { list: '/shelves?kind=preset', link: '[data-spine]' },
  '/convert/[id]': { list: '/convert', link: 'main table a[href^="/convert/"]' },
  '/convert/charts/[id]': { list: '/convert/charts', link: 'main table a[href^="/convert/charts/"]' },
  '/packs/[id]': { list: '/packs', link: 'main table a[href^="/packs/"]' },
  '/stations/[id]': { list: '/stations', link: 'main table a[href^="/stations/"]' },
  '/rollouts/[id]': { list: '/rollouts', link: 'main a[href^="/rollouts/"]:not([href$="/new"])' },
};

/** Opens a screen; false where there is none of its kind yet. */
async function open(page: Page, screen: string, alive = true): Promise<boolean> {
  const ready = () => (alive ? awake(page) : page.locator('main h1').first().waitFor());
  const way = lists[screen];
  if (!way) {
    await page.goto(screen);
    await ready();
    return true;
  }
  await page.goto(way.list);
  await page.locator('main h1').first().waitFor();
  const href = await page
    .locator(way.link)
    .first()
    .getAttribute('href', { timeout: 5000 })
    .catch(() => null);
  if (!href) return false;
  await page.goto(screen.endsWith('/convert') ? `${href.split('?')[0]}/convert` : href);
  await ready();
  return true;
}

test('every screen is known to this test', () => {
  expect(screens.filter((screen) => screen.includes('[')).filter((screen) => !lists[screen])).toEqual([]);
  expect(screens.length).toBeGreaterThan(20);
});

/** A bench with pictures and columns on it; its address. */
async function aBench(page: Page): Promise<string> {
  await page.goto('/bench');
  await awake(page);
  await page.getByRole('button', { name: /^Vessels, two lights/ }).click();
  await page.locator('[data-cell] canvas[data-shown]').first().waitFor();
  const { pathname, search } = new URL(page.url());
  return pathname + search;
}

for (const theme of ['light', 'dark'] as const)
  test(`no screen has a fault in ${theme}`, async ({ page }) => {
    test.setTimeout(seconds(300));
    await page.emulateMedia({ colorScheme: theme });
    await aConversion(page);
    await aChart(page);
    await planFor(page, 'Gallery Neutral', ['Model room']);
    const faults: string[] = [];
    for (const screen of [...screens, '/shelves?view=table', '/shelves?recent=1', await aBench(page)]) {
      if (!(await open(page, screen))) continue;
      const axe = new AxeBuilder({ page });
      // the structure of a page is the same in the dark; its colors are not
      const { violations } = await (theme === 'dark' ? axe.withRules(['color-contrast']) : axe).analyze();
      for (const { id, nodes } of violations)
        faults.push(`${screen}: ${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
    }
    expect(faults).toEqual([]);
  });

/** Dialogs by the screen on which they open, and what opens them. */
const dialogs: { screen: string; button: string; menu?: string }[] = [
  { screen: '/shelves', button: 'New shelf' },
  { screen: '/stations', button: 'Add a station' },
  { screen: '/shelves', button: 'Go to Ctrl K' },
  { screen: '/items/[id]', button: 'Edit' },
  { screen: '/packs/[id]', button: 'Change' },
  { screen: '/stations/[id]', button: 'Change' },
];
for (const theme of ['light', 'dark'] as const)
  test(`no dialog has a fault in ${theme}, and the focus comes back to what opened it`, async ({ page }) => {
    test.setTimeout(seconds(120));
    await page.emulateMedia({ colorScheme: theme });
    for (const { screen, button } of dialogs) {
      if (!(await open(page, screen))) continue;
      const opener = page.getByRole('button', { name: button, exact: true }).first();
      await opener.click();
      const dialog = page.getByRole('dialog');
      await expect(dialog, `${button} at ${screen}`).toBeVisible();
      const { violations } = await new AxeBuilder({ page }).include('[role=dialog]').analyze();
      expect(violations.map(({ id, nodes }) => `${screen}: ${id}: ${nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
      await page.keyboard.press('Escape');
      await expect(dialog).toBeHidden();
      await expect(opener, `focus after ${button} at ${screen}`).toBeFocused();
    }
  });

test('at 200 % zoom, and at 1,024 pixels, nothing scrolls sideways but tables', async ({ page }) => {
  test.setTimeout(seconds(240));
  const wide: string[] = [];
  for (const width of [640, 1024]) {
    await page.setViewportSize({ width, height: 700 });
    for (const screen of screens) {
      if (!(await open(page, screen, false))) continue;
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      if (over > 0) wide.push(`${screen} at ${width}: ${over} pixels`);
    }
  }
  expect(wide).toEqual([]);
});
