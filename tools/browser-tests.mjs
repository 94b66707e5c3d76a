// The browser tests: once through, and what failed once more in a studio of its own. On a machine that is shared a browser
// hangs now and then; a test that fails twice, the second time with nothing of the first beside it, has found something.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureDebian, root, say } from './checkout.mjs';

/**
 * Which browser the tests are done in: without windows of its own it takes a seventh less of the processors. Where it can not
 * be had, the one with windows does as well.
 */
export function testBrowser() {
  if (process.env.CHROMIUM) return process.env.CHROMIUM;
  try {
    ensureDebian('chromium-headless-shell', ['chromium-headless-shell']);
    return '/usr/bin/chromium-headless-shell';
  } catch {
    ensureDebian('chromium', ['chromium']);
    return '/usr/bin/chromium';
  }
}

/** From so many files with failures on, they are no accident. */
const MOST_FILES_AGAIN = 3;

/** Every test of a report: its file, and whether it passed. One that did not run has not. */
function testsOf(report) {
  const inside = (suite) => [
    ...(suite.specs ?? []).map(({ file, title, ok, tests }) => ({
      file,
      title,
      passed: ok && tests.every(({ status }) => status === 'expected'),
    })),
    ...(suite.suites ?? []).flatMap(inside),
  ];
  return report.suites.flatMap(inside);
}

/** What one run made of some files, or of all; null where it left no report. */
async function once({ data, path, run, browser }, files) {
  rmSync(path, { force: true });
  const status = await run(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', ...files], {
    ETAGERE_E2E_DATA: data,
    ETAGERE_E2E_REPORT: path,
    DATABASE_URL: '',
    CHROMIUM: browser,
  });
  if (!existsSync(path)) return null;
  const report = JSON.parse(readFileSync(path, 'utf8'));
  return { status, tests: testsOf(report) };
}

const failuresOf = (tests) => tests.filter(({ passed }) => !passed);

/**
 * @param how.data the folder of the studio that the tests are done in; each run makes it anew
 * @param how.run runs a program with arguments and variables, and resolves to its exit status
 * @param how.browser the path of the browser
 * @param how.path where the report of each run stands
 */
export async function browserTests({ path = join(root, 'e2e/.out/results.json'), ...given }) {
  const how = { ...given, path };
  const first = await once(how, []);
  if (!first) return { passed: 0, failed: 1 };
  const files = [...new Set(failuresOf(first.tests).map(({ file }) => file))];
  const isAccident = files.length > 0 && files.length <= MOST_FILES_AGAIN;
  const second = isAccident ? await again(how, files) : null;
  const tests = second ? [...first.tests.filter(({ file }) => !files.includes(file)), ...second.tests] : first.tests;
  const last = second ?? first;
  const failed = failuresOf(tests).length;
  // what breaks outside of a test, such as in what comes after all of them
  const beside = last.status !== 0 && !failuresOf(last.tests).length ? 1 : 0;
  return { passed: tests.length - failed, failed: failed + beside };
}

async function again(how, files) {
  say(`once more, in a studio of its own: ${files.join(', ')}`);
  const second = await once(how, files);
  if (second && !failuresOf(second.tests).length) say('browser tests passed only at their second try: see above');
  return second;
}
