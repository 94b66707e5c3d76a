import { describe, expect, test } from 'vitest';
import { join } from 'node:path';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { v7 } from 'uuid';
import { cpSync } from 'node:fs';
import { withDatabase } from './db/testing/database';
import { transaction } from './db/pool';
import { isReady } from './db/ready';
import { addJob, runJob } from './jobs/service';
import { metricsText, observeRequest, routeOf } from './metrics';

withDatabase();

describe('routes in figures', () => {
  test.each([
    [`/api/items/${v7()}`, '/api/items/:id'],
    [`/api/versions/${v7()}/table`, '/api/versions/:id/table'],
    [`/items/${v7()}`, '/items/:id'],
    [`/api/agent/content/${'a'.repeat(64)}`, '/api/agent/content/:hash'],
    ['/shelves', '/shelves'],
    ['/_next/static/chunks/x.js', '/_next'],
    ['/wp-login.php', 'other'],
    ['/../../etc/passwd', 'other'],
  ])('%s is %s', (path, route) => {
    expect(routeOf(path)).toBe(route);
  });
  test('are few, whatever is asked', () => {
    const routes = new Set(Array.from({ length: 500 }, () => routeOf(`/${v7()}/${v7()}`)));
    expect(routes.size).toBe(1);
  });
});

describe('figures', () => {
  const valueOf = (text: string, name: string): number =>
    Number(new RegExp(`^${name.replace(/[{}"]/g, '\\$&')} (\\S+)$`, 'm').exec(text)?.[1]);
  test('tell requests, jobs, the queue and the database', async () => {
    const before = await metricsText();
    expect(before).toMatch(/^# TYPE etagere_request_seconds histogram$/m);
    expect([valueOf(before, 'etagere_database_up'), valueOf(before, 'etagere_jobs_waiting')]).toEqual([1, 0]);
    observeRequest('GET', `/items/${v7()}`, 200, 0.2);
    observeRequest('GET', `/nothing/like/that`, 404, 0.01);
    const [waits, runs] = [await job(), await job()];
    await runJob(runs, { test: async () => null });
    const after = await metricsText();
    // other tests of this process have counted too
    const since = (name: string): number => valueOf(after, name) - (valueOf(before, name) || 0);
    expect(since('etagere_requests_total{method="GET",route="/items/:id",status="200"}')).toBe(1);
    expect(since('etagere_requests_total{method="GET",route="none",status="404"}')).toBe(1);
    expect(since('etagere_jobs_total{kind="test",outcome="done"}')).toBe(1);
    expect(valueOf(after, 'etagere_jobs_waiting')).toBe(1);
    expect(valueOf(after, 'etagere_queue_age_seconds')).toBeGreaterThan(0);
    await runJob(waits, { test: async () => null });
  });
});
const job = () => transaction((sql) => addJob(sql, 'test', 'A test', {}, null));

test('the database is ready when it has every table that this version needs', async () => {
  expect(await isReady()).toBeNull();
  const folder = join(mkdtempSync(join(tmpdir(), 'etagere-ready-')), 'migrations');
  cpSync('db/migrations', folder, { recursive: true });
  writeFileSync(join(folder, '9999_later.sql'), 'select 1;');
  expect(await isReady(folder)).toContain('lacks 9999_later');
});
