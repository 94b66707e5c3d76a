/** A hundred people at once on the pages of a library, and one alone: with whole pages, and as browsers ask from page to page. */
import { Agent, get } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { pool } from '@/server/db/pool';
import { many, one } from '@/server/db/query';
import { atFullSpeed } from './full-speed';
import { median, type Row } from './rows';

interface Application {
  url: string;
  signIns: { email: string; password: string }[];
}

type Headers = Readonly<Record<string, string>>;

interface Request {
  address: string;
  headers: Headers;
}

/** How a page is asked for. */
type Asking = (page: string) => Request;

const quantile = (times: number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.ceil(times.length * share) - 1] ?? NaN;

/**
 * Takes an answer to its last byte, as a browser is sent it, and does nothing with it: whoever asks runs on the processors of
 * the server here, which the people of a studio do not.
 */
const taken = (agent: Agent, address: string, headers: Headers): Promise<number> =>
  new Promise((done, failed) => {
    const asked = get(address, { agent, headers }, (response) => {
      response.on('error', failed);
      response.on('end', () => done(response.statusCode ?? 0));
      response.resume();
    });
    asked.on('error', failed);
  });

/** The cookie of a session. */
async function signedIn(url: string, { email, password }: { email: string; password: string }): Promise<string> {
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { origin: url, 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return (answer.headers.get('set-cookie') ?? '').split(';')[0]!;
}

const asWhole =
  (cookie: string): Asking =>
  (page) => ({ address: page, headers: { cookie, 'accept-encoding': 'gzip' } });

/** What a browser says that shows the activity: it has the frame of all screens already. The last is Next's mark of a root. */
const SHOWN = ['', { children: ['(app)', { children: ['activity', { children: ['__PAGE__', {}] }] }] }, null, null, 16];

/**
 * How browsers ask from one page for the next: not for a document, but for what is new of it. The address bears a sum of
 * the headers; whoever gives another is sent to the right one, which is the same for all pages.
 */
async function fromPageToPage(url: string, cookie: string): Promise<Asking> {
  const whole = asWhole(cookie);
  const part = { rsc: '1', 'next-router-state-tree': encodeURIComponent(JSON.stringify(SHOWN)) };
  const told = await fetch(`${url}/rollouts?_rsc`, { redirect: 'manual', headers: { cookie, ...part } });
  const sum = /[?&]_rsc=([^&]+)/.exec(told.headers.get('location') ?? '')?.[1];
  if (!sum) throw new Error(`no address for a part of a page: ${told.status}`);
  return (page) => {
    const { address, headers } = whole(page);
    // Next sends what is no page elsewhere when it is asked for in parts
    if (page.startsWith('/api/')) return { address, headers };
    return { address: `${address}${page.includes('?') ? '&' : '?'}_rsc=${sum}`, headers: { ...headers, ...part } };
  };
}

/** Before what is measured. */
const WARM_SECONDS = 15;
const ALONE = 80;
const PAUSE_ALONE_MS = 5;
const MOST_TRIES = 5;

/** The eight kinds of pages and answers that people ask for, one after the other. */
const pageOf = (items: readonly string[], k: number): string =>
  [
    '/shelves',
    `/items/${items[k % items.length]!}`,
    '/api/search?q=kiln',
    '/shelves?q=amber',
    `/items/${items[(k * 7) % items.length]!}`,
    '/rollouts',
    '/intake',
    '/api/search/spines?kind=look',
  ][k % 8]!;

/** People who ask one page after the other without a pause. */
class People {
  /** how often an answer was none, by its status */
  readonly refused = new Map<number, number>();
  readonly #agent: Agent;

  constructor(
    private readonly url: string,
    private readonly items: readonly string[],
    private readonly asking: Asking,
    private readonly count: number,
  ) {
    this.#agent = new Agent({ keepAlive: true, maxSockets: count });
  }

  /** @returns how long it took, in ms */
  async ask(page: string): Promise<number> {
    const began = performance.now();
    const { address, headers } = this.asking(page);
    const status = await taken(this.#agent, this.url + address, headers);
    if (status !== 200) this.refused.set(status, (this.refused.get(status) ?? 0) + 1);
    return performance.now() - began;
  }

  /** @returns how long each answer took, in ms */
  async together(seconds: number): Promise<number[]> {
    const times: number[] = [];
    const until = Date.now() + seconds * 1000;
    const client = async (_: unknown, c: number): Promise<void> => {
      for (let k = c; Date.now() < until; k++) times.push(await this.ask(pageOf(this.items, k)));
    };
    await Promise.all(Array.from({ length: this.count }, client));
    return times;
  }

  async alone(): Promise<number[]> {
    const times: number[] = [];
    for (let k = 0; k < ALONE; k++) {
      times.push(await this.ask(pageOf(this.items, k)));
      await wait(PAUSE_ALONE_MS);
    }
    return times;
  }

  leave(): void {
    this.#agent.destroy();
  }
}

/** @param names of what is measured: together, and alone */
async function rowsOf(people: People, seconds: number, names: { together: string; alone: string }): Promise<Row[]> {
  // a server that has just started runs code that the engine has not compiled yet
  await people.together(WARM_SECONDS);
  const alone = await atFullSpeed(() => people.alone());
  const { measured: times, tries, words } = await atFullSpeed(() => people.together(seconds), MOST_TRIES);
  const all = tries.map(({ measured }) => (quantile(measured, 0.95) / 1000).toFixed(2)).join(', ');
  people.leave();
  return [
    {
      name: `${names.together}, 95 % of answers within`,
      figure: quantile(times, 0.95) / 1000,
      unit: 's',
      target: 1.5,
      note: `${(times.length / seconds).toFixed(0)} answers a second; all tries ${all} s; ${words}`,
    },
    {
      name: 'answers among them that were none',
      figure: [...people.refused.values()].reduce((sum, count) => sum + count, 0),
      unit: '',
      target: 0,
      note: [...people.refused].map(([status, count]) => `${count} × ${status}`).join(', '),
    },
    {
      name: `${names.alone}, half of its pages within`,
      figure: median(alone.measured),
      unit: 'ms',
      target: 20,
      note: alone.words,
    },
  ];
}

export async function clientRows({ url, signIns }: Application, clients = 100, seconds = 60): Promise<Row[]> {
  const cookie = await signedIn(url, signIns[0]!);
  const rows = await many<{ id: string }>(
    pool(),
    'select id from item where archived_at is null and merged_into is null limit 200',
  );
  const { n } = await one<{ n: number }>(pool(), 'select count(*)::int as n from item where archived_at is null');
  const items = rows.map(({ id }) => id);
  const whole = new People(url, items, asWhole(cookie), clients);
  // the items of a library in use have been looked at before: what is worked out of them once is there
  for (const id of items) await whole.ask(`/items/${id}`);
  const within = new People(url, items, await fromPageToPage(url, cookie), clients);
  const what = `${clients} clients over ${n.toLocaleString('en')} items for ${seconds} s, two web processes`;
  return [
    ...(await rowsOf(whole, seconds, { together: what, alone: 'one client alone' })),
    ...(await rowsOf(within, seconds, {
      together: `${clients} browsers that go from page to page`,
      alone: 'one browser that goes from page to page',
    })),
  ];
}
