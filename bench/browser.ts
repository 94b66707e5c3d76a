/** What the browser feels: the repaint after a change of strength, and the weight of the shelves screen. Needs a running application. */
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { median, type Row } from './rows';

export interface Address { url: string; signIns: { email: string; role: string; password: string }[] }

export async function browserRows(address: Address): Promise<Row[]> {
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: address.url }), who = address.signIns.find((s) => s.role === 'librarian')!;
    await context.request.post('/api/session', { data: { email: who.email, password: who.password } });
    const page = await context.newPage(), scripts = new Map<string, number>();
    page.on('response', (r) => { if (r.request().resourceType() === 'script' || /\.js(\?|$)/.test(r.url())) void r.body().then((b) => scripts.set(r.url(), gzipSync(b).length)).catch(() => {}); });
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
      await page.getByLabel('Strength in percent, up to 400').fill(String(40 + i * 3));
      await page.waitForFunction((b) => document.querySelector('canvas')!.dataset.shown !== b, before);
      if (i >= 4) times.push(Number(await canvas.getAttribute('data-repaint')));
    }
    return [
      { name: 'preview repaint after a change of strength, 900 px', figure: median(times), unit: 'ms', target: 50, note: `slowest of ${times.length}: ${Math.max(...times).toFixed(0)} ms` },
      { name: 'JavaScript of the shelves screen, gzip', figure: weight, unit: 'kB', target: 250, note: `${scripts.size} files` },
    ];
  } finally { await browser.close(); }
}
