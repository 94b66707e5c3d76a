/** Every route there is, found on the disk: closed to whoever is not signed in, and not to be brought down by nonsense. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { APIRequestContext } from '@playwright/test';
import { endpoints } from '@/core/api';
import { address } from './app';
import { data } from './setup';
import type { Schema } from 'yup';
import { nearlyRight, plausibleBody } from './nonsense';
import { expect, nobody, test } from './test';
import { seconds } from './patience';

const files = (at: string, name = 'route.ts'): string[] =>
  readdirSync(at, { withFileTypes: true }).flatMap((dirent) => {
    if (dirent.isDirectory()) return files(join(at, dirent.name), name);
    if (dirent.name === name) return [join(at, dirent.name)];
    return [];
  });
const routes = files('app/api').flatMap((file) =>
  [...readFileSync(file, 'utf8').matchAll(/export (?:const|async function) (GET|POST|PUT|PATCH|DELETE)/g)].map(
    (match) => ({
      method: match[1]!,
      path: file.slice(3, -'/route.ts'.length),
    }),
  ),
);
/** Open by design: the door itself, and stations, which have a token of their own. */
const open = (path: string) => ['/api/session', '/api/join'].includes(path) || path.startsWith('/api/agent/');
/** Answers without a session too, but only in a studio without people. */
const first = (path: string) => path === '/api/people';
/** Would sign us out, never ends, or gives the whole database. */
const left = (route: { method: string; path: string }) =>
  (route.method === 'DELETE' && route.path === '/api/session') ||
  route.path === '/api/live' ||
  route.path === '/api/backup';
const nowhere = '01a210e5-4862-76ff-8bf1-cca38cebf5bd';
const filled = (path: string, id: string) => path.replace('[...path]', id).replace(/\[\w+\]/g, id);

async function send(
  context: APIRequestContext,
  method: string,
  url: string,
  data?: string,
): Promise<{ status: number; text: string }> {
  const answer = await context.fetch(url, {
    method,
    ...(method === 'GET' || data === undefined ? {} : { data, headers: { 'content-type': 'application/json' } }),
    maxRedirects: 0,
    // a connection that lay idle may be closed just as it is taken up again
    maxRetries: 2,
  });
  return { status: answer.status(), text: answer.status() < 400 ? '' : await answer.text() };
}
test('there are routes to walk', () => {
  expect(routes.length).toBeGreaterThan(60);
});

test('without a session each is closed, whatever it is asked', async ({ playwright }) => {
  const plain = await playwright.request.newContext({ baseURL: address().url, storageState: nobody });
  const let_in: string[] = [];
  for (const route of routes.filter((x) => !open(x.path))) {
    const { status } = await send(plain, route.method, filled(route.path, nowhere), '{}');
    if (status !== (first(route.path) ? 403 : 401)) let_in.push(`${route.method} ${route.path}: ${status}`);
  }
  expect(let_in).toEqual([]);
  for (const one of routes.filter((x) => x.path.startsWith('/api/agent/')))
    expect((await send(plain, one.method, filled(one.path, 'plan'), '{}')).status).toBe(401);
  await plain.dispose();
});

