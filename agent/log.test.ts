/** The agent's log: what is told goes in, and it never grows beyond its room. */
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { keepLog, tell } from './log';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'etagere-log-'));
  vi.spyOn(process.stderr, 'write').mockReturnValue(true);
});
afterEach(() => {
  vi.restoreAllMocks();
  rmSync(folder, { recursive: true, force: true });
});

test('has a line for each thing told, with its time; what was told makes no lines of its own', () => {
  keepLog(folder);
  tell('the disk is full');
  tell('two\nlines');
  const lines = readFileSync(join(folder, 'agent.log'), 'utf8').trim().split('\n');
  expect(lines.map((line) => line.replace(/^\d{4}-\d\d-\d\dT[\d:.]+Z /, ''))).toEqual([
    'the disk is full',
    'two lines',
  ]);
});

test('begins anew when it is large, and keeps three of before', () => {
  keepLog(folder);
  const words = 'x'.repeat(1990);
  for (let n = 0; n < 3100; n++) tell(`${n} ${words}`);
  expect(readdirSync(folder).sort()).toEqual(['agent.1.log', 'agent.2.log', 'agent.3.log', 'agent.log']);
  for (const name of readdirSync(folder)) expect(statSync(join(folder, name)).size).toBeLessThan(1_010_000);
  expect(readFileSync(join(folder, 'agent.log'), 'utf8')).toContain(' 3099 ');
});

test('that cannot be written keeps nothing from being told', () => {
  writeFileSync(join(folder, 'no folder'), '');
  keepLog(join(folder, 'no folder'));
  expect(() => tell('all the same')).not.toThrow();
  expect(process.stderr.write).toHaveBeenCalledWith('etagere-agent: all the same\n');
});
