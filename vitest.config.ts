import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const at = (p: string) => fileURLToPath(new URL(p, import.meta.url));
const resolve = { alias: { '@': at('.'), 'server-only': at('./tools/empty.mjs') } };
/** They put modules of ours in the place of others, which nobody else may be given. */
const apart = ['server/http/http.test.ts', 'server/http/serve.test.ts'];
const screensApart = ['ui/workshop/workshop.test.tsx', 'ui/item/WillItShow.test.tsx'];
const screens = {
  environment: 'happy-dom',
  // a link that is followed would leave an empty window for whatever comes after
  environmentOptions: {
    happyDOM: { settings: { navigation: { disableMainFrameNavigation: true, disableFallbackToSetURL: true } } },
  },
  setupFiles: ['ui/testing/setup.ts'],
  testTimeout: 15_000,
};
export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        resolve,
        test: {
          name: 'core',
          environment: 'node',
          // a process loads the modules once for all of its files: what they keep is true for every test
          isolate: false,
          setupFiles: ['server/db/testing/shared.ts'],
          testTimeout: 30_000,
          include: [
            'core/**/*.test.ts',
            'cli/**/*.test.ts',
            'ui/**/*.test.ts',
            'standins/**/*.test.ts',
            'demo/**/*.test.ts',
            'tools/**/*.test.ts',
            'processes/**/*.test.ts',
          ],
        },
      },
      { resolve, test: { name: 'apart', environment: 'node', include: apart, testTimeout: 30_000 } },
      {
        resolve,
        test: { ...screens, name: 'screens', isolate: false, include: ['ui/**/*.test.tsx'], exclude: screensApart },
      },
      { resolve, test: { ...screens, name: 'screens apart', include: screensApart } },
      { resolve, test: { name: 'agent', environment: 'node', include: ['agent/**/*.test.ts'], testTimeout: 60_000 } },
      {
        resolve,
        test: {
          name: 'server',
          environment: 'node',
          isolate: false,
          setupFiles: ['server/db/testing/shared.ts'],
          include: ['server/**/*.test.ts'],
          exclude: apart,
          globalSetup: ['server/db/testing/setup.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
