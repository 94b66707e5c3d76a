/** For test files that share a process: what one of them has put in the place of something is gone before the next. */
import { afterAll, vi } from 'vitest';

afterAll(() => {
  vi.restoreAllMocks();
  vi.unstubAllEnvs();
  vi.unstubAllGlobals();
});
