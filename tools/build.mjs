// Builds the programs: the command line, the job worker, the agent and the stand-ins with esbuild; the web with Next.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashOf, onceFor, root, run, say } from './checkout.mjs';

const programs = [
  'kernel',
  'core',
  'server',
  'agent',
  'standins',
  'demo',
  'cli',
  'processes',
  'db',
  'tools/build.mjs',
  'package-lock.json',
  'tsconfig.json',
];
const web = [
  'kernel',
  'app',
  'ui',
  'browser-workers',
  'core',
  'server',
  'public',
  'next.config.ts',
  'postcss.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];
const banner = { js: "import { createRequire as __cr } from 'node:module';\nconst require = __cr(import.meta.url);" };

/** Bundles programs that are run from the checkout, into dist. */
export async function bundle(entryPoints) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    alias: { '@': root },
    logLevel: 'warning',
  });
}

export async function buildPrograms() {
  const { build } = await import('esbuild');
  const common = {
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'warning',
    absWorkingDir: root,
    alias: { '@': root, 'server-only': join(root, 'tools/empty.mjs') },
    outExtension: { '.js': '.mjs' },
  };
  await build({
    ...common,
    packages: 'external',
    splitting: true,
    entryPoints: {
      cli: 'cli/main.ts',
      web: 'processes/web/main.ts',
      worker: 'processes/job-worker/main.ts',
      reader: 'processes/job-worker/reading-thread.ts',
      computing: 'processes/computing/main.ts',
      raw: 'processes/raw-decoder/main.ts',
      'demo-pictures': 'demo/picture-thread.ts',
    },
    outdir: 'dist',
    chunkNames: 'chunks/[name]-[hash]',
  });
  await build({
    ...common,
    // what a package has as modules can be put into one file, where its other form asks for parts of it by name
    mainFields: ['module', 'main'],
    entryPoints: { agent: 'agent/main.ts' },
    outdir: 'dist',
    legalComments: 'none',
    banner: { js: '#!/usr/bin/env node\n' + banner.js },
  });
  await build({
    ...common,
    packages: 'external',
    entryPoints: {
      launcher: 'standins/stations/launcher.ts',
      marlstone: 'standins/editors/marlstone/main.ts',
      oxbow: 'standins/editors/oxbow/main.ts',
      'oxbow-table': 'standins/editors/oxbow/table.ts',
      quern: 'standins/editors/quern/main.ts',
      tessel: 'standins/editors/tessel/main.ts',
      'perrin-alder': 'standins/card/main.ts',
      'file-manager': 'standins/file-manager/main.ts',
    },
    outdir: 'dist/standins',
    banner,
  });
}

export async function ensurePrograms() {
  const hash = hashOf(programs);
  const stamp = join(root, 'dist/.stamp');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  await buildPrograms();
  writeFileSync(stamp, hash);
}

export function ensureWeb() {
  const hash = hashOf(web);
  return onceFor('.next/.etagere-stamp', hash, () => {
    say('building the web application');
    run('node', ['node_modules/next/dist/bin/next', 'build'], {
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
      stdio: ['ignore', 2, 2],
    });
  });
}

if (process.argv[1] === new URL(import.meta.url).pathname) await buildPrograms();
