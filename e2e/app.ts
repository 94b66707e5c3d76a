/** What the browser tests share: signing in, the stations' folders, the stand-ins' own lists. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { data } from './setup';

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
  await expect(page.getByRole('heading', { name: 'Shelves', level: 1 })).toBeVisible({ timeout: 20_000 });
}

/** Until the page answers to keys and clicks: its frame has come alive, and a moment more for what is in it. */
export async function awake(page: Page): Promise<void> {
  await page.locator('html[data-awake]').waitFor();
  await page.waitForTimeout(400);
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
): { listed: { path: string; title: string }[]; refused: { path: string; reason: string }[] } {
  return JSON.parse(
    execFileSync('bin/etagere', ['station', 'list', station, editor, '--json'], {
      env: { ...process.env, ETAGERE_DATA: data },
      encoding: 'utf8',
    }),
  ) as never;
}
