/** What the browser feels: the repaint after a change of strength, and the weight of the shelves screen. Needs a running application. */
import { cpus } from 'node:os';
import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type Locator, type Page } from '@playwright/test';
import { median, type Row } from './rows';

export interface Address {
  url: string;
  signIns: { email: string; role: string; password: string }[];
}

export const launch = () =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
/** A page of the librarian's. */
export async function signedIn(browser: Browser, address: Address): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: address.url });
  const who = address.signIns.find((s) => s.role === 'librarian')!;
  await context.request.post('/api/session', { data: { email: who.email, password: who.password } });
  return context.newPage();
}

/** From a spine that is pointed at to its effect on the frame, cold: each spine for the first time. */
async function hoverRow(page: Page): Promise<Row> {
  await page.goto('/shelves');
  await page.locator('canvas[data-shown]').waitFor();
  const spines = await page.locator('[data-spine][aria-label*=", look,"], [data-spine][aria-label*=", preset,"]').all();
  const times: number[] = [];
  for (const locator of spines.slice(1, 25)) {
    const before = await page.locator('canvas').first().getAttribute('data-shown');
    await page.mouse.move(700, 70); // a pointer at rest, under which the page is scrolled, points at nothing
    await locator.hover();
    await page.waitForFunction((b) => document.querySelector('canvas')!.dataset.shown !== b, before);
    times.push(Number(await page.locator('canvas').first().getAttribute('data-repaint')));
  }
  return {
    name: 'a spine pointed at for the first time to its effect painted',
    figure: median(times),
    unit: 'ms',
    target: 60,
    note: `slowest of ${times.length}: ${Math.max(...times).toFixed(0)} ms`,
  };
}

interface Timed {
  painted: number;
  began: number;
}

/** Begins to time: from the next input in the search box until what is looked at has changed and is painted. */
const timeNextLetter = (page: Page, lookedAt: string): Promise<void> =>
  page.evaluate((selector) => {
    const timed = window as unknown as Timed;
    timed.painted = 0;
    document.querySelector('[role="search"] input')!.addEventListener(
      'input',
      () => {
        timed.began = performance.now();
      },
      { once: true },
    );
    const seen = new MutationObserver(() => {
      // the letter itself is no answer
      if (!document.querySelector(selector)) return;
      seen.disconnect();
      requestAnimationFrame(() => {
        const messageChannel = new MessageChannel();
        messageChannel.port1.onmessage = () => {
          timed.painted = performance.now() - timed.began;
        };
        messageChannel.port2.postMessage(0);
      });
    });
    const root = document.querySelector(selector) ?? document.querySelector('[role="search"]')!;
    seen.observe(root, { subtree: true, childList: true, characterData: true });
  }, lookedAt);

/** Milliseconds from each of some letters typed until what is looked at is painted anew: beginnings of titles, and digits that leave another list. */
async function typedLetters(page: Page, box: Locator, lookedAt: string): Promise<number[]> {
  const typed: number[] = [];
  for (const [word, letters] of [
    ['amber glaze ', '12'],
    ['slate kiln ', '34'],
    ['raku wash ', '56'],
    ['cobalt cue ', '78'],
  ] as const) {
    await box.fill(word);
    await page.waitForTimeout(900);
    for (const letter of letters) {
      await timeNextLetter(page, lookedAt);
      await box.press(letter);
      const ms = await page
        .waitForFunction(() => (window as unknown as Timed).painted, undefined, { timeout: 4000 })
        .then((h) => h.jsonValue())
        .catch(() => 0);
      if (ms) typed.push(ms);
      await page.waitForTimeout(500);
    }
  }
  return typed;
}

async function lettersOnShelves(page: Page): Promise<number[]> {
  await page.goto('/shelves');
  await page.locator('canvas[data-shown]').waitFor();
  await page.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => {});
  // the count above the list changes with the list itself
  return typedLetters(page, page.getByRole('searchbox', { name: 'Find items' }), '#main');
}

async function lettersElsewhere(page: Page): Promise<number[]> {
  await page.goto('/stations');
  await page.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => {});
  const box = page.getByRole('combobox', { name: 'Find items' });
  await box.focus();
  return typedLetters(page, box, '[role="search"] [role="listbox"]');
}

