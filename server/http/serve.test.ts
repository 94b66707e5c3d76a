import { readdirSync, readFileSync } from 'node:fs';
import { log } from '../log';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { endpoints } from '@/core/api';
import { must } from '@/core/must';

vi.mock('next/headers', () => ({
  headers: async () => new Headers({ host: 'etagere', origin: 'http://etagere' }),
  cookies: async () => ({ get: () => ({ value: 'token' }) }),
}));
vi.mock('next/navigation', () => ({ redirect: vi.fn() }));
vi.mock('../people/service', () => ({
  personOf: async () => ({ id: 'x', name: 'Odile', email: 'odile@wrenandtallow.example', role: 'librarian' }),
  anyone: async () => true,
}));

const { serve } = await import('./index');
const id = '0198c0de-0000-7000-8000-000000000001';
const context = { params: Promise.resolve({ id }) };
const post = (body: string) => new Request('http://etagere/api/x?label=kiln', { method: 'POST', body });

beforeEach(() => {
  vi.stubEnv('ETAGERE_CHECK_ANSWERS', '1');
  vi.spyOn(log, 'error').mockImplementation(() => {});
});
afterEach(() => {
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
});

describe('an endpoint', () => {
  test('hands on who asks, what is sent, the identifier and the query', async () => {
    const work = vi.fn(async () => ({ id }));
    const answer = await serve('POST /api/rollouts/:id', work)(post('{"verb":"drop"}'), context);
    expect(await answer.json()).toEqual({ id });
    expect(work).toHaveBeenCalledWith(
      expect.objectContaining({
        id,
        body: { verb: 'drop' },
        person: expect.objectContaining({ name: 'Odile' }) as unknown,
      }),
    );
  });

  test('stands also where the path has no place to fill', async () => {
    const plan = serve('POST /api/rollouts', async ({ id: place }) => ({ id: place || id }));
    expect((await plan(post('{}'), { params: Promise.resolve(undefined) })).status).toBe(200);
  });

  test('leaves a body alone that is no JSON', async () => {
    const take = serve('POST /api/frames/:id/exports', async ({ request, query }) => {
      expect(await request.text()).toBe('the picture');
      expect(query.get('label')).toBe('kiln');
      return { id };
    });
    expect((await take(post('the picture'), context)).status).toBe(200);
  });

  test('answers with an empty object where nothing comes back, and sends times as text', async () => {
    expect(await (await serve('DELETE /api/jobs/:id', async () => {})(post(''), context)).json()).toEqual({});
    const at = new Date(0);
    const event = { id: 1, at, actor: 'Odile', subject: 'item', subject_id: id, action: 'made' };
    const answer = await serve('GET /api/events', async () => ({ events: [event], moment: '1:1:' }))(post(''), context);
    expect(await answer.json()).toMatchObject({ events: [{ at: '1970-01-01T00:00:00.000Z' }] });
  });

  test.each([
    ['a field too many', { id, secret: 'of ours' }],
    ['a field too few', {}],
    ['another kind of value', { id: 7 }],
  ])('of which the answer has %s is a bug where answers are checked, as in tests', async (_, answer) => {
    const answering = serve('POST /api/rollouts', async () => answer as { id: string });
    expect((await answering(post('{}'), context)).status).toBe(500);
    vi.stubEnv('ETAGERE_CHECK_ANSWERS', '');
    expect((await answering(post('{}'), context)).status).toBe(200);
  });
});

describe('the routes', () => {
  const at = join(import.meta.dirname, '../../app/api');
  const files = readdirSync(at, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('route.ts'));
  const served = files.flatMap((file) => {
    const path = `/api/${file.replace(/\/route\.ts$/, '').replaceAll(/\[(\w+)\]/g, ':$1')}`;
    const text = readFileSync(join(at, file), 'utf8');
    return [...text.matchAll(/export const (\w+) = serve\(\s*'([^']+)'/g)].map((match) => ({
      here: `${must(match[1])} ${path}`,
      name: must(match[2]),
    }));
  });

  test('stand where their endpoints say', () => {
    for (const { here, name } of served) expect(name).toBe(here);
  });

  test('answer each endpoint once', () => {
    // these are asked by people who are not signed in
    const open = ['POST /api/session', 'DELETE /api/session', 'POST /api/people', 'POST /api/join'];
    // these answer with a file
    const filed = ['POST /api/stations/:id/carried'];
    expect([...served.map(({ name }) => name), ...open, ...filed].sort()).toEqual(Object.keys(endpoints).sort());
  });
});
