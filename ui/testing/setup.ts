/** Components in tests: the router stands still, and what one test drew is gone before the next. */
import { cleanup, configure } from '@testing-library/react';
import { afterEach, vi } from 'vitest';

export const router = { push: vi.fn(), refresh: vi.fn(), replace: vi.fn() };

vi.mock('next/navigation', () => ({
  useRouter: () => router,
  usePathname: () => location.pathname,
  useSearchParams: () => new URLSearchParams(location.search),
}));

// what is to come is waited for longer than on a machine with nothing else to do
configure({ asyncUtilTimeout: 5000 });

/** Screens follow the server's events; in tests nothing comes, unless a test has a stream of its own. */
class SilentStream {
  close(): void {}
}
(globalThis as { EventSource?: unknown }).EventSource ??= SilentStream;

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  for (const spy of Object.values(router)) spy.mockReset();
});
