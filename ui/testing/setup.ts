/**
 * Components in tests: the router stands still, and what one test drew, stubbed or went to is gone before the next, in
 * whichever file that stands: a process loads the modules once for all of them.
 */
import { onlineManager } from '@tanstack/react-query';
import { cleanup, configure } from '@testing-library/react';
import { afterEach, vi, type Mock } from 'vitest';

/**
 * One for all files of a process: what a component imports as `next/navigation` is made once, while this file is read
 * again for each.
 */
const kept = globalThis as { routerOfTests?: { push: Mock; refresh: Mock; replace: Mock } };
export const router = (kept.routerOfTests ??= { push: vi.fn(), refresh: vi.fn(), replace: vi.fn() });

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
  // what a test drew by hand goes as well
  document.body.replaceChildren();
  vi.unstubAllGlobals();
  history.replaceState(null, '', '/');
  onlineManager.setOnline(true);
  vi.restoreAllMocks();
  for (const spy of Object.values(router)) spy.mockReset();
});
