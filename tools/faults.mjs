// The fault suite: bundles it and runs it on an installation of its own; answers with how much of it holds.
import { spawnSync } from 'node:child_process';
import { bundle } from './build.mjs';
import { root } from './checkout.mjs';

/** @param data the folder of that installation @param args such as --rounds 4 */
export async function runFaults(data, args) {
  await bundle({ faults: 'faults/main.ts' });
  const ran = spawnSync(process.execPath, ['dist/faults.mjs', ...args], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    encoding: 'utf8',
    env: { ...process.env, ETAGERE_FAULTS_DATA: data },
  });
  const said = ran.stdout.trim().split('\n').at(-1) ?? '';
  return ran.status === 0 ? JSON.parse(said) : { passed: 0, failed: 1 };
}