/** Milliseconds from a click on a spine to its picture painted on the item's page, for items that were not opened before. */
async function firstPictures(page: Page): Promise<number[]> {
  const times: number[] = [];
  for (let n = 1; n <= 9; n++) {
    await page.goto('/shelves');
    await page.locator('canvas[data-shown]').waitFor();
    await page.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => {});
    await page.evaluate(() => {
      const timed = window as unknown as Timed;
      timed.painted = 0;
      const look = () => {
        const there = location.pathname.startsWith('/items/') && document.querySelector('main canvas[data-shown]');
        if (there) timed.painted = performance.now() - timed.began;
        else requestAnimationFrame(look);
      };
      const begin = () => {
        timed.began = performance.now();
        requestAnimationFrame(look);
      };
      document.addEventListener('click', begin, { once: true, capture: true });
    });
    await page.locator('[data-spine][aria-label*=", look,"]').nth(n).click();
    const ms = await page
      .waitForFunction(() => (window as unknown as Timed).painted, undefined, { timeout: 8000 })
      .then((h) => h.jsonValue());
    times.push(ms);
  }
  return times;
}

/** Frames a second, and the longest of them in ms, while a shelf of ten thousand is scrolled. */
async function scrolledShelf(page: Page): Promise<{ rate: number; worst: number }> {
  await page.goto('/shelves');
  await page.getByRole('link', { name: 'The long shelf' }).first().click();
  await page.locator('[data-long-shelf]').waitFor();
  await page.waitForTimeout(1500);
  // a frame late by more than half its time is a dropped one
  return page.evaluate(async () => {
    const at: number[] = [];
    let y = 0;
    await new Promise<void>((done) => {
      const step = (t: number) => {
        at.push(t);
        y += 40;
        window.scrollTo(0, y);
        if (at.length < 300) requestAnimationFrame(step);
        else done();
      };
      requestAnimationFrame(step);
    });
    const gaps = at.slice(1).map((t, i) => t - at[i]!);
    return { rate: 1000 / (gaps.reduce((a, b) => a + b, 0) / gaps.length), worst: Math.max(...gaps) };
  });
}

/** With a large catalogue: from a letter typed to the list painted, and scrolling a shelf of ten thousand. */
export async function largeRows(address: Address): Promise<Row[]> {
  const browser = await launch();
  try {
    const page = await signedIn(browser, address);
    const typed = await lettersOnShelves(page);
    const suggested = await lettersElsewhere(page);
    const frames = await scrolledShelf(page);
    return [
      {
        name: 'a letter typed to the list painted, 100,000 items',
        figure: median(typed),
        unit: 'ms',
        target: 150,
        note: `${typed.length} letters, slowest ${Math.max(...typed).toFixed(0)} ms`,
      },
      {
        name: 'a letter typed on another screen to suggestions painted, 100,000 items',
        figure: median(suggested),
        unit: 'ms',
        target: 150,
        note: `${suggested.length} letters, slowest ${Math.max(...suggested).toFixed(0)} ms`,
      },
      {
        name: 'time of a frame while a shelf of 10,000 is scrolled',
        figure: 1000 / frames.rate,
        unit: 'ms',
        target: 1000 / 59,
        note: `${frames.rate.toFixed(1)} frames a second, longest ${frames.worst.toFixed(0)} ms`,
      },
    ];
  } finally {
    await browser.close();
  }
}

/** The bench: six frames under eight looks, cold, until the last cell is painted; and a change of strength in one column. */
async function benchRows(page: Page): Promise<Row[]> {
  await page.goto('/bench');
  await page.getByRole('button', { name: /^Every camera/ }).click();
  await page.locator('[data-row]').first().waitFor();
  const rows = new URL(page.url()).searchParams.get('rows')!;
  await page.getByRole('button', { name: 'Candidates' }).click();
  await page.getByRole('menuitem', { name: 'All on House looks' }).click();
  await page.locator('[data-column]').nth(8).waitFor();
  const cols = new URL(page.url()).searchParams.get('cols')!.split('~').slice(1, 9);
  const extra = (await (await page.request.get('/studio')).text())
    .match(/api\/frames\/([0-9a-f-]{36})/g)!
    .map((m) => m.slice(11))
    .find((id) => !rows.includes(id))!;
  const address = `/bench?${new URLSearchParams({ rows: `${rows}~${extra}`, cols: cols.join('~') }).toString()}`;
  const cold: number[] = [];
  for (let i = 0; i < 3; i++) {
    // another page has no workers and no pictures yet
    const fresh = await page.context().newPage();
    await fresh.goto(address);
    cold.push(
      await fresh.evaluate(
        () =>
          new Promise<number>((done) => {
            const from = performance.now();
            const look = (): void => {
              const elements = [...document.querySelectorAll('[data-cell]')];
              if (
                elements.length === 48 &&
                elements.every(
                  (element) =>
                    (element.querySelector('canvas') as HTMLElement | null)?.dataset.shown ||
                    element.querySelector('[role=alert]'),
                )
              )
                done(performance.now() - from);
              else requestAnimationFrame(look);
            };
            look();
          }),
      ),
    );
    if (i === 2) {
      const strength = fresh.getByLabel(/^Strength of .* in percent/).first();
      const canvas = fresh.locator('[data-cell$="/0"] canvas').first();
      const times: number[] = [];
      for (let k = 0; k < 12; k++) {
        const before = await canvas.getAttribute('data-shown');
        await strength.fill(String(40 + k * 5));
        await strength.press('Enter');
        await fresh.waitForFunction(
          (b) => (document.querySelector('[data-cell$="/0"] canvas') as HTMLElement).dataset.shown !== b,
          before,
        );
        await fresh.waitForTimeout(120);
        if (k > 2) times.push(Number(await canvas.getAttribute('data-repaint')));
      }
      await fresh.close();
      return [
        {
          name: 'the bench, 6 × 8 cells at 320 px, cold, until the last is painted',
          figure: median(cold),
          unit: 'ms',
          target: 1000,
          note: `from the page being there; slowest of ${cold.length}: ${Math.max(...cold).toFixed(0)} ms`,
        },
        {
          name: 'the bench, a change of strength to its first cell painted',
          figure: median(times),
          unit: 'ms',
          target: 50,
          note: `slowest of ${times.length}: ${Math.max(...times).toFixed(0)} ms`,
        },
      ];
    }
    await fresh.close();
  }
  return [];
}

