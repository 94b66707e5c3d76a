import { defineConfig } from '@playwright/test';
import { seconds } from './e2e/patience.ts';

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'e2e/.out',
  timeout: seconds(90),
  expect: { timeout: seconds(5) },
  workers: 1,
  // a second try is in a studio of its own: tools/browser-tests.mjs
  retries: 0,
  // when a setting of the studio stays wrong, every later test waits to its end: enough is known after a few
  maxFailures: process.env.CI ? 5 : 0,
  forbidOnly: !!process.env.CI,
  globalSetup: './e2e/setup.ts',
  // what walks every route with what comes to its mind changes settings of the studio: it comes last
  projects: [
    { name: 'work', testIgnore: 'routes.spec.ts' },
    { name: 'routes', testMatch: 'routes.spec.ts' },
  ],
  reporter: [['list'], ['json', { outputFile: process.env.ETAGERE_E2E_REPORT ?? 'e2e/.out/results.json' }]],
  use: {
    // what hangs is told by its own line, long before the test's time is over
    actionTimeout: seconds(30),
    navigationTimeout: seconds(40),
    baseURL: 'http://127.0.0.1:4399',
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
