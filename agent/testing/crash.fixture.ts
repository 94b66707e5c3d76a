/** A process for the crash test: applies the plan in its arguments, and kills itself hard before the step with the given number. */
import { must } from '@/core/must';
import { copyFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Plan } from '@/core/sync/protocol';
import { Applier } from '../apply';

const { root, state, plan, contents, dieAt } = JSON.parse(readFileSync(must(process.argv[2]), 'utf8')) as {
  root: string;
  state: string;
  plan: Plan | null;
  contents: string;
  dieAt: number;
};
let steps = 0;
const applier = new Applier({
  root,
  state,
  places: ['Looks', 'Presets', 'Tessel/tessel.json#presets'],
  fetch: async (sha, to) => {
    if (!existsSync(join(contents, sha))) throw new Error('not there');
    mkdirSync(dirname(to), { recursive: true });
    copyFileSync(join(contents, sha), to);
  },
  step: () => {
    if (++steps === dieAt) process.kill(process.pid, 'SIGKILL');
  },
});
const open = await applier.open();
const { results } = await applier.apply(open ? null : plan);
process.stdout.write(JSON.stringify({ results, steps }));
