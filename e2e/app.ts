/** What the browser tests share: signing in, the stations' folders, the stand-ins' own lists. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type APIResponse, type Page } from '@playwright/test';
import { data } from './setup';
import { seconds } from './patience';

interface Address {
  url: string;
  signIns: { name: string; email: string; role: string; password: string }[];
}
export const address = (): Address => JSON.parse(readFileSync(join(data, 'address.json'), 'utf8')) as Address;

export async function signIn(page: Page, role: 'librarian' | 'lead' | 'retoucher' = 'librarian'): Promise<void> {
  const who = address().signIns.find((s) => s.role === role)!;
  await page.goto('/');
  await page.getByLabel('E-mail address').fill(who.email);
  await page.getByLabel('Password').fill(who.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Shelves', level: 1 })).toBeVisible({ timeout: seconds(20) });
}

/** Until the page has nothing left to do on its own. */
export const idle = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((done) => {
        const atRest = () => requestIdleCallback(() => done(), { timeout: 2000 });
        // twice: what is done when idle may ask for more
        requestIdleCallback(atRest, { timeout: 2000 });
      }),
  );

/** Until the page answers to keys and clicks: its frame has come alive, and so has each control in it. */
export async function awake(page: Page): Promise<void> {
  await page.locator('html[data-awake]').waitFor();
  await page.locator('main h1').first().waitFor();
  await page.waitForFunction(() =>
    // React leaves a mark on what it has taken over from the server
    [...document.querySelectorAll('main :is(button, input, select, textarea)')].every((control) =>
      Object.keys(control).some((key) => key.startsWith('__reactProps')),
    ),
  );
  await idle(page);
}

export const origin = () => ({ origin: address().url });
const json = async (answer: APIResponse): Promise<Record<string, unknown>> => {
  expect(answer.status(), await answer.text()).toBe(200);
  return (await answer.json()) as Record<string, unknown>;
};

/** Files brought in by the endpoints that the screen uses, to be settled; the arrival that they make. */
export async function deliver({ request }: Page, name: string, files: Record<string, string>): Promise<string> {
  const headers = origin();
  const texts = Object.entries(files);
  const begun = await json(
    await request.post('/api/uploads', {
      data: { name, files: texts.map(([path, text]) => ({ path, size: Buffer.byteLength(text) })) },
      headers,
    }),
  );
  for (const [place, { id }] of (begun.files as { id: string }[]).entries()) {
    const bytes = Buffer.from(texts[place]![1]);
    await json(await request.put(`/api/uploads/${id}?offset=0`, { data: bytes, headers }));
    await json(await request.post(`/api/uploads/${id}`, { headers }));
  }
  return begun.arrival as string;
}

/** Files taken in by the endpoints that the screen uses, onto a new shelf; the way for what a test needs beforehand. */
export async function takeIn(
  page: Page,
  name: string,
  files: Record<string, string>,
  about: { shelf: string; supplier?: string },
): Promise<void> {
  const arrival = await deliver(page, name, files);
  const accept = () =>
    page.request.post(`/api/arrivals/${arrival}`, {
      data: { newShelf: about.shelf, supplier: about.supplier ?? '' },
      headers: origin(),
    });
  // it is refused for as long as it is being read
  await expect.poll(async () => (await accept()).status(), { timeout: seconds(30) }).toBe(200);
}

/** A conversion of some presets of the demo, planned and not started. */
export async function aConversion({ request }: Page): Promise<string> {
  const { rows } = await json(await request.get('/api/items?kind=preset&limit=3'));
  const items = (rows as { id: string }[]).map(({ id }) => id);
  return (await json(await request.post('/api/conversions', { data: { items }, headers: origin() }))).id as string;
}

/** A chart of 17 points for an editor that nobody knows. */
export async function aChart({ request }: Page, what = 'Velour'): Promise<string> {
  const data = { editor: 'Quern 3', what, size: 17 };
  return (await json(await request.post('/api/editor-charts', { data, headers: origin() }))).id as string;
}

export const stationRoot = (slug: string): string => join(data, 'stations', slug, 'root');

/** Every file and folder below a root with its hash, but for what the editors and agent write themselves. */
export function tree(root: string): Record<string, string> {
  const out: Record<string, string> = {};
  const walk = (at: string): void => {
    if (!existsSync(at)) return;
    for (const name of readdirSync(at)) {
      const full = join(at, name);
      const path = full.slice(root.length + 1);
      if (
        /(contents\.json|catalogue\.json|refused\.log|CAMERA\.JSN|REFUSED\.TXT|\.config|\.config\/oxbow|Application Support\/Oxbow)(\.new)?$/.test(
          path,
        )
      )
        continue;
      if (statSync(full).isDirectory()) {
        out[`${path}/`] = '';
        walk(full);
      } else out[path] = createHash('sha256').update(readFileSync(full)).digest('hex');
    }
  };
  walk(root);
  return out;
}

/** What a stand-in lists and refuses, asked through the command line. */
export function listed(
  station: string,
  editor: string,
): { listed: { path: string; title: string }[]; refused: { path: string; reason: string }[]; favorites: string[] } {
  return JSON.parse(
    execFileSync('bin/etagere', ['station', 'list', station, editor, '--json'], {
      env: { ...process.env, ETAGERE_DATA: data },
      encoding: 'utf8',
    }),
  ) as never;
}

/** Process ids whose command line has all the words. */
export const pids = (...words: string[]): number[] =>
  readdirSync('/proc')
    .filter((n) => /^\d+$/.test(n))
    .filter((name) => {
      try {
        const character = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        return words.every((w) => character.includes(w));
      } catch {
        return false;
      }
    })
    .map(Number);

export async function planFor(page: Page, title: string, stations: string[]): Promise<void> {
  await page.goto(`/shelves?q=${encodeURIComponent(title)}`);
  await page.locator('[data-spine]').first().click();
  await page.getByRole('link', { name: 'Roll out' }).click();
  for (const s of stations) await page.getByRole('checkbox', { name: s }).check();
  await page.getByRole('button', { name: 'Show every file' }).click();
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  await page.locator('[data-path]').first().waitFor();
}
