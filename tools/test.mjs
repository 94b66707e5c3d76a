// bin/test: lint, types, import rules, unit and server and agent tests, browser tests, some rounds of faults. With arguments:
// only the matching Vitest files; --faults [--rounds N] [--seed S]: only the fault suite. --long: every try of the tests that
// make but a share of them otherwise (core/tries.ts).
// Its last line is "N passed, N failed", the totals of all runners.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { browserTests, testBrowser } from './browser-tests.mjs';
import { startCluster, stopCluster } from './cluster.mjs';
import { dataFolder, ensureDebian, ensurePackages, root, say } from './checkout.mjs';

// a cluster and a data folder of the tests' own, beside the real one
process.env.ETAGERE_DATA = join(process.env.ETAGERE_DATA || dataFolder(), 'test');
process.env.NEXT_TELEMETRY_DISABLED = '1';
const asked = process.argv.slice(2);
if (asked.includes('--long')) process.env.ETAGERE_LONG_TESTS = '1';
const faultsOnly = asked[0] === '--faults';
const filter = faultsOnly ? [] : asked.filter((word) => word !== '--long');
const began = Date.now();
/** A share of the fault suite is in every run; on a machine that took long for the rest, a smaller one. */
const ROUNDS_OF_FAULTS = 3;
const LONG_MINUTES = 45;
const minutes = () => (Date.now() - began) / 60_000;

/** Where a run's time goes, told at each part's beginning and once more at the end. */
const parts = [];
function part(name) {
  parts.push({ name, from: minutes() });
  say(`${minutes().toFixed(1)} min: ${name}`);
}
function tellParts() {
  const ends = [...parts.slice(1).map(({ from }) => from), minutes()];
  say(parts.map(({ name, from }, i) => `${name} ${(ends[i] - from).toFixed(1)} min`).join(', '));
}
part('packages');
ensurePackages();
await (await import('./kernel.mjs')).ensureKernel();
let passed = 0;
let failed = 0;

const run = (command, args, env = {}) =>
  new Promise((resolve) => {
    const c = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    c.on('exit', (code) => resolve(code ?? 1));
  });
/** A check without tests of its own counts as one. */
const check = async (name, args) => {
  say(name);
  if ((await run(process.execPath, args)) === 0) passed++;
  else {
    failed++;
    say(`${name} failed`);
  }
};

const lint = () => check('lint', ['node_modules/eslint/bin/eslint.js', '--max-warnings', '0', '.']);

async function checkForm() {
  await check('format', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']);
  await check('types', ['node_modules/typescript/bin/tsc', '--noEmit']);
  checkImports();
}

/** The rules of docs/architecture.md. */
function checkImports() {
  say('import rules');
  const rooms = [
    'core',
    'server',
    'app',
    'ui',
    'agent',
    'standins',
    'demo',
    'cli',
    'processes',
    'browser-workers',
    'benchmarks',
    'faults',
    'e2e',
  ];
  const cruise = spawnSync(
    process.execPath,
    ['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', ...rooms, '--config', '.dependency-cruiser.cjs'],
    { cwd: root, encoding: 'utf8' },
  );
  process.stderr.write(cruise.stdout);
  // a cruise of nothing would pass: it has to have seen the modules
  if (cruise.status === 0 && Number(/(\d+) modules/.exec(cruise.stdout)?.[1] ?? 0) > 100) passed++;
  else failed++;
}

/** Where a run's time goes: what is slow here is the next to be mended. */
function tellSlowest(files) {
  const all = files.flatMap((file) =>
    file.assertionResults.map((test) => ({
      name: `${relative(root, file.name)}: ${test.title}`,
      seconds: (test.duration ?? 0) / 1000,
    })),
  );
  say('the ten slowest tests');
  for (const { name, seconds } of all.sort((a, b) => b.seconds - a.seconds).slice(0, 10))
    say(`  ${seconds.toFixed(1)} s  ${name}`);
}

async function faults(args) {
  const { runFaults } = await import('./faults.mjs');
  part('faults');
  const told = await runFaults(join(process.env.ETAGERE_DATA, 'faults'), args);
  passed += told.passed;
  failed += told.failed;
}

function tell() {
  tellParts();
  say(`tests took ${Math.round((Date.now() - began) / 1000)} s`);
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed || !passed ? 1 : 0);
}

if (faultsOnly) {
  await faults(process.argv.slice(3));
  tell();
}

part('database and programs');
await startCluster({ fast: true });
await (await import('./build.mjs')).ensurePrograms(); // tests run the threads and the decoder as they are in use
try {
  // lint takes as long as all the other checks together: they share the two cores
  if (!filter.length) {
    part('lint, form and types');
    await Promise.all([lint(), checkForm()]);
  }
  part('Vitest');
  ensureDebian('transicc', ['liblcms2-utils']);
  const out = join(root, 'coverage');
  const results = join(out, 'vitest.json');
  mkdirSync(out, { recursive: true });
  rmSync(results, { force: true });
  const vitest = await run(process.execPath, [
    'node_modules/vitest/vitest.mjs',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${results}`,
    ...filter,
  ]);
  if (existsSync(results)) {
    const r = JSON.parse(readFileSync(results, 'utf8'));
    passed += r.numPassedTests;
    failed +=
      r.numFailedTests + r.testResults.filter((t) => t.status === 'failed' && !t.assertionResults.length).length;
    // what breaks outside of a test, such as in what comes after all of them
    if (vitest !== 0 && !failed) failed++;
    tellSlowest(r.testResults);
  } else failed++;
  if (!filter.length) {
    part('browser');
    // the browser's tests and the faults each load the demo
    process.env.ETAGERE_DEMO_PICTURES = join(process.env.ETAGERE_DATA, 'pictures');
    const told = await browserTests({ data: join(process.env.ETAGERE_DATA, 'e2e'), run, browser: testBrowser() });
    passed += told.passed;
    failed += told.failed;
    await faults(['--rounds', String(minutes() > LONG_MINUTES ? 1 : ROUNDS_OF_FAULTS)]);
  }
} finally {
  stopCluster();
}
tell();
