/** A preset against what its editor exported: the editor's own pictures beside ours, with the difference. */
import sharp from 'sharp';
import { applyPreset } from '../core/preset/apply';
import { oxbowPreset } from '../core/preset/testing';
import { takeIn } from './app';
import { expect, test } from './test';
import { seconds } from './patience';

const [width, height] = [360, 240];
/** Even ramps of many colors, RGBA. */
const photo = (): Uint8ClampedArray => {
  const out = new Uint8ClampedArray(width * height * 4);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) out.set([(255 * x) / width, (255 * y) / height, 128, 255], i);
  return out;
};
const png = (pixels: Uint8ClampedArray, size = { width, height }) =>
  sharp(Buffer.from(pixels), { raw: { width, height, channels: 4 } })
    .resize(size.width, size.height)
    .png()
    .toBuffer();
const given = (name: string, buffer: Buffer) => ({ name, mimeType: 'image/png', buffer });

test('the export of an editor that does what we render is near; of one that does more it is not, and of another size it is refused', async ({
  page,
}) => {
  test.setTimeout(seconds(90));
  // far from the levels of other tests: presets of nearly one effect are copies
  const level = -1.13;
  const title = 'Shutter';
  const text = oxbowPreset(`<rdf:li run:step="lamp" run:stops="${level}"/>`, { title });
  await takeIn(page, title, { [`${title}.xmp`]: text }, { shelf: 'Exports' });
  await page.goto(`/shelves?q=${encodeURIComponent(title)}`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Convert', exact: true }).click();
  await page.getByRole('link', { name: 'Compare it with an export of the editor' }).click();
  await expect(page.getByText('Open a photo in Oxbow 2')).toBeVisible();

  const before = photo();
  const under = (level: number) => {
    const out = new Uint8ClampedArray(before.length);
    applyPreset({ settings: { level }, look: null }, 1, before, out);
    return out;
  };
  await page
    .getByLabel('The export without it', { exact: true })
    .setInputFiles(given('without.png', await png(before)));
  await page
    .getByLabel('The export with it', { exact: true })
    .setInputFiles(given('with.png', await png(under(level))));
  const result = page.getByRole('region', { name: 'What came of it' });
  await expect(result).toContainText(/here against there\s*ΔE00 mean 0\.0\d/, { timeout: seconds(20) });
  for (const words of ['Oxbow 2, without', 'Oxbow 2, with', 'Here, with it', 'Difference'])
    await expect(result.getByRole('img', { name: new RegExp(words) }).first()).toBeVisible();

  await page
    .getByLabel('The export with it', { exact: true })
    .setInputFiles(given('more.png', await png(under(level + 1))));
  await expect(result).toContainText(/here against there\s*ΔE00 mean [5-9]|here against there\s*ΔE00 mean \d\d/, {
    timeout: seconds(20),
  });
  await page
    .getByLabel('The export with it', { exact: true })
    .setInputFiles(given('small.png', await png(under(level), { width: 180, height: 120 })));
  await expect(page.getByText(/of different sizes: 360 × 240 and 180 × 120 pixels/)).toBeVisible({
    timeout: seconds(20),
  });
});