test('nonsense is refused with what to do, by every route, and never with an incident', async ({ request }) => {
  test.setTimeout(seconds(240));
  const wrong: string[] = [];
  const bodies = [
    '{}',
    '[]',
    'null',
    '7',
    '"x"',
    '{"',
    '{"name":{},"items":"x","entries":{"a":1},"versions":7,"frames":[null],"state":[],"title":9e99}',
    `{"name":"${'x'.repeat(5000)}","items":["' or 1=1"],"ribbons":[1e30],"shelves":[-1],"look":"\\u0000"}`,
  ];
  const ids = [nowhere, 'nonsense', '%00', '-1', '9'.repeat(40)];
  const queries = [
    '',
    '?w=-1&q=%00&sort=x&x=NaN&y=1e99&after=x&limit=-5&offset=1e30&id=x&ids=x&item=x&frames=x&frame=x&version=x&size=0',
  ];
  const attempts = routes
    .filter((route) => !left(route))
    .flatMap((route) =>
      (route.path.includes('[') ? ids : ['']).flatMap((id) => {
        const to = { method: route.method, path: filled(route.path, id) };
        if (route.method === 'GET') return queries.map((query) => ({ ...to, path: to.path + query, sent: '' }));
        const all = id === nowhere || !id ? bodies : bodies.slice(0, 1);
        return all.map((sent) => ({ ...to, sent }));
      }),
    );
  for (const { method, path, sent } of attempts) {
    const { status, text } = await send(request, method, path, sent);
    const asked = `${method} ${path} ${sent.slice(0, 60)}`;
    if (status >= 500) wrong.push(`${asked}: ${status} ${text.slice(0, 160)}`);
    else if (status >= 400 && status !== 404 && status !== 405) {
      const error = (JSON.parse(text || '{}') as { error?: Record<string, string> }).error;
      if (!error?.code || !error.message || !error.remedy)
        wrong.push(`${asked}: ${status} says no remedy: ${text.slice(0, 120)}`);
    }
  }
  expect(wrong).toEqual([]);
  expect(attempts.length).toBeGreaterThan(600);
});

/** Does it with each, a few at once. */
async function throughSome<T>(all: Iterable<T>, act: (one: T) => Promise<void>, atOnce = 4): Promise<void> {
  const left = [...all];
  const lane = async (): Promise<void> => {
    for (let one = left.shift(); one !== undefined; one = left.shift()) await act(one);
  };
  await Promise.all(Array.from({ length: atOnce }, lane));
}

/** Plain fetch, with the cookie of whoever is signed in: thousands of requests cost the browser's own client minutes. */
function plainly(cookie: string): (method: string, path: string, data: string) => Promise<Response> {
  const { url } = address();
  const headers = { 'content-type': 'application/json', origin: url, cookie };
  const once = (method: string, path: string, body: string) =>
    fetch(url + path, { method, body, headers, redirect: 'manual' });
  return (method, path, body) =>
    once(method, path, body).catch((error: unknown) => {
      // a connection that lay idle may be closed just as it is taken up again; whether the server lived is looked at in the end
      if ((error as { cause?: { code?: string } }).cause?.code !== 'ECONNRESET') throw error;
      return once(method, path, body);
    });
}

/** Which process answers: another one after the walk means that something brought it down. */
const webProcess = (): number | undefined =>
  (JSON.parse(readFileSync(join(data, 'running-children.json'), 'utf8')) as { name: string; pid: number }[]).find(
    ({ name }) => name === 'web',
  )?.pid;

test('one field after the other filled with nonsense: no endpoint breaks over any', async ({ context }) => {
  test.setTimeout(seconds(600));
  const wrong: string[] = [];
  let asked = 0;
  const answering = webProcess();
  const cookies = await context.cookies();
  const ask = plainly(cookies.map(({ name, value }) => `${name}=${value}`).join('; '));
  for (const [name, { body }] of Object.entries(endpoints)) {
    const [method = '', path = ''] = name.split(' ');
    if (method === 'GET' || left({ method, path }) || first(path)) continue;
    await throughSome(nearlyRight(body), async (sent) => {
      const answer = await ask(method, path.replace(/:\w+/, nowhere), sent);
      const text = await answer.text();
      asked++;
      // gathered, and looked at once: thousands of expectations cost more than the answers
      if (answer.status === 401 || answer.status >= 500)
        wrong.push(`${name} ${sent.slice(0, 200)}: ${answer.status} ${text.slice(0, 160)}`);
    });
  }
  expect(wrong).toEqual([]);
  expect(asked).toBeGreaterThan(1500);
  expect(webProcess()).toBe(answering);
  expect(answering).toBeGreaterThan(0);
});

/** The endpoint that a route answers, as core/api names it: `[id]` is `:id` there. */
const nameOf = ({ method, path }: { method: string; path: string }): string =>
  `${method} ${path.replace(/\[\.{3}\w+\]/g, ':path').replace(/\[(\w+)\]/g, ':$1')}`;
