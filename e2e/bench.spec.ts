/** The bench as its users work at it: a profile for two lights, the infrared frame, the maker's JPEG, a blind comparison, all by keyboard. */
import { awake, idle } from './app';
import { faultsOf } from './axe';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const cells = () => page.locator('[data-cell]');
const names = () => page.locator('[data-column]').evaluateAll((l) => l.map((x) => (x as HTMLElement).dataset.column));
/** Until every cell has its picture or says why not. */
const rendered = () =>
  page.waitForFunction(
    () => {
      const elements = [...document.querySelectorAll('[data-cell]')];
      return (
        elements.length > 0 &&
        elements.every(
          (x) => (x.querySelector('canvas') as HTMLElement | null)?.dataset.shown || x.querySelector('[role=alert]'),
        )
      );
    },
    undefined,
    { timeout: seconds(60) },
  );
const shown = (at: number) =>
  cells()
    .nth(at)
    .locator('canvas')
    .evaluate((c) => Number(c.dataset.shown ?? 0));
const again = (at: number, before: number) =>
  expect.poll(() => shown(at), { timeout: seconds(20) }).toBeGreaterThan(before);
const menu = async (button: string, item: string | RegExp) => {
  await page.getByRole('button', { name: button, exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};
/** An empty bench with a set of frames laid on it. */
async function layOut(set: RegExp): Promise<void> {
  await page.goto('/bench');
  await awake(page);
  await page.getByRole('button', { name: set }).click();
}
const VESSELS = /^Vessels, two lights/;
/** Mean red, green and blue of a cell's picture. */
const mean = (at: number) =>
  cells()
    .nth(at)
    .locator('canvas')
    .evaluate((canvas: HTMLCanvasElement) => {
      const pixels = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data;
      const sums = [0, 0, 0];
      for (let i = 0; i < pixels.length; i += 4) for (let k = 0; k < 3; k++) sums[k]! += pixels[i + k]!;
      return sums.map((v) => v / (pixels.length / 4));
    });

test('an empty bench says what it is for; a set is laid on it with one click', async () => {
  await page.goto('/bench');
  await awake(page);
  await expect(page.getByText('Nothing lies on the bench')).toBeVisible();
  await page.getByRole('button', { name: /^Vessels, two lights/ }).click();
  await rendered();
  await expect(page.locator('[data-row]')).toHaveCount(2);
  await expect(page.locator('[data-row]').nth(1)).toContainText(/3,0\d\d K/);
});

test('a profile is chosen for two lights of a set, and becomes the house choice', async () => {
  await layOut(VESSELS);
  await menu('Candidates', 'The profiles of these cameras');
  await expect(page.locator('[data-column]')).toHaveCount(5);
  await rendered();
  expect(await names()).toEqual([
    'No look',
    'Perrin Alder Monochrome',
    'Perrin Alder Neutral',
    'Perrin Alder Portrait',
    'Perrin Alder Standard',
  ]);
  const [r, g, b] = await mean(1);
  expect(Math.max(Math.abs(r! - g!), Math.abs(g! - b!))).toBeLessThan(1); // monochrome is
  await cells().nth(4).focus();
  await page.keyboard.press('c');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: 'Perrin Alder Standard' })).toBeVisible();
  await expect(dialog.getByText(/provisional/)).toBeVisible();
  await dialog.getByLabel('In words').fill('holds in daylight and in lamp light');
  await dialog.getByLabel('make it the house choice').check();
  await dialog.getByLabel('Client or job, empty for any').fill('Museum of Glazes');
  await dialog.getByRole('button', { name: 'Choose for 2 cases' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 verdicts saved, 2 house choices made' })).toBeVisible();
  await page.goto('/studio');
  await expect(
    page
      .getByRole('table', { name: 'House choices' })
      .getByRole('row', { name: /Museum of Glazes.*tungsten.*Perrin Alder Standard/ }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Perrin Alder Standard' }).first().click();
  await expect(
    page.getByRole('table', { name: 'Verdicts' }).getByText('holds in daylight and in lamp light').first(),
  ).toBeVisible();
  await layOut(/^Museum day/);
  await expect(page.locator('[data-row="ALD 0412, vessels"]')).toContainText(
    'house choice for Museum of Glazes: Perrin Alder Standard',
  );
});

/** A camera profile on the bench, as its page offers it: beside no look and the camera's own JPEG. */
async function profileOnBench(title: string): Promise<void> {
  await page.goto(`/shelves?kind=camera-profile&q=${encodeURIComponent(title)}`);
  await page.locator(`[data-spine][aria-label^="${title}, "]`).click();
  await page.getByRole('link', { name: 'On the bench', exact: true }).click();
  await rendered();
}

test('a rung that is muted changes the picture, and the address says so', async () => {
  await profileOnBench('Perrin Alder Standard');
  const at = 1;
  const before = await shown(at);
  await page.getByRole('button', { name: 'curve', exact: true }).click();
  await again(at, before);
  await expect(page).toHaveURL(/p%3A[0-9a-f-]{36}%3A7/);
  await page.reload();
  await rendered();
  await expect(page.getByRole('button', { name: 'curve', exact: true })).toHaveAttribute('aria-pressed', 'false');
});

test('a maker-style profile beside the camera’s JPEG: the difference is shown as a map with figures', async () => {
  await profileOnBench('Perrin Alder Standard');
  expect(await names()).toContain('Camera’s own JPEG');
  await cells().nth(2).focus();
  await page.keyboard.press('r'); // the JPEG is the reference
  await page.keyboard.press('d');
  await expect(page.getByText('ΔE00 against Camera’s own JPEG')).toBeVisible();
  await expect(
    cells()
      .nth(1)
      .locator('xpath=..')
      .getByText(/^mean /),
  ).toHaveText(/mean \d+\.\d/, { timeout: seconds(20) });
  await page.getByRole('button', { name: 'Pictures', exact: true }).click();
});

test('the infrared frame is rescued: no temperature reaches it, anchored it is gray, and the profile is kept', async () => {
  await page.goto('/bench');
  await awake(page);
  await menu('Frames', /ALD 0007, vessels in infrared/);
  await rendered();
  const red = await mean(0);
  expect(red[0]! - red[2]!).toBeGreaterThan(40); // as the file is balanced, all is red
  await expect(page.locator('[data-row]')).toContainText('recognized by its serial number, PA-100877');
  await page.getByLabel(/^White balance of/).selectOption('neutral');
  await expect(page.getByText('Click something gray in this row.')).toBeVisible();
  const before = await shown(0);
  await cells()
    .first()
    .click({ position: { x: 110, y: 34 } });
  await again(0, before);
  await expect(page.getByText('No temperature reaches this neutral.')).toBeVisible();
  await page.getByRole('button', { name: /Show anchored at 5,000 K/ }).click();
  await expect(page.locator('[data-column]')).toHaveCount(2);
  await rendered();
  await expect
    .poll(
      async () => {
        const [r, , b] = await mean(1);
        return Math.abs(r! - b!);
      },
      { timeout: seconds(20) },
    )
    .toBeLessThan(14);
  // its own profile, computed from what it is sensitive to, fits it; the plain body's does not
  await menu('Candidates', 'The profiles of these cameras');
  await expect(page.locator('[data-column="Perrin Alder IR Standard"]')).toBeVisible();
  await rendered();
  const list = await names();
  const text = (n: string) => cells().nth(list.indexOf(n)).textContent();
  expect(await text('Perrin Alder IR Standard')).not.toContain('for the');
  expect(await text('Perrin Alder Standard')).toContain('for the Perrin Alder');
  await page.getByRole('button', { name: 'Keep it as a profile' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Alder Neutral, infrared');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'stands on the shelf of its source, as a draft' }),
  ).toBeVisible();
});

test('a blind comparison hides names and order until it is revealed', async () => {
  await layOut(VESSELS);
  await menu('Candidates', 'All on House looks');
  await expect(page.locator('[data-column="Ward Linen"]')).toBeVisible();
  await rendered();
  const before = await names();
  await page.getByRole('button', { name: 'Blind', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Reveal', exact: true })).toBeVisible();
  const hidden = await names();
  expect(hidden[0]).toBe('No look');
  expect(hidden.slice(1).every((n) => /^Candidate [A-O]$/.test(n!))).toBe(true);
  for (const n of before.slice(1)) await expect(page.locator('main').getByText(n!, { exact: true })).toHaveCount(0);
  expect(hidden[1]).toBe('Candidate A');
  await expect(page.getByRole('slider')).toHaveCount(0);
  await page.getByRole('button', { name: 'Choose B', exact: true }).click();
  await page.getByRole('dialog', { name: 'Candidate B' }).getByRole('button', { name: 'Save the verdict' }).click();
  const said = await page.getByText(/^Candidate B was /).textContent();
  expect(before.some((name) => said?.includes(`was ${name}. `))).toBe(true);
  await expect(page.getByRole('button', { name: 'Blind', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Blind', exact: true }).click();
  await page.getByRole('button', { name: 'Reveal', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Blind', exact: true })).toBeVisible();
  expect(await names()).toEqual(before);
});

test('by keyboard alone: walked, made stronger, enlarged, closed, taken off; the address brings it all back', async () => {
  await layOut(VESSELS);
  await menu('Candidates', 'All on House looks');
  await expect(page.locator('[data-column="Amber Proscenium"]')).toBeVisible();
  await rendered();
  await cells().nth(1).focus();
  await page.keyboard.press('ArrowDown');
  const row = await page.evaluate(() => document.activeElement!.getAttribute('data-cell'));
  expect(row).toMatch(/\/1$/);
  await page.keyboard.press('ArrowUp');
  const before = await shown(1);
  for (let i = 0; i < 4; i++) await page.keyboard.press('+');
  await again(1, before);
  await expect(page).toHaveURL(/%3A120/);
  await page.keyboard.press('Enter');
  const large = page.getByRole('dialog', { name: 'ALD 0412, vessels' });
  await expect(large).toBeVisible();
  await expect(large.locator('canvas[role=img][data-shown]')).toHaveCount(2, { timeout: seconds(20) });
  await large.getByLabel('Put beside').selectOption({ index: 1 });
  await expect(large.locator('canvas[role=img][data-shown]')).toHaveCount(3, { timeout: seconds(20) });
  await large.getByRole('button', { name: 'One less' }).click();
  await expect(large.locator('canvas[role=img]')).toHaveCount(2);
  await large.focus();
  await page.keyboard.press('w');
  await expect(large.getByRole('slider', { name: 'Edge of the wipe' })).toBeVisible();
  await page.keyboard.press('1');
  await expect(large.getByRole('button', { name: '1:1' })).toHaveAttribute('aria-pressed', 'true');
  // every part in view is developed at full size, and more come with the arrows
  const sharp = large.locator('canvas[data-sharp]').first();
  await expect(sharp).toHaveAttribute('data-missing', '0', { timeout: seconds(20) });
  expect(Number(await sharp.getAttribute('data-drawn'))).toBeGreaterThan(1);
  const inked = () =>
    sharp.evaluate((canvas: HTMLCanvasElement) => {
      const pixels = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data;
      let n = 0;
      for (let i = 3; i < pixels.length; i += 4) n += Number(pixels[i] === 255);
      return n / (pixels.length / 4);
    });
  expect(await inked()).toBeGreaterThan(0.98);
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight');
  await expect(sharp).toHaveAttribute('data-missing', '0', { timeout: seconds(20) });
  expect(await inked()).toBeGreaterThan(0.98);
  await page.keyboard.press('Escape');
  await expect(large).toBeHidden();
  const n = await page.locator('[data-column]').count();
  const url = page.url();
  await cells().nth(1).focus();
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-column]')).toHaveCount(n - 1);
  await page.goBack();
  await expect(page.locator('[data-column]')).toHaveCount(n);
  await page.goto(url);
  await rendered();
  await expect(page.getByLabel('Strength of Amber Proscenium in percent, up to 400')).toHaveValue('120');
});

test('a museum day: patches of a target against their measured values, an odd profile, and what the display cannot show', async () => {
  await layOut(/^Museum day/);
  await menu('Candidates', 'The profiles of these cameras');
  await expect(page.locator('[data-column]')).toHaveCount(5);
  await rendered();
  await expect(page.locator('[data-row="ALD 0431, costumes"]')).toContainText(
    'came with Perrin Alder Portrait, most with Perrin Alder Standard',
  );
  await expect(page.locator('[data-row="ALD 0412, vessels"]')).toContainText('came with Perrin Alder Standard');
  // without its curve, the neutral profile reproduces
  const neutral = (await names()).indexOf('Perrin Alder Neutral');
  const before = await shown(neutral);
  await page.locator('[data-column="Perrin Alder Neutral"]').getByRole('button', { name: 'curve' }).click();
  await again(neutral, before);
  const patches = async () =>
    Number(/mean ΔE ([\d.]+)/.exec((await cells().nth(neutral).getAttribute('aria-label')) ?? '')?.[1] ?? NaN);
  await expect.poll(patches).toBeLessThan(1.2);
  expect(await patches()).toBeGreaterThan(0.1);
  // the corners, by hand and by the marks
  await page.getByRole('button', { name: 'The chart in ALD 0420, kiln card' }).click();
  const dialog = page.getByRole('dialog', { name: 'The chart in ALD 0420, kiln card' });
  const figures = dialog.locator('[data-target-figures]');
  const said = async () => Number(/mean ([\d.]+)/.exec((await figures.textContent()) ?? '')?.[1] ?? NaN);
  await dialog.getByLabel('Rendered by').selectOption({ label: 'Perrin Alder Neutral' });
  await expect.poll(said).toBeLessThan(1.2);
  expect(Math.abs((await said()) - (await patches()))).toBeLessThanOrEqual(0.051); // the small cell said the same, rounded
  await dialog.getByRole('button', { name: /^Corner top left/ }).focus();
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(said).toBeGreaterThan(4);
  await dialog.getByRole('button', { name: 'Find the marks' }).click();
  await expect(dialog.getByText('Found by its four marks.')).toBeVisible({ timeout: seconds(15) });
  await expect.poll(said).toBeLessThan(1.2);
  await dialog.getByLabel('Measured values as CGATS text').setInputFiles({
    name: 'bad.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('CGATS.17\nBEGIN_DATA\n1 2\nEND_DATA\n'),
  });
  await expect(dialog.getByRole('alert')).toContainText('no data format');
  expect(await faultsOf(page, { within: '[role=dialog]' })).toEqual([]);
  // the page is fetched anew afterwards, slowly: what is said meanwhile must not be put back
  await page.route('**/bench*_rsc=*', async (route) => {
    await new Promise((d) => setTimeout(d, 1200));
    await route.continue();
  });
  const fetchedAnew = page.waitForResponse(/\/bench.*_rsc=/);
  await dialog.getByRole('button', { name: 'Save the chart’s place' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('ALD 0420, kiln card is a target frame')).toBeVisible();
  await page.getByRole('button', { name: 'Gamut' }).click();
  await expect(page).toHaveURL(/mark=1/);
  await expect(page.getByText(/cannot show stands in a checker of grays/)).toBeVisible();
  await expect.poll(() => cells().nth(6).locator('xpath=..').textContent()).toMatch(/outside \d/);
  await fetchedAnew;
  await idle(page);
  await expect(page).toHaveURL(/mark=1/);
  await expect(page.getByRole('button', { name: 'Gamut' })).toHaveAttribute('aria-pressed', 'true');
  await page.unroute('**/bench*_rsc=*');
});

test('an editor’s own export stands beside ours', async () => {
  await layOut(VESSELS);
  await menu('Candidates', 'The camera’s own JPEG');
  await rendered();
  const id = new URL(page.url()).searchParams.get('rows')!.split('~')[0]!;
  const picture = await (await page.request.get(`/api/frames/${id}?w=900`)).body();
  await menu('Candidates', 'Bring in an editor’s export');
  const dialog = page.getByRole('dialog', { name: 'What an editor makes of a frame' });
  await dialog.getByLabel(/^Label/).fill('Oxbow 2, plain');
  await dialog
    .getByLabel('Picture')
    .setInputFiles({ name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await dialog.getByRole('button', { name: 'Bring it in' }).click();
  await expect(dialog.getByRole('alert')).toContainText('cannot be decoded');
  await dialog.getByLabel('Picture').setInputFiles({ name: 'export.png', mimeType: 'image/png', buffer: picture });
  await dialog.getByRole('button', { name: 'Bring it in' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.locator('[data-column="Export: Oxbow 2, plain"]')).toBeVisible();
  await rendered();
  // it is the camera's own picture, so there it does not differ; the other frame has none of that label
  const jpeg = await mean(1);
  await expect.poll(async () => (await mean(2)).every((v, i) => Math.abs(v - jpeg[i]!) < 1.5)).toBe(true);
  await expect(cells().nth(5)).toContainText('There is no such export of this frame');
  await expect(page).toHaveURL(/x%3AOxbow/);
  await page
    .locator('[data-column="Export: Oxbow 2, plain"]')
    .getByRole('button', { name: /^What can be done/ })
    .click();
  await page.getByRole('menuitem', { name: 'Remove these exports from the studio' }).click();
  await expect(page.locator('[data-column]')).toHaveCount(2);
  await expect(page.getByRole('status').filter({ hasText: 'The exports of Oxbow 2, plain are gone' })).toBeVisible();
});

test('the same effect laid twice is warned of; a look is shown read in another encoding', async () => {
  await layOut(/^The rendered frames/);
  await menu('Candidates', 'All on House looks');
  await expect(page.locator('[data-column]')).toHaveCount(9);
  const query = new URL(page.url()).searchParams;
  const one = query.get('cols')!.split('~')[1]!;
  const rows = query.get('rows')!.split('~')[0]!;
  await page.goto(`/bench?${new URLSearchParams({ rows, cols: ['none', `${one}!${one}`, one].join('~') }).toString()}`);
  await awake(page);
  await rendered();
  await expect(cells().nth(1)).toContainText('the same effect twice');
  await expect(cells().nth(2)).not.toContainText('twice');
  const before = await mean(2);
  const at = await shown(2);
  await page
    .locator('[data-column]')
    .nth(2)
    .getByRole('button', { name: /^What can be done/ })
    .click();
  await page.getByRole('menuitem', { name: 'Read its values as …' }).press('ArrowRight');
  await page.getByRole('menuitem', { name: 'Rec. 2020, linear, full', exact: true }).press('Enter');
  await again(2, at);
  await expect(page.locator('[data-column]').nth(2)).toContainText('read as Rec. 2020, linear, full');
  expect((await mean(2)).some((v, i) => Math.abs(v - before[i]!) > 2)).toBe(true);
  await page.getByRole('button', { name: 'Frames', exact: true }).click();
  await page.getByRole('menuitem', { name: 'By camera' }).press('ArrowRight');
  await page.getByRole('menuitem', { name: /^Ondine 40/ }).press('Enter');
  await expect(page.locator('[data-row="OND 2207, stage model"]')).toBeVisible();
  await expect(page.locator('[data-row="OND 2231, night stage"]')).toBeVisible();
  await expect(page.locator('[data-row]')).toHaveCount(2);
});

test('a column is kept as a look: its layers at their strengths, and what is left out is said', async () => {
  await layOut(/^The rendered frames/);
  await menu('Candidates', 'All on House looks');
  await expect(page.locator('[data-column]')).toHaveCount(9);
  const query = new URL(page.url()).searchParams;
  const [, one, other] = query.get('cols')!.split('~');
  const rows = query.get('rows')!.split('~')[0]!;
  const cols = ['none', `${one}!${other}`].join('~');
  await page.goto(`/bench?${new URLSearchParams({ rows, cols }).toString()}`);
  await awake(page);
  await rendered();
  const stacked = await mean(1);
  const open = () =>
    page
      .locator('[data-column]')
      .nth(1)
      .getByRole('button', { name: /^What can be done/ })
      .click();
  await open();
  await page.getByRole('menuitem', { name: 'Range compression on' }).click();
  await open();
  await page.getByRole('menuitem', { name: 'Keep it as a look' }).click();
  const dialog = page.getByRole('dialog', { name: 'Keep it as a look' });
  await expect(dialog).toContainText('range compression: it depends on what stands around a color');
  await dialog.getByLabel('Title').fill('Two at once');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('link', { name: 'Two at once' }).click({ timeout: seconds(30) });
  await expect(page.getByRole('heading', { name: 'Two at once', level: 1 })).toBeVisible();
  await expect(page.getByText('made from look version 1')).toHaveCount(2);
  // and does what the column did
  const version = await page.request.get('/api/bench/candidates', { params: { item: page.url().split(/[/?]/)[4]! } });
  const [kept] = ((await version.json()) as { candidates: { versionId: string }[] }).candidates;
  await page.goto(`/bench?${new URLSearchParams({ rows, cols: `none~l:${kept!.versionId}:100` }).toString()}`);
  await awake(page);
  await rendered();
  const alone = await mean(1);
  alone.forEach((value, c) => expect(Math.abs(value - stacked[c]!)).toBeLessThan(2));
});

test('a cell that cannot be says why, and the others render', async () => {
  await layOut(VESSELS);
  await menu('Candidates', 'The profiles of these cameras');
  await expect(page.locator('[data-column]')).toHaveCount(5);
  await rendered();
  await menu('Frames', /^Stage model, window/);
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'A camera profile needs camera data; this frame is a rendered file.' })
      .first(),
  ).toBeVisible({ timeout: seconds(20) });
  await rendered();
  await expect(cells().nth(10).locator('canvas')).toBeVisible();
});

test('a bench is kept under a name and opened again', async () => {
  await layOut(VESSELS);
  await menu('Frames', /^Stage model, window/);
  await expect(page.locator('[data-row]')).toHaveCount(3);
  await menu('Saved', 'Save this bench');
  await page.getByLabel('Name', { exact: true }).fill('Two lights and a window');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Two lights and a window is saved' })).toBeVisible();
  await page.goto('/bench');
  await awake(page);
  await menu('Saved', /Two lights and a window/);
  await rendered();
  await expect(page.locator('[data-row]')).toHaveCount(3);
});

test('numbers count as they are typed, and what is out of range says so and changes nothing', async () => {
  await profileOnBench('Perrin Alder Standard');
  const type = async (field: string | RegExp, text: string) => {
    await page.getByRole('spinbutton', { name: field }).first().selectText();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await menu(`What can be done with ${(await names())[1]}`, 'Trim by slope, offset, power');
  const trim = page.getByRole('region', { name: /^Trim of/ });
  await trim.getByRole('checkbox', { name: 'channels linked' }).uncheck();
  await type('offset of red', '-0.05');
  await type('power of red', '0.85');
  const trimmed = /t:1,1,1,-0\.05,0,0,0\.85,1,1/;
  const address = () => decodeURIComponent(page.url());
  await expect.poll(address).toMatch(trimmed);
  await type('power of red', '85');
  await expect(trim.getByRole('alert')).toHaveText('From 0.1 to 4');
  await page.keyboard.press('Escape');
  expect(address()).toMatch(trimmed);

  await page
    .getByLabel(/^White balance of/)
    .first()
    .selectOption('temperature');
  await type(/in kelvin$/, '4500');
  await type(/^Tint of/, '-20');
  await expect.poll(address).toMatch(/4500[^&]*-20/);
});

test('a cell is never shown larger than it was rendered, with one column on the bench too', async () => {
  await layOut(VESSELS);
  await rendered();
  const widths = await cells()
    .locator('canvas')
    .evaluateAll((list) => list.map((one) => [one.getBoundingClientRect().width, (one as HTMLCanvasElement).width]));
  expect(widths.length).toBeGreaterThan(0);
  for (const [shownAs, made] of widths) expect(shownAs!).toBeLessThanOrEqual(made!);
});
