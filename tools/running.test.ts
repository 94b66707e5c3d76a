import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, expect, test, vi } from 'vitest';

interface Identity {
  pid: number;
  began: string | null;
}
interface Running {
  beganAt(pid: number): string | null;
  self(): Identity;
  lives(known: Identity): boolean;
  take(file: string, me?: Identity): Identity | null;
  giveBack(file: string): void;
  noteChildren(file: string, children: (Identity & { name: string })[]): void;
  endOrphans(file: string, say: (words: string) => void): Promise<void>;
}
const { beganAt, endOrphans, giveBack, lives, noteChildren, self, take } = (await import(
  join(process.cwd(), 'tools/running.mjs')
)) as Running;

const folder = mkdtempSync(join(tmpdir(), 'etagere-running-'));
const file = join(folder, 'running.json');
const children: ChildProcess[] = [];
afterEach(() => {
  for (const child of children.splice(0)) child.kill('SIGKILL');
  rmSync(file, { force: true });
});
afterAll(() => rmSync(folder, { recursive: true }));

/** A process that does nothing until it is ended. */
async function idle(): Promise<Identity & { child: ChildProcess }> {
  const child = spawn(process.execPath, ['-e', 'console.log(1); setInterval(() => {}, 1000)']);
  children.push(child);
  await once(child.stdout, 'data');
  const pid = child.pid ?? 0;
  return { child, pid, began: beganAt(pid) };
}

test('a folder is taken once, by whoever lives', async () => {
  expect(take(file)).toBeNull();
  const { child, ...other } = await idle();
  expect(take(file, other)).toEqual(self());
  giveBack(file);
  expect(take(file, other)).toBeNull();
  expect(take(file)).toEqual(other);
  child.kill('SIGKILL');
  await once(child, 'exit');
  expect(take(file)).toBeNull();
});

test('a number that was given out again is another process', () => {
  writeFileSync(file, JSON.stringify({ pid: process.pid, began: '1' }));
  expect(lives({ pid: process.pid, began: '1' })).toBe(false);
  expect(take(file)).toBeNull();
});

test('a file that was half written is no holder', () => {
  writeFileSync(file, '{"pid":');
  expect(take(file)).toBeNull();
});

test('of many that start at once over a dead one, one takes it', async () => {
  writeFileSync(file, JSON.stringify({ pid: 1, began: 'long ago' }));
  const program = `
    const { take } = await import(${JSON.stringify(join(process.cwd(), 'tools/running.mjs'))});
    const at = Number(process.argv[1]);
    while (Date.now() < at);
    console.log(take(${JSON.stringify(file)}) === null ? 'taken' : 'refused');
    setInterval(() => {}, 1000);
  `;
  const together = String(Date.now() + 1500);
  const said = await Promise.all(
    Array.from({ length: 6 }, async () => {
      const child = spawn(process.execPath, ['--input-type=module', '-e', program, together]);
      children.push(child);
      const [words] = (await once(child.stdout, 'data')) as [Buffer];
      return words.toString().trim();
    }),
  );
  expect(said.sort()).toEqual(['refused', 'refused', 'refused', 'refused', 'refused', 'taken']);
}, 20_000);

test('what a killed starter left is ended, and nothing else that bears such a number', async () => {
  const left = await idle();
  const stranger = await idle();
  const noted = join(folder, 'children.json');
  noteChildren(noted, [
    { name: 'web', pid: left.pid, began: left.began },
    { name: 'worker', pid: stranger.pid, began: '1' },
  ]);
  const say = vi.fn();
  await endOrphans(noted, say);
  expect(say.mock.calls.flat()).toEqual([expect.stringContaining('ending web')]);
  expect(lives(left)).toBe(false);
  expect(lives(stranger)).toBe(true);
  expect(existsSync(noted)).toBe(false);
  await endOrphans(noted, say);
});
