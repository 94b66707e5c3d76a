import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const at = (p: string) => fileURLToPath(new URL(p, import.meta.url));
const resolve = { alias: { '@': at('.'), 'server-only': at('./tools/empty.mjs') } };
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
      {
        resolve,
        test: {
          name: 'screens',
          environment: 'happy-dom',
          include: ['ui/**/*.test.tsx'],
          setupFiles: ['ui/testing/setup.ts'],
          testTimeout: 15_000,
        },
      },
      { resolve, test: { name: 'agent', environment: 'node', include: ['agent/**/*.test.ts'], testTimeout: 60_000 } },
      {
        resolve,
        test: {
          name: 'server',
          environment: 'node',
          isolate: false,
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/db/testing/setup.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