/** Time that the machine's processors have spent, and idled, in milliseconds. */
function processorTimes(): { all: number; idle: number } {
  const times = cpus().map(({ times: one }) => one);
  const sum = (values: number[]) => values.reduce((total, value) => total + value, 0);
  return { all: sum(times.map((one) => sum(Object.values(one)))), idle: sum(times.map(({ idle }) => idle)) };
}

/** The demo's agents and editors are at work for a while after its first start; screens are measured when they rest. */
async function untilQuiet(): Promise<void> {
  const QUIET = 0.9;
  const MOST_ROUNDS = 60;
  let rested = 0;
  for (let round = 0; round < MOST_ROUNDS && rested < 2; round++) {
    const before = processorTimes();
    await new Promise((done) => setTimeout(done, 2000));
    const after = processorTimes();
    rested = (after.idle - before.idle) / (after.all - before.all) > QUIET ? rested + 1 : 0;
  }
}

export async function browserRows(address: Address): Promise<Row[]> {
  await untilQuiet();
  const browser = await launch();
  try {
    const page = await signedIn(browser, address);
    const scripts = new Map<string, number>();
    page.on('response', (response) => {
      if (response.request().resourceType() === 'script' || /\.js(\?|$)/.test(response.url()))
        void response
          .body()
          .then((b) => scripts.set(response.url(), gzipSync(b).length))
          .catch(() => {});
    });
    await page.goto('/shelves');
    await page.locator('canvas[data-shown]').waitFor();
    await page.waitForLoadState('networkidle', { timeout: 3000 }).catch(() => {});
    const weight = [...scripts.values()].reduce((a, b) => a + b, 0) / 1000;
    await page.locator('[data-spine]').first().click();
    const canvas = page.locator('canvas').first();
    await page.locator('canvas[data-shown]').waitFor();
    const times: number[] = [];
    for (let i = 0; i < 24; i++) {
      const before = await canvas.getAttribute('data-shown');
      const strength = page.getByLabel('Strength in percent, up to 400');
      await strength.fill(String(40 + i * 3));
      await strength.press('Enter');
      await page.waitForFunction((b) => document.querySelector('canvas')!.dataset.shown !== b, before);
      if (i >= 4) times.push(Number(await canvas.getAttribute('data-repaint')));
    }
    const hover = await hoverRow(page);
    const pictures = await firstPictures(page);
    return [
      ...(await benchRows(page)),
      hover,
      {
        name: 'a spine clicked to its picture painted on the item page',
        figure: median(pictures),
        unit: 'ms',
        target: 400,
        note: `slowest of ${pictures.length}: ${Math.max(...pictures).toFixed(0)} ms`,
      },
      {
        name: 'preview repaint after a change of strength, 900 px',
        figure: median(times),
        unit: 'ms',
        target: 50,
        note: `slowest of ${times.length}: ${Math.max(...times).toFixed(0)} ms`,
      },
      {
        name: 'JavaScript of the shelves screen, gzip',
        figure: weight,
        unit: 'kB',
        target: 250,
        note: `${scripts.size} files`,
      },
    ];
  } finally {
    await browser.close();
  }
}
