/** The browser tests' own `test`: each has a page of its own, signed in, whose console stays without a fault. */
import { test as base, expect, type BrowserContext, type Page } from '@playwright/test';
import { address } from './app';

export { expect } from '@playwright/test';
export type { Page } from '@playwright/test';

type Role = 'librarian' | 'lead' | 'retoucher';
type Session = Awaited<ReturnType<BrowserContext['storageState']>>;

interface OfTest {
  /** What the console may say, where a test breaks something itself. */ expectedFault: RegExp | null;
  /** A page of another person's, beside the test's own. */ pageOf: (role: Role) => Promise<Page>;
}
interface OfWorker {
  /** Sessions by role, each signed in once. */ sessionOf: (role: Role) => Promise<Session>;
}

/** Nobody is signed in: for `test.use({ storageState: nobody })`. */
export const nobody: Session = { cookies: [], origins: [] };

/** What a page says that a person would never see. */
function faultsOf(page: Page): string[] {
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  page.on('console', (message) => {
    // refusals are part of what is tested
    if (message.type() === 'error' && !/status of 4\d\d/.test(message.text())) faults.push(message.text());
  });
  return faults;
}

export const test = base.extend<OfTest, OfWorker>({
  sessionOf: [
    async ({ playwright }, hand) => {
      const known = new Map<Role, Promise<Session>>();
      const signIn = async (role: Role): Promise<Session> => {
        const { url, signIns } = address();
        const person = signIns.find((one) => one.role === role);
        const request = await playwright.request.newContext({ baseURL: url });
        const answer = await request.post('/api/session', {
          data: { email: person?.email, password: person?.password },
        });
        expect(answer.status()).toBe(200);
        const state = await request.storageState();
        await request.dispose();
        return state;
      };
      await hand((role) => {
        const session = known.get(role) ?? signIn(role);
        known.set(role, session);
        return session;
      });
    },
    { scope: 'worker' },
  ],

  storageState: async ({ sessionOf }, hand) => hand(await sessionOf('librarian')),

  expectedFault: [null, { option: true }],

  page: async ({ page, expectedFault }, hand) => {
    const faults = faultsOf(page);
    await hand(page);
    expect(faults.filter((fault) => !expectedFault?.test(fault))).toEqual([]);
  },

  pageOf: async ({ browser, sessionOf }, hand) => {
    const open: BrowserContext[] = [];
    await hand(async (role) => {
      const context = await browser.newContext({ storageState: await sessionOf(role) });
      open.push(context);
      return context.newPage();
    });
    for (const context of open) await context.close();
  },
});