const table = JSON.parse(readFileSync('e2e/roles.json', 'utf8')) as Record<string, string[]>;
const roles = ['librarian', 'lead', 'retoucher'] as const;

test('each route is open to the roles that its table names, and to no other', async ({ playwright }) => {
  test.setTimeout(seconds(240));
  const found: Record<string, string[]> = {};
  for (const role of roles) {
    const { email, password } = address().signIns.find((one) => one.role === role)!;
    const context = await playwright.request.newContext({ baseURL: address().url, storageState: nobody });
    await context.post('/api/session', { data: { email, password } });
    for (const route of routes) {
      if (left(route) || open(route.path) || first(route.path)) continue;
      const name = nameOf(route);
      const body = (endpoints as Record<string, { body?: Schema } | undefined>)[name]?.body;
      const sent = body ? JSON.stringify(plausibleBody(body)) : '{}';
      const { text } = await send(context, route.method, filled(route.path, nowhere), sent);
      const code = text.startsWith('{') ? (JSON.parse(text) as { error?: { code?: string } }).error?.code : undefined;
      found[name] ??= [];
      if (code !== 'not-allowed') found[name].push(role);
    }
    await context.dispose();
  }
  // a new route is put into the table on purpose: who may use it is a decision
  expect(found).toEqual(table);
  expect(Object.values(found).filter((may) => !may.includes('retoucher')).length).toBeGreaterThan(40);
});

test('headers that make no sense are refused or passed over', async ({ request }) => {
  for (const origin of ['null', 'nonsense', 'http://', 'file://', 'http://elsewhere.example']) {
    const answer = await request.post('/api/items/seen', { data: '{}', headers: { origin } });
    expect(answer.status(), origin).toBe(403);
  }
  const strange = {
    cookie: 'etagere=%00; etagere=',
    range: 'bytes=9-1',
    'if-none-match': '"',
    'x-forwarded-host': 'a b',
  };
  for (const [header, value] of Object.entries(strange))
    expect((await request.get('/api/shelves', { headers: { [header]: value } })).status(), header).toBeLessThan(500);
  // by which a browser asks for a part of a page
  for (const header of ['next-router-state-tree', 'next-router-prefetch', 'next-router-segment-prefetch', 'next-url'])
    for (const value of ['x', '%', '["",{}', '[["a","b"],{}]', 'a'.repeat(9000)])
      for (const page of ['/shelves', '/nowhere', '/_next/image?url=x']) {
        const answer = await request.get(page, { headers: { rsc: '1', [header]: value } });
        expect(answer.status(), `${page}, ${header}: ${value.slice(0, 20)}`).toBeLessThan(500);
      }
});

test('every screen opens whatever its address says, or says that nothing stands there', async ({ request }) => {
  test.setTimeout(seconds(240));
  const screens = files('app/(app)', 'page.tsx').map((f) => f.slice('app/(app)'.length, -'/page.tsx'.length));
  const wrong: string[] = [];
  const query =
    '?q=%00&kind=x|y&sort=x&view=x&shelf=x&frame=x&strength=x&older=x&newer=-1&group=x&rows=x~~y&cols=~!~&ref=99&mark=x&set=x&from=x&items=x&versions=x&stations=x&subject=x&who=x&after=x&page=-3&limit=1e99';
  expect(screens.length).toBeGreaterThan(10);
  for (const screen of screens) {
    for (const id of screen.includes('[') ? [nowhere, 'nonsense', '%00'] : ['']) {
      for (const search of ['', query, query.replace('%00', 'x'.repeat(3000))]) {
        // a fault while a page streams leaves its number in it; what Next itself throws (nothing here, go elsewhere) begins with its name
        const answer = await request.get(filled(screen, id) + search);
        const text = await answer.text();
        const fault = /(?:data-dgst="|digest\\*":\\*")(?!NEXT_)\w+/.exec(text)?.[0] ?? '';
        if (answer.status() >= 500 || fault)
          wrong.push(`${filled(screen, id)}${search.slice(0, 30)}: ${answer.status()} ${fault}`);
      }
    }
  }
  expect(wrong).toEqual([]);
});
