// bin/bench: installs what it measures against, bundles the bench, runs it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { dataFolder, ensureDebian, ensurePackages, root } from './checkout.mjs';

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
