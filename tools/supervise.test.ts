import { EventEmitter } from 'node:events';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';

class Program extends EventEmitter {
  pid = 1;
  exitCode: number | null = null;
  signalCode: string | null = null;
  kill = vi.fn((signal: string) => {
    this.signalCode = signal;
    this.emit('exit', null, signal);
  });
  ends(code = 1) {
    this.exitCode = code;
    this.emit('exit', code, null);
  }
}
interface Supervisor {
  keep(name: string, command: string, args: string[], options?: object, prepare?: () => Promise<unknown>): void;
  end(patience?: number): Promise<void>;
}
const { pauseAfter, supervisor } = (await import(join(process.cwd(), 'tools/supervise.mjs'))) as {
  pauseAfter(early: number): number;
  supervisor(settings: object): Supervisor;
};

let started: Program[] = [];
const say = vi.fn();
const make = (): Supervisor =>
  supervisor({
    say,
    spawnWith: () => {
      const program = new Program();
      started.push(program);
      return program;
    },
  });
const last = () => started[started.length - 1] as Program;

beforeEach(() => {
  vi.useFakeTimers();
  started = [];
  say.mockReset();
});
afterEach(() => {
  vi.useRealTimers();
});

test('the pause doubles while it keeps ending, and is never over half a minute', () =>
  expect([1, 2, 3, 4, 8, 50].map(pauseAfter)).toEqual([400, 800, 1600, 3200, 30_000, 30_000]));

test('a program that ends is started again, later and later, and never given up', async () => {
  make().keep('web', 'node', []);
  await vi.advanceTimersByTimeAsync(0);
  for (let times = 0; times < 12; times++) {
    const before = started.length;
    last().ends();
    await vi.advanceTimersByTimeAsync(pauseAfter(times + 1) - 1);
    expect(started).toHaveLength(before);
    await vi.advanceTimersByTimeAsync(1);
    expect(started).toHaveLength(before + 1);
  }
});

test('one that had run well is started again at once', async () => {
  make().keep('web', 'node', []);
  await vi.advanceTimersByTimeAsync(0);
  for (let times = 0; times < 3; times++) {
    last().ends();
    await vi.advanceTimersByTimeAsync(2000);
  }
  await vi.advanceTimersByTimeAsync(60_000);
  const before = started.length;
  last().ends();
  await vi.advanceTimersByTimeAsync(400);
  expect(started).toHaveLength(before + 1);
});

test('none is started before what it needs is there', async () => {
  let ready = () => {};
  const database = () => new Promise<void>((done) => (ready = done));
  make().keep('web', 'node', [], {}, database);
  await vi.advanceTimersByTimeAsync(5000);
  expect(started).toHaveLength(0);
  ready();
  await vi.advanceTimersByTimeAsync(0);
  expect(started).toHaveLength(1);
});

test('at the end all are ended, and none comes back', async () => {
  const programs = make();
  programs.keep('web', 'node', []);
  programs.keep('worker', 'node', []);
  await vi.advanceTimersByTimeAsync(0);
  started[0]?.ends();
  await programs.end();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(started).toHaveLength(2);
  expect(started[1]?.kill).toHaveBeenCalledWith('SIGTERM');
});
