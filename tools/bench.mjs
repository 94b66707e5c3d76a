// bin/bench: installs what it measures against, bundles the bench, runs it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { dataFolder, ensureDebian, ensurePackages, root } from './checkout.mjs';

const USE = `use: bin/bench [--json] [--wait MINUTES] [--quick | --only core|screens|frames|fleet|library]
Measures what is promised, each figure beside its target. --quick leaves the library out. Nothing else should run meanwhile.
With --wait it does not measure, in its first so many minutes, while the host lends its processors to others.`;
const PARTS = ['core', 'screens', 'frames', 'fleet', 'library'];

/** Ends the process with what is wrong: a bench that was asked wrongly would run for an hour. */
function readArguments() {
  try {
    const { values } = parseArgs({
      options: {
        json: { type: 'boolean' },
        quick: { type: 'boolean' },
        only: { type: 'string' },
        wait: { type: 'string' },
        help: { type: 'boolean' },
      },
    });
    if (values.only !== undefined && !PARTS.includes(values.only)) throw new Error(`there is no part "${values.only}"`);
    if (values.wait !== undefined && !(Number(values.wait) > 0))
      throw new Error(`--wait ${values.wait} is no number of minutes`);
    return values;
  } catch (error) {
    console.error(`${error.message}\n${USE}`);
    process.exit(2);
  }
}
if (readArguments().help) {
  console.log(USE);
  process.exit(0);
}

ensurePackages();
await (await import('./kernel.mjs')).ensureKernel();
ensureDebian('ffmpeg', ['ffmpeg']);
ensureDebian('unzip', ['unzip']);
ensureDebian('transicc', ['liblcms2-utils']);
ensureDebian(process.env.CHROMIUM ?? 'chromium', ['chromium']);
const { bundle } = await import('./build.mjs');
await bundle({ bench: 'benchmarks/main.ts', 'bench-read-arrival': 'benchmarks/read-arrival.ts' });
process.exit(
  spawnSync(process.execPath, ['dist/bench.mjs', ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ETAGERE_BENCH_DATA: join(dataFolder(), 'bench') },
  }).status ?? 1,
);
