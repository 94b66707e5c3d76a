/** A server for components in tests: answers by method and path, and keeps what it was asked. */
import { vi } from 'vitest';

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}
/** An answer that is a problem, with the status under which it comes. */
export const refusal = (problem: Record<string, unknown>, status = 422) =>
  new Response(JSON.stringify({ error: problem }), { status });

/** @param answers by "GET /api/items/1"; a function answers by what it was asked */
export function serve(answers: Record<string, unknown>): Asked[] {
  const all: Asked[] = [];
  vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
    const method = init?.method ?? 'GET';
    const body: unknown = typeof init?.body === 'string' ? JSON.parse(init.body) : (init?.body ?? null);
    const asked = { method, path, body };
    all.push(asked);
    const key = `${method} ${path}`;
    if (!(key in answers))
      return refusal({ code: 'not-found', message: `nothing answers ${key}`, where: path, remedy: '' }, 404);
    const answer = answers[key];
    const value = typeof answer === 'function' ? (answer as (asked: Asked) => unknown)(asked) : answer;
    return value instanceof Response ? value : new Response(JSON.stringify(value ?? {}));
  });
  return all;
}
