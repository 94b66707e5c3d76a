// bin/shot PATH OUT.png [--theme dark] [--width 1280] [--height 800] [--as email] [--wait selector]: a picture of a screen of the running application.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { chromium } from '@playwright/test';
import { dataFolder } from './checkout.mjs';

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: {
    theme: { type: 'string' },
    width: { type: 'string' },
    height: { type: 'string' },
    as: { type: 'string' },
    wait: { type: 'string' },
    full: { type: 'boolean' },
    do: { type: 'string', multiple: true },
  },
});
const [path = '/shelves', out = 'shot.png'] = positionals;
const { url, signIns } = JSON.parse(readFileSync(join(dataFolder(), 'address.json'), 'utf8'));
const who = signIns.find((s) => s.email.startsWith(values.as ?? '') || s.role === values.as) ?? signIns[0];
const browser = await chromium.launch({
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
const context = await browser.newContext({
  viewport: { width: Number(values.width ?? 1280), height: Number(values.height ?? 800) },
  baseURL: url,
});
const page = await context.newPage();
page.on('console', (m) => {
  if (m.type() === 'error') console.error('console:', m.text());
});
page.on('pageerror', (e) => console.error('page:', e.message));
if (values.theme === 'dark') await context.addCookies([{ name: 'theme', value: 'dark', url }]);
if (values.as !== 'nobody' && who)
  await context.request.post('/api/session', { data: { email: who.email, password: who.password } });
await page.goto(path, { waitUntil: 'load' });
for (const step of values.do ?? []) {
  const [verb, ...rest] = step.split(' ');
  const arg = rest.join(' ');
  if (verb === 'click') await page.locator(arg).first().click();
  else if (verb === 'wait') await page.waitForTimeout(Number(arg));
  else if (verb === 'key') await page.keyboard.press(arg);
}
if (values.wait) await page.locator(values.wait).first().waitFor();
await page
  .waitForFunction(() => [...document.querySelectorAll('canvas')].every((c) => c.dataset.shown), null, {
    timeout: 8000,
  })
  .catch(() => {});
await page.waitForTimeout(400);
await page.screenshot({ path: out, fullPage: !!values.full });
await browser.close();
