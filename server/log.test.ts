import { describe, expect, test } from 'vitest';
import { log, makeLog, SECRETS, within } from './log';

function collected(): { lines: () => Record<string, unknown>[]; log: ReturnType<typeof makeLog> } {
  const parts: string[] = [];
  const made = makeLog({ write: (line: string) => void parts.push(line) });
  made.level = 'info';
  return { log: made, lines: () => parts.map((line) => JSON.parse(line) as Record<string, unknown>) };
}

describe('a line of the log', () => {
  test('bears the request or the job that it belongs to, through whatever is awaited', async () => {
    const { log: own, lines } = collected();
    await Promise.all([
      within({ request: 'one' }, async () => {
        await new Promise((resolve) => setTimeout(resolve, 5));
        own.info('first');
      }),
      within({ job: 'two', kind: 'plan' }, async () => own.error({ err: new Error('why') }, 'second')),
    ]);
    const [second, first] = lines();
    expect(first).toMatchObject({ request: 'one', msg: 'first', level: 'info' });
    expect(second).toMatchObject({ job: 'two', kind: 'plan', err: { message: 'why' } });
    const fault = Object.assign(new Error('lost'), { code: '57P01', client: { key: 'hush' } });
    own.warn({ err: fault }, 'third');
    expect(lines().at(-1)?.err).toEqual({ type: 'Error', message: 'lost', stack: fault.stack, code: '57P01' });
    expect(second?.time).toMatch(/^\d{4}-\d\d-\d\dT/);
  });
  test.each(SECRETS)('never says a %s', (name) => {
    const { log: own, lines } = collected();
    own.info({ [name]: 'hush', body: { [name]: 'hush' }, deep: { headers: { [name]: 'hush' } } }, 'x');
    expect(JSON.stringify(lines())).not.toContain('hush');
  });
});

test('there is one log a process', () => {
  expect(log.level).toBe('warn');
});
