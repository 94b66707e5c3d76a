import type { Worker } from 'node:cluster';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { balanced, isBehind, keepBalance, type Above } from './balance';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

/** Processes that answer below one that hears them, each waited for as long as `waits` says. */
function processes(waits: number[]) {
  const listeners = waits.map((): ((message: unknown) => void)[] => []);
  const sent: unknown[] = [];
  const workers = waits.map(
    (_, n) =>
      ({
        id: n + 1,
        isConnected: () => true,
        send: (message: unknown) => {
          sent.push(message);
          listeners[n]?.forEach((hear) => hear(structuredClone(message)));
          return true;
        },
      }) as unknown as Worker,
  );
  const balance = keepBalance(() => workers);
  const letsGo = workers.map((worker, n) => {
    const above: Above = {
      connected: true,
      send: (message) => balance.hear(worker, structuredClone(message)),
      on: (_, listener) => listeners[n]?.push(listener),
    };
    return balanced(() => waits[n] ?? 0, above);
  });
  return { waits, sent, lettingGo: () => letsGo.map((ask) => ask()) };
}

test('a process that is waited for longer lets connections go, until it is no more', () => {
  const two = processes([2400, 1200]);
  vi.advanceTimersByTime(500);
  expect(two.lettingGo()).toEqual([true, false]);
  two.waits.splice(0, 2, 1850, 1750);
  vi.advanceTimersByTime(500);
  expect(two.lettingGo()).toEqual([false, false]);
});

test('where nobody waits nothing is told, and nobody is let go', () => {
  const two = processes([0, 0]);
  vi.advanceTimersByTime(2000);
  expect([two.sent, two.lettingGo()]).toEqual([[], [false, false]]);
  // and once more when that has come to an end, so that none goes by what was
  two.waits[0] = 900;
  vi.advanceTimersByTime(500);
  two.waits[0] = 0;
  vi.advanceTimersByTime(500);
  const told = two.sent.length;
  expect(two.sent.at(-1)).toEqual({ etagereWait: 0 });
  vi.advanceTimersByTime(2000);
  expect(two.sent).toHaveLength(told);
});

test('a short wait is no reason, nor is a little more than the others’; one process alone keeps all', () => {
  expect([isBehind(90, 0), isBehind(1150, 1000), isBehind(1250, 1000)]).toEqual([false, false, true]);
  const alone = balanced(() => 10_000, { connected: false, on: () => undefined });
  vi.advanceTimersByTime(1000);
  expect(alone()).toBe(false);
});

test('what else is sent between processes is passed over', () => {
  const two = processes([2400, 1200]);
  const balance = keepBalance(() => []);
  for (const message of [null, 'etagereWait', { etagereWait: 'long' }, { type: 'metrics' }])
    balance.hear({ id: 1 } as Worker, message);
  vi.advanceTimersByTime(500);
  expect(two.lettingGo()).toEqual([true, false]);
});
