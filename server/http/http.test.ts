import { beforeEach, describe, expect, test, vi } from 'vitest';
import { log } from '../log';
import { Problem } from '@/core/problem';
import { problemResponse } from './problem-response';

const asked = vi.hoisted(() => ({
  headers: new Headers(),
  person: null as { id: string; name: string; email: string; role: string } | null,
}));
vi.mock('next/headers', () => ({
  headers: async () => asked.headers,
  cookies: async () => ({ get: () => ({ value: 'token' }) }),
}));
vi.mock('next/navigation', () => ({ redirect: vi.fn() }));
vi.mock('../people/service', () => ({ personOf: async () => asked.person, anyone: async () => true }));

const { body, bytesOf, route } = await import('./index');

const odile = { id: 'x', name: 'Odile', email: 'odile@wrenandtallow.example', role: 'librarian' };
const post = (content: BodyInit, url = 'http://etagere/api/items') =>
  new Request(url, { method: 'POST', body: content });
const answerOf = async (response: Response) => ({ status: response.status, json: (await response.json()) as unknown });
const codeOf = (json: unknown) => (json as { error: { code: string } }).error.code;

beforeEach(() => {
  asked.headers = new Headers({ host: 'etagere', origin: 'http://etagere' });
  asked.person = odile;
});

describe('a route', () => {
  const echo = route(async (person) => ({ by: person.name }));

  test('answers whoever is signed in, as JSON', async () =>
    expect(await answerOf(await echo(post('{}'), undefined))).toEqual({ status: 200, json: { by: 'Odile' } }));

  test('refuses whoever is not, and says that nothing is lost', async () => {
    asked.person = null;
    const { status, json } = await answerOf(await echo(post('{}'), undefined));
    expect([status, codeOf(json)]).toEqual([401, 'sign-in-needed']);
  });

  test.each([
    ['another origin', { origin: 'http://elsewhere' }],
    ['a cross-site request', { 'sec-fetch-site': 'cross-site' }],
  ])('refuses %s where something would change, and not where it is only read', async (_, headers) => {
    asked.headers = new Headers({ host: 'etagere', ...headers });
    expect((await echo(post('{}'), undefined)).status).toBe(403);
    expect((await echo(new Request('http://etagere/api/items'), undefined)).status).toBe(200);
  });

  test.each(['nonsense', '1', '0198c0de-0000-7000-8000-00000000000'])('an id of %s is nowhere', async (id) =>
    expect((await echo(post('{}'), { params: Promise.resolve({ id }) } as never)).status).toBe(404),
  );

  test('a Problem reaches the screen as it is, anything else under a number', async () => {
    const said = vi.spyOn(log, 'error').mockImplementation(() => {});
    const refused = route(async () => {
      throw new Problem('status', 'It is approved already.', 'Ash', 'Reload the page.');
    });
    expect(await answerOf(await refused(post('{}'), undefined))).toMatchObject({
      status: 422,
      json: { error: { code: 'status', remedy: 'Reload the page.' } },
    });
    const broken = route(async () => {
      throw new TypeError('a secret of ours');
    });
    const { status, json } = await answerOf(await broken(post('{}'), undefined));
    expect(status).toBe(500);
    expect(JSON.stringify(json)).not.toContain('secret');
    const { where } = (json as { error: { where: string } }).error;
    expect(said.mock.calls[0]?.[0]).toMatchObject({ incident: where.replace('incident ', '') });
  });
});

describe('a body', () => {
  test('is an object of JSON, without zero characters', async () => {
    expect(await body(post('{"title":"A\\u0000sh"}'))).toEqual({ title: 'A\ufffdsh' });
    expect(await body(post(''))).toEqual({});
    for (const text of ['[]', 'null', '"x"', '{'])
      await expect(body(post(text))).rejects.toMatchObject({ code: 'input-invalid' });
  });

  test('has a limit, which its headers may tell and cannot widen', async () => {
    const long = `{"x":"${'y'.repeat(3000)}"}`;
    const refused = { code: 'body-limit', message: 'At most 2 kB are taken here at once.' };
    await expect(body(post(long), 2048)).rejects.toMatchObject(refused);
    await expect(bytesOf(post(new Uint8Array(3000)), 2048)).rejects.toMatchObject(refused);
    expect(await bytesOf(post(new Uint8Array([1, 2, 3])), 100)).toEqual(new Uint8Array([1, 2, 3]));
    expect(problemResponse(await body(post(long), 10).catch((error: unknown) => error)).status).toBe(413);
  });

  test('that says how large it is is refused before any of it is read', async () => {
    let asked = 0;
    const stream = new ReadableStream({
      pull(controller) {
        asked++;
        controller.enqueue(new Uint8Array(1 << 16));
      },
    });
    const request = new Request('http://etagere/api/items', {
      method: 'POST',
      body: stream,
      headers: { 'content-length': '400000000' },
      duplex: 'half',
    } as RequestInit);
    await expect(body(request)).rejects.toMatchObject({ code: 'body-limit' });
    // a stream has one piece ready before anybody asks
    expect(asked).toBeLessThanOrEqual(1);
  });

  test('that goes on and on is given up at the limit, and its sender is told to stop', async () => {
    let sent = 0;
    let stopped = false;
    const stream = new ReadableStream({
      pull(controller) {
        sent += 1 << 16;
        controller.enqueue(new Uint8Array(1 << 16));
      },
      cancel() {
        stopped = true;
      },
    });
    const request = new Request('http://etagere/api/items', {
      method: 'POST',
      body: stream,
      duplex: 'half',
    } as RequestInit);
    await expect(body(request, 1 << 20)).rejects.toMatchObject({ code: 'body-limit' });
    expect(stopped).toBe(true);
    expect(sent).toBeLessThan(3 << 20);
  });
});
