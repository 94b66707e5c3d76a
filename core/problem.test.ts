import { expect, test, vi } from 'vitest';
import { orNull, Problem } from './problem';

test('a problem is one whichever copy of the module made it; another error is none', async () => {
  vi.resetModules();
  const other = await import('./problem');
  expect(other.Problem).not.toBe(Problem);
  const problem = new other.Problem('code', 'What happened.', 'where', 'What to do.');
  expect(problem instanceof Problem).toBe(true);
  expect(await orNull(Promise.reject(problem))).toBeNull();
  class Own extends Problem {}
  expect([problem instanceof Own, new Own('c', 'm', 'w', 'r') instanceof Own]).toEqual([false, true]);
  for (const none of [new Error('x'), null, undefined, 'x', { code: 'code' }])
    expect(none instanceof Problem).toBe(false);
  await expect(orNull(Promise.reject(new Error('a bug')))).rejects.toThrow('a bug');
  expect(JSON.parse(JSON.stringify(problem))).toEqual({
    code: 'code',
    message: 'What happened.',
    where: 'where',
    remedy: 'What to do.',
  });
});
