/** The whole job, as the librarian does it: from a supplier's zip to a look that editors on stations really list, and back. */
import { cubeOf, marlstoneOf, oxbowOf, zipOf } from '../demo/files';
import { awake, idle, listed, signIn, stationRoot, takeIn, tree } from './app';
import { expect, nobody, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const marquee = (): Record<string, string> => ({
  'Marquee/Quenched Iron.cube': cubeOf(
    {
      title: 'Quenched Iron',
      headings: [],
      settings: { warmth: 47, contrast: 1.22, tintDark: { hue: 40, amount: 0.03 } },
    },
    25,
  ),
});
const arrival = () => {
  const broken = cubeOf({ title: 'Torn', headings: [], settings: { level: 0.1 } }, 5).split('\n');
  return Buffer.from(
    zipOf({
      'Autumn II/Looks/Warm/Candle End.cube': cubeOf(
        {
          title: 'Candle End',
          headings: [],
          settings: { warmth: 44, contrast: 1.2, tintDark: { hue: 40, amount: 0.03 } },
        },
        25,
      ),
      'Autumn II/Looks/Warm/deeper/Copy of Candle.cube': cubeOf(
        {
          title: 'Candle End',
          headings: [],
          settings: { warmth: 44, contrast: 1.2, tintDark: { hue: 40, amount: 0.03 } },
        },
        25,
      ),
      'Autumn II/Looks/Torn.cube': broken.slice(0, -3).join('\n'),
      'Autumn II/Presets/Stage Left.xmp': oxbowOf({
        title: 'Stage Left',
        headings: ['Autumn II', 'Presets'],
        steps: [
          ['lamp', { stops: 0.7 }],
          ['spread', { by: 0.2 }],
          ['dye', { rich: 11 }],
          ['edge', { bite: 0.5 }],
          ['corners', { stops: -0.7 }],
        ],
      }),
      'Autumn II/Presets/Fired Twice.mpreset': marlstoneOf({
        title: 'Fired Twice',
        drawer: 'Ceramics/Presets',
        sections: [
          ['light', { amount: 120, snap: 20 }],
          ['pigment', { depth: 90 }],
        ],
      }),
      'Autumn II/Licence.txt': 'Eight seats.\n',
      'Autumn II/odd.bin': new Uint8Array([0, 1, 2, 0, 255]),
      '__MACOSX/Autumn II/._Licence.txt': new Uint8Array([0, 5, 22, 7]),
    }),
  );
};

test.describe('at the door', () => {
  test.use({ storageState: nobody });

  test('signs in, and finds only screens that exist in the navigation', async () => {
    await signIn(page);
    const links = page.getByRole('navigation', { name: 'Screens' }).getByRole('link');
    await expect(links).toHaveText([
      /Intake/,
      /Shelves/,
      /Bench/,
      /Conversions/,
      /Packs/,
      /Copies/,
      /Coverage/,
      /Stations/,
      /Rollouts/,
      /Ribbons/,
      /Activity/,
      /Studio/,
    ]);
    for (const href of await links.evaluateAll((all) => all.map((a) => a.getAttribute('href')!)))
      expect((await page.request.get(href)).status()).toBe(200);
  });

  test('a wrong password is refused with words that give nothing away', async () => {
    await page.goto('/sign-in');
    await page.getByLabel('E-mail address').fill('nobody@wrenandtallow.example');
    await page.getByLabel('Password').fill('not the password');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert').first()).toContainText('The address or the password is not right.');
  });
});

test('takes a zip in: says what each file is, leaves leftovers out, takes nothing twice', async () => {
  await page.goto('/intake');
  await awake(page);
  await page
    .getByLabel('Files to take in')
    .setInputFiles({ name: 'Autumn II.zip', mimeType: 'application/zip', buffer: arrival() });
  await page.waitForURL(/\/intake\/[0-9a-f-]{36}/);
  await expect(page.getByRole('button', { name: 'Accept 3 as proposed' })).toBeVisible({ timeout: seconds(30) });
  const row = (path: string) => page.locator(`[data-entry="${path}"]`);
  await expect(row('Autumn II/Looks/Warm/Candle End.cube')).toContainText('3D table of 25 points');
  await expect(row('Autumn II/Looks/Warm/deeper/Copy of Candle.cube')).toContainText('held already');
  await expect(row('Autumn II/Looks/Torn.cube')).toContainText('The table ends after 123 of 125 rows.');
  await expect(row('Autumn II/Presets/Stage Left.xmp')).toContainText('preset of Oxbow 2');
  await expect(row('Autumn II/Presets/Fired Twice.mpreset')).toContainText('preset of Marlstone 3');
  await expect(row('Autumn II/Licence.txt')).toContainText('document');
  await expect(row('Autumn II/odd.bin')).toContainText('binary content in no format');
  await expect(row('__MACOSX/Autumn II/._Licence.txt')).toContainText('resource file of macOS');
  await page.reload();
  await page.getByLabel('Shelf').selectOption('new');
  await page.getByLabel('Its name').fill('Autumn II');
  await page.getByRole('button', { name: 'Accept 3 as proposed' }).click();
  await page.waitForURL(/\/shelves/);
  const board = page.getByRole('region', { name: 'Autumn II' });
  // a board is painted when one comes near
  await board.scrollIntoViewIfNeeded();
  await expect(board.locator('[data-spine]')).toHaveCount(3);
  // the same arrival again is held already
  await page.goto('/intake');
  await awake(page);
  await page
    .getByLabel('Files to take in')
    .setInputFiles({ name: 'Autumn II again.zip', mimeType: 'application/zip', buffer: arrival() });
  await page.waitForURL(/\/intake\/[0-9a-f-]{36}/);
  await expect(page.getByRole('region', { name: 'Held already' }).locator('[data-entry]')).toHaveCount(4, {
    timeout: seconds(30),
  });
  await expect(page.getByRole('button', { name: /^Accept 0/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Discard the arrival' }).click();
  await page.waitForURL('/intake');
});

test('finds an item by typing, with a slip of the finger too, and marks it with a ribbon by key', async () => {
  await takeIn(page, 'Marquee', marquee(), { shelf: 'Marquee' });
  await page.goto('/shelves');
  await page.locator('canvas[data-shown]').waitFor();
  await awake(page);
  await page.keyboard.press('/');
  await page.keyboard.type('quenchd iron');
  await expect(page.locator('[data-spine]')).toHaveCount(1);
  // all of the words, and what they found
  await expect(page).toHaveURL(/q=quenchd(\+|%20)iron/);
  await idle(page);
  await page.keyboard.press('ArrowDown');
  const spine = page.locator('[data-spine]');
  await expect(spine).toBeFocused();
  const kept = page.waitForResponse((r) => r.url().endsWith('/ribbon') && r.ok());
  await page.keyboard.press('r');
  await expect(spine).toHaveAccessibleName(/with your ribbon/);
  await kept;
  await page.reload();
  await expect(page.locator('[data-spine]')).toHaveAccessibleName(/with your ribbon/);
  const band = await page
    .locator('[data-spine] span[style]')
    .first()
    .evaluate((e) => getComputedStyle(e).backgroundImage);
  expect(new Set(band.match(/rgb\([^)]+\)|#[0-9a-f]{6}/g)).size).toBeGreaterThan(18);
  await page.locator('[data-spine]').press('Enter');
  await expect(page.getByRole('heading', { name: 'Quenched Iron', level: 1 })).toBeVisible();
});

test('an item’s picture changes with strength, and holding shows the original', async () => {
  await page.goto('/shelves?q=amber+proscenium');
  await page.locator('[data-spine]').first().click();
  await expect(page.getByRole('heading', { name: 'Amber Proscenium', level: 1 })).toBeVisible();
  const canvas = page.locator('canvas').first();
  const shown = () => canvas.evaluate((c) => Number((c as HTMLCanvasElement).dataset.shown ?? 0));
  const mean = () =>
    canvas.evaluate((drawn) => {
      const canvas = drawn as HTMLCanvasElement;
      const pixels = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data;
      let r = 0;
      let b = 0;
      for (let i = 0; i < pixels.length; i += 4) {
        r += pixels[i]!;
        b += pixels[i + 2]!;
      }
      return r / b;
    });
  await expect.poll(shown).toBeGreaterThan(0);
  const full = await mean();
  await canvas.hover();
  await page.mouse.down();
  await expect(page.getByText('original', { exact: true })).toBeVisible();
  await expect.poll(mean).toBeLessThan(full - 0.02);
  const original = await mean();
  await page.mouse.up();
  await expect.poll(mean).toBeGreaterThan(full - 0.005);
  await page.getByLabel('Strength in percent, up to 400').fill('50');
  await page.keyboard.press('Enter');
  await expect.poll(mean).toBeLessThan(full - 0.01);
  expect(await mean()).toBeGreaterThan(original + 0.01);
  await page.getByLabel('Strength in percent, up to 400').fill('0');
  await page.keyboard.press('Enter');
  await expect.poll(async () => Math.abs((await mean()) - original)).toBeLessThan(0.002);
  await expect(page).toHaveURL(/strength=0/);
  expect(await canvas.evaluate((c) => (c as HTMLCanvasElement).width)).toBe(900);
});

test('a preset becomes a look that editors on stations really list, and all of it is undone', async () => {
  test.setTimeout(seconds(300)); // the whole job, with editors that start and agents that report
  const files = {
    'Prompt desk/Prompt Corner.xmp': oxbowOf({
      title: 'Prompt Corner',
      headings: ['Autumn II', 'Presets'],
      steps: [
        ['lamp', { stops: 0.4 }],
        ['spread', { by: 0.3 }],
        ['dye', { rich: 18 }],
        ['edge', { bite: 0.5 }],
        ['corners', { stops: -0.7 }],
      ],
    }),
  };
  await takeIn(page, 'Prompt desk', files, { shelf: 'Prompt desk' });
  let before: Record<string, string>[] = [];

  await test.step('converts a preset into a look: what goes in, what is left out, the residual, a draft that knows its source', async () => {
    await page.goto('/shelves?q=Prompt+Corner');
    await page.locator('[data-spine]').click();
    await page.getByRole('link', { name: 'Convert', exact: true }).click();
    await expect(page.getByRole('cell', { name: 'Level', exact: true })).toBeVisible();
    await expect(page.getByRole('row', { name: /Sharpening local looks at neighbouring pixels/ })).toBeVisible();
    await expect(page.getByRole('row', { name: /Vignette position depends on where a pixel lies/ })).toBeVisible();
    const largest = page.locator('dl.facts dd').nth(2);
    await expect(largest).toContainText('ΔE00');
    expect(parseFloat((await largest.textContent())!)).toBeLessThan(5);
    await page.getByLabel('Title of the look').fill('Prompt Corner Look');
    await page.getByRole('button', { name: 'Make the look' }).click();
    await expect(page.getByRole('heading', { name: 'Prompt Corner Look', level: 1 })).toBeVisible();
    await expect(page.getByText('made from preset version 1, by the recipe: looks, tables of 33 points')).toBeVisible();
    // what Etagere computed itself needs nobody to say what its values mean
    await page.getByRole('button', { name: 'Approve', exact: true }).click();
    await expect(page.getByRole('link', { name: 'Roll out' })).toBeVisible();
  });

  await test.step('starts Marlstone and Oxbow at the stations', async () => {
    for (const [station, editor] of [
      ['Glaze desk', 'marlstone@4'],
      ['Glaze desk', 'oxbow@2'],
      ['Model room', 'oxbow@2'],
    ] as const) {
      await page.goto('/stations');
      await page.getByRole('link', { name: station }).click();
      const row = page.locator(`[data-editor="${editor}"]`);
      await expect(row.getByRole('button').first()).toBeVisible();
      if (await row.getByRole('button', { name: 'Start' }).isVisible())
        await row.getByRole('button', { name: 'Start' }).click(); // another test may have
      await expect(row.getByRole('button', { name: 'Quit' })).toBeVisible();
    }
    await page.goto('/stations');
    await page.getByRole('link', { name: 'Glaze desk' }).click();
    await expect(page.locator('[data-editor="marlstone@4"]')).toContainText(
      'Marlstone reads looks only as .mlook; a .cube file is passed over',
    );
  });

  await test.step('rolls out to two stations and the card: exact files first, then the agents write and report', async () => {
    before = [tree(stationRoot('glaze-desk')), tree(stationRoot('model-room'))];
    await page.goto('/shelves?q=Prompt+Corner+Look');
    await page.locator('[data-spine]').click();
    await page.getByRole('link', { name: 'Roll out' }).click();
    for (const text of ['Glaze desk', 'Model room', 'Card, Perrin Alder'])
      await page.getByRole('checkbox', { name: text }).check();
    await page.getByRole('button', { name: 'Show every file' }).click();
    await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
    const desk = page.getByRole('region', { name: 'Glaze desk' });
    await expect(desk.locator('[data-path$="looks/Prompt Corner Look.mlook"]')).toHaveCount(2);
    await expect(desk.locator('[data-path="Oxbow/Looks/Autumn II/Presets/Prompt Corner Look.cube"]')).toContainText(
      '33 points',
    );
    await expect(
      page
        .getByRole('region', { name: 'Card, Perrin Alder' })
        .locator('[data-path="media/ALDER/LOOKS/Prompt_Corner_Look.cube"]'),
    ).toContainText('33 points');
    expect(tree(stationRoot('glaze-desk'))).toEqual(before[0]); // nothing before the confirmation
    await page.getByRole('button', { name: 'Confirm: write 6 files on 3 stations' }).click();
    await expect(page.getByText('6 of 6 files reported')).toBeVisible({ timeout: seconds(30) });
  });

  await test.step('Oxbow lists the look by itself, Marlstone only after a restart', async () => {
    const desk = page.getByRole('region', { name: 'Glaze desk' });
    await expect(desk.locator('[data-path$="Prompt Corner Look.cube"][data-state="listed"]')).toBeVisible({
      timeout: seconds(20),
    });
    await expect(desk.getByText('restart due for Marlstone 4')).toBeVisible();
    expect(listed('Glaze desk', 'marlstone@4').listed.map((l) => l.title)).not.toContain('Prompt Corner Look');
    await desk.getByText('restart due for Marlstone 4').click();
    const row = page.locator('[data-editor="marlstone@4"]');
    await expect(row).toContainText('restart due');
    await row.getByRole('button', { name: 'Restart' }).click();
    await expect(
      page.locator('[data-path$=".marlstone-4/looks/Prompt Corner Look.mlook"][data-state="listed"]'),
    ).toBeVisible({ timeout: seconds(20) });
    expect(listed('Glaze desk', 'marlstone@4').listed.map((l) => l.title)).toContain('Prompt Corner Look');
    expect(listed('Model room', 'oxbow@2').listed.map((l) => l.title)).toContain('Prompt Corner Look');
  });

  await test.step('the camera loads the look from its card', async () => {
    await page.goto('/stations');
    await page.getByRole('link', { name: 'Card, Perrin Alder' }).click();
    await page.locator('[data-editor="perrin-alder@1"]').getByRole('button', { name: 'Start' }).click();
    await expect(
      page.locator('[data-path="media/ALDER/LOOKS/Prompt_Corner_Look.cube"][data-state="listed"]'),
    ).toBeVisible({ timeout: seconds(20) });
    await expect(page.locator('[data-editor="perrin-alder@1"]')).toContainText(
      'a table of 17 points; the camera takes exactly 33',
    );
    expect(listed('Card, Perrin Alder', 'perrin-alder@1').listed.map((l) => l.title)).toEqual(['Prompt_Corner_Look']);
  });

  await test.step('undoes the rollout, and each station is as it was', async () => {
    await page.goto('/rollouts');
    await page.getByRole('link', { name: 'Prompt Corner Look' }).click();
    await page.getByRole('button', { name: 'Undo the rollout' }).click();
    await page.getByRole('button', { name: 'Take back 6 files on 3 stations' }).click();
    await expect(page.getByRole('heading', { name: 'Undo: Prompt Corner Look' })).toBeVisible();
    await expect(page.getByText('6 of 6 files reported')).toBeVisible({ timeout: seconds(30) });
    expect(tree(stationRoot('glaze-desk'))).toEqual(before[0]);
    expect(tree(stationRoot('model-room'))).toEqual(before[1]);
    await page.getByRole('link', { name: 'earlier rollout' }).click();
    await expect(page.getByText('undone').first()).toBeVisible();
  });
});
