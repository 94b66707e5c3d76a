import { parseArgs } from 'node:util';
import { Problem } from '@/core/problem';
import { askLauncher } from '@/server/stations/launcher';
import type { Verb } from './main';

const ask = (verb: 'launch' | 'quit' | 'list'): Verb => async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} }), [station, editor] = positionals;
  if (!station || !editor) throw new Problem('usage', 'A station and an editor are needed.', 'command line', `Use: etagere station ${verb} "Glaze desk" oxbow@2`);
  return askLauncher(verb, station, editor);
};

export const verbs: Record<string, Verb> = { launch: ask('launch'), quit: ask('quit'), list: ask('list') };
