/** Every screen, in light and in dark, has no fault that axe finds; none scrolls sideways at 200 % zoom, but for tables. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { faultsOf } from './axe';
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
const lists: Record<string, { list: string; link: string; then?: string }> = {
  '/intake/[id]': { list: '/intake', link: 'main table a[href^="/intake/"]' },
  '/items/[id]': { list: '/shelves', link: '[data-spine]' },
  '/items/[id]/convert': { list: '/shelves?kind=preset', link: '[data-spine]' },
  '/items/[id]/exported': { list: '/shelves?kind=preset', link: '[data-spine]' },
  '/convert/[id]': { list: '/convert', link: 'main table a[href^="/convert/"]' },
  '/convert/charts/[id]': { list: '/convert/charts', link: 'main table a[href^="/convert/charts/"]' },
  '/packs/[id]': { list: '/packs', link: 'main table a[href^="/packs/"]' },
  '/stations/[id]': { list: '/stations', link: 'main table a[href^="/stations/"]' },
  '/stations/[id]/past': { list: '/stations', link: 'main table a[href^="/stations/"]' },
  '/rollouts/[id]/sheet/[station]': {
    list: '/rollouts',
    link: 'main a[href^="/rollouts/"]:not([href$="/new"])',
    then: 'main a[href*="/sheet/"]',
  },
  '/rollouts/[id]': { list: '/rollouts', link: 'main a[href^="/rollouts/"]:not([href$="/new"])' },
};

/** Where the first such link leads; null where there is none. */
const hrefOf = (page: Page, link: string): Promise<string | null> =>
  page
    .locator(link)
    .first()
    .getAttribute('href', { timeout: 5000 })
    .catch(() => null);

/** Opens a screen; false where there is none of its kind yet. */
async function open(page: Page, screen: string): Promise<boolean> {
  const way = lists[screen];
  if (!way) {
    await page.goto(screen);
    await awake(page);
    return true;
  }
  await page.goto(way.list);
  await page.locator('main h1').first().waitFor();
  const href = await hrefOf(page, way.link);
  if (!href) return false;
  const below = way.then ? '' : screen.slice(screen.indexOf(']') + 1);
  await page.goto(below ? `${href.split('?')[0]}${below}` : href);
  await awake(page);
  if (!way.then) return true;
  const further = await hrefOf(page, way.then);
  if (further) await page.goto(further);
  return further !== null;
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

/** What axe finds in the page as it is; the structure is the same in the dark, its colors are not. */
async function faultsIn(page: Page, screen: string, theme: 'light' | 'dark'): Promise<string[]> {
  await page.emulateMedia({ colorScheme: theme });
  const faults = await faultsOf(page, theme === 'dark' ? { rules: ['color-contrast'] } : {});
  return faults.map((fault) => `${screen}, ${theme}: ${fault}`);
}

/** At 200 % zoom of 1,280 pixels, and at 1,024. */
const WIDTHS = [640, 1024];

async function widerThan(page: Page, screen: string, width: number): Promise<string[]> {
  await page.setViewportSize({ width, height: 700 });
  // the page is laid out anew before its width is asked for
  const over = await page.evaluate(
    () =>
      new Promise<number>((tell) =>
        requestAnimationFrame(() =>
          requestAnimationFrame(() => tell(document.documentElement.scrollWidth - window.innerWidth)),
        ),
      ),
  );
  return over > 0 ? [`${screen} at ${width}: ${over} pixels`] : [];
}

test('no screen has a fault, in light or in dark, and none scrolls sideways but for tables', async ({ page }) => {
  test.setTimeout(seconds(400));
  await aConversion(page);
  await aChart(page);
  await planFor(page, 'Gallery Neutral', ['Model room']);
  const faults: string[] = [];
  const size = page.viewportSize() ?? { width: 1280, height: 800 };
  for (const screen of [...screens, '/shelves?view=table', '/shelves?recent=1', await aBench(page)]) {
    if (!(await open(page, screen))) continue;
    faults.push(...(await faultsIn(page, screen, 'light')), ...(await faultsIn(page, screen, 'dark')));
    for (const width of WIDTHS) faults.push(...(await widerThan(page, screen, width)));
    await page.setViewportSize(size);
  }
  expect(faults).toEqual([]);
});

/** Dialogs by the screen on which they open, and what opens them. */
const dialogs: { screen: string; button: string; menu?: string }[] = [
  { screen: '/shelves', button: 'New shelf' },
  { screen: '/stations', button: 'Add a station' },
  { screen: '/stations/orders', button: 'New standing order' },
  { screen: '/stations/opening', button: 'Add a rule' },
  { screen: '/shelves', button: 'Go to Ctrl K' },
  { screen: '/items/[id]', button: 'Edit' },
  { screen: '/packs/[id]', button: 'Change' },
  { screen: '/stations/[id]', button: 'Change' },
  { screen: '/stations/[id]', button: 'See them working' },
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
      expect(await faultsOf(page, { within: '[role=dialog]' }), screen).toEqual([]);
      await page.keyboard.press('Escape');
      await expect(dialog).toBeHidden();
      await expect(opener, `focus after ${button} at ${screen}`).toBeFocused();
    }
  });
