/** A camera file of 24 megapixels: its preview, and the bench at 1:1. Needs a running application of the bench's own data folder. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { linearPreview, readDng, writeDng } from '@/core/frame/dng';
import { cameraFrame, cameraFrames } from '@/demo/cameras/frames';
import { believed } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { getBlob, putBlob } from '@/server/blobs/service';
import { pool, transaction } from '@/server/db/pool';
import { factsOfFrame, frameFromFile } from '@/server/frames/service';
import { actorOf } from '@/server/people/roles';
import { launch, signedIn, type Address } from './browser';
import { librarian } from './library';
import { median, type Row } from './rows';
import { many } from '@/server/db/query';

const WIDTH = 6000;
const HEIGHT = 4000;

/** The demo's vessels, repeated to 24 megapixels. */
async function bring(): Promise<{ id: string; sha: Buffer }> {
  const frame = cameraFrames[0]!;
  const small = readDng((await cameraFrame(frame)).dng);
  const mosaic = new Uint16Array(WIDTH * HEIGHT);
  const w = small.width - (small.width & 1);
  const h = small.height - (small.height & 1);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) mosaic[y * WIDTH + x] = small.samples[(y % h) * small.width + (x % w)]!;
  const bytes = writeDng({
    width: WIDTH,
    height: HEIGHT,
    cfa: [0, 1, 1, 2],
    mosaic,
    black: small.black[0]!,
    white: small.white[0]!,
    neutral: small.neutral,
    maker: frame.camera.maker,
    model: frame.camera.model,
    unique: frame.camera.unique,
    serial: 'bench',
    lens: 'Perrin 50 mm f/2',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(believed(frame.camera), null, 'Embedded'),
    jpeg: null,
  });
  const person = await librarian();
  return transaction(async (sql) => {
    const sha = await putBlob(sql, bytes);
    return {
      sha,
      id: await frameFromFile(sql, actorOf(person), {
        name: 'Bench, 24 megapixels',
        fileName: 'bench.dng',
        sha,
        facts: factsOfFrame(bytes),
      }),
    };
  });
}

/** Resident memory of the page's process, in MB. */
async function memoryOf(page: Page): Promise<number> {
  const cdp = await page.context().browser()!.newBrowserCDPSession();
  const { processInfo } = (await cdp.send('SystemInfo.getProcessInfo')) as {
    processInfo: { type: string; id: number }[];
  };
  return Math.max(
    ...processInfo
      .filter((x) => x.type === 'renderer')
      .map((x) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${x.id}/status`, 'utf8'))?.[1] ?? 0) / 1000),
  );
}

/** Milliseconds from the key for 1:1 to the first part of the picture painted. */
const firstPart = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((done) => {
        const from = performance.now();
        const look = (): void => {
          if (Number(document.querySelector<HTMLElement>('canvas[data-sharp]')?.dataset.drawn ?? 0) > 0)
            done(performance.now() - from);
          else requestAnimationFrame(look);
        };
        document
          .querySelector('[role=dialog]')!
          .dispatchEvent(new KeyboardEvent('keydown', { key: '1', bubbles: true }));
        look();
      }),
  );

/** Frames a second, and the longest of them in ms, while the picture is moved under the hand. */
async function drawnAcross(page: Page): Promise<{ rate: number; worst: number }> {
  // drawn by the hand: 200 steps across parts that are not there yet
  const frames = page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const times: number[] = [];
        const step = (t: number): void => {
          times.push(t);
          if ((window as unknown as { rests?: boolean }).rests) done(times);
          else requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
  );
  const where = (): Promise<string> =>
    page
      .locator('[data-large] canvas[role=img]')
      .first()
      .evaluate((c) => (c as HTMLElement).style.transform);
  const before = await where();
  await page.mouse.move(1000, 600);
  await page.mouse.down();
  for (let i = 0; i < 200; i++) await page.mouse.move(1000 - i * 4, 600 - i * 2);
  await page.mouse.up();
  await page.evaluate(() => {
    (window as unknown as { rests?: boolean }).rests = true;
  });
  if ((await where()) === before) throw new Error('the picture did not move');
  const loaded = await frames;
  const gaps = loaded.slice(1).map((t, i) => t - loaded[i]!);
  const rate = (1000 * gaps.length) / gaps.reduce((a, b) => a + b, 0);
  const worst = Math.max(...gaps);
  return { rate, worst };
}

export async function largeFrameRows(address: Address): Promise<Row[]> {
  const { id, sha } = await bring();
  const previews: number[] = [];
  for (let i = 0; i < 3; i++) {
    const began = performance.now();
    linearPreview(readDng(new Uint8Array(await getBlob(sha))), 1600);
    previews.push(performance.now() - began);
  }
  const looks = (
    await many<{ id: string }>(
      pool(),
      `
        select i.newest_version_id as id
        from item i join shelf s on s.id = i.shelf_id
        where s.name = 'House looks'
        order by i.shelf_order
        limit 2
      `,
    )
  ).map((r) => r.id);
  const browser = await launch();
  const firsts: number[] = [];
  try {
    const page = await signedIn(browser, address);
    const at = `/bench?${new URLSearchParams({ rows: id, cols: ['none', ...looks.map((l) => `l:${l}:100`)].join('~') }).toString()}`;
    for (let i = 0; i < 3; i++) {
      await page.goto(at);
      await page.locator('[data-cell] canvas[data-shown]').nth(2).waitFor();
      await page.locator('[data-cell]').nth(1).focus();
      await page.keyboard.press('Enter');
      await page.locator('[data-large] canvas[data-shown]').nth(1).waitFor();
      await page.waitForTimeout(1500);
      firsts.push(await firstPart(page));
      await page.waitForTimeout(1500);
    }
    const { rate, worst } = await drawnAcross(page);
    const megabytes = await memoryOf(page);
    return [
      {
        name: 'a mosaic of 24 megapixels, from its stored chunks to a linear preview of 1,600 px',
        figure: median(previews),
        unit: 'ms',
        target: 1500,
      },
      {
        name: '1:1 of 24 megapixels, two side by side, to the first part painted',
        figure: median(firsts),
        unit: 'ms',
        target: 300,
        note: `slowest of ${firsts.length}: ${Math.max(...firsts).toFixed(0)} ms; unpacked before, when the frame was enlarged`,
      },
      {
        name: 'time of a frame while it is drawn across',
        figure: 1000 / rate,
        unit: 'ms',
        target: 1000 / 30,
        note: `${rate.toFixed(1)} frames a second, longest ${worst.toFixed(0)} ms`,
      },
      { name: 'memory of the page’s process by then', figure: megabytes, unit: 'MB', target: 700 },
    ];
  } finally {
    await browser.close();
  }
}
