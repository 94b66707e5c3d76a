/** What is made of the reports of browser tests: which files have a second try, and what counts. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';

interface BrowserTests {
  browserTests(how: {
    data: string;
    run: (command: string, args: string[]) => Promise<number>;
    browser: string;
    path: string;
  }): Promise<{ passed: number; failed: number }>;
}
// a program of the tools, which have no types
const program = './browser-tests.mjs';
const { browserTests } = (await import(program)) as BrowserTests;

const folder = mkdtempSync(join(tmpdir(), 'etagere-browser-tests-'));
const path = join(folder, 'results.json');
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What a run does: its exit status, and the tests of its report; no report without. */
interface Run {
  status: number;
  tests?: ReturnType<typeof ended>[];
}
const ended = (file: string, status: 'expected' | 'unexpected' | 'skipped') => ({
  file,
  title: `a test of ${file}`,
  ok: status !== 'unexpected',
  tests: [{ status }],
});
const passed = (file: string) => ended(file, 'expected');
const failed = (file: string) => ended(file, 'unexpected');

async function told(...runs: Run[]) {
  const asked: string[][] = [];
  const run = (_: string, args: string[]): Promise<number> => {
    const now = runs[asked.push(args.slice(2)) - 1];
    if (!now) throw new Error('one run too many');
    if (now.tests) writeFileSync(path, JSON.stringify({ suites: [{ suites: [{ specs: now.tests }] }] }));
    return Promise.resolve(now.status);
  };
  const counts = await browserTests({ data: folder, run, browser: 'none', path });
  return { ...counts, asked };
}

describe('browser tests', () => {
  test('that pass are done once', async () => {
    const tests = [passed('a'), passed('b')];
    expect(await told({ status: 0, tests })).toEqual({ passed: 2, failed: 0, asked: [[]] });
  });
  test('that fail are done again, with all of their file, and the second try counts', async () => {
    const first = { status: 1, tests: [passed('a'), failed('b'), passed('b')] };
    const well = { status: 0, tests: [passed('b'), passed('b')] };
    expect(await told(first, well)).toEqual({ passed: 3, failed: 0, asked: [[], ['b']] });
    const badly = { status: 1, tests: [failed('b'), passed('b')] };
    expect(await told(first, badly)).toEqual({ passed: 2, failed: 1, asked: [[], ['b']] });
  });
  test('that fail in many files are not done again; what did not run has failed', async () => {
    const tests = [...['a', 'b', 'c'].map(failed), ended('d', 'skipped')];
    expect(await told({ status: 1, tests })).toEqual({ passed: 0, failed: 4, asked: [[]] });
  });
  test('have failed where a run leaves no report, or breaks beside its tests', async () => {
    expect(await told({ status: 1 })).toMatchObject({ passed: 0, failed: 1 });
    expect(await told({ status: 1, tests: [passed('a')] })).toMatchObject({ passed: 1, failed: 1 });
    expect(await told({ status: 1, tests: [failed('a')] }, { status: 1 })).toMatchObject({ passed: 0, failed: 1 });
  });
});
