// Packages and programs, without web or database: what bin/etagere needs.
import { utimesSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, root } from './checkout.mjs';

ensurePackages();
await (await import('./kernel.mjs')).ensureKernel();
const { ensurePrograms } = await import('./build.mjs');
await ensurePrograms();
const now = new Date();
utimesSync(join(root, 'dist/cli.mjs'), now, now);
