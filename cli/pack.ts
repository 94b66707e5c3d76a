import { parseArgs } from 'node:util';
import { Problem } from '@/core/problem';
import { inspectPack } from '@/server/packs/inspect';
import { openInput } from './input';
import type { Verb } from './main';
import { shipped } from './preset';

const inspect: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const file = positionals[0];
  if (!file) throw new Problem('usage', 'An archive is missing.', 'command line', 'Name the ZIP.');
  openInput(file);
  const entries: unknown[] = [];
  const refused: unknown[] = [];
  const ignored: unknown[] = [];
  for await (const e of inspectPack(file, shipped())) {
    if (e.type === 'entry')
      entries.push({
        path: e.path,
        size: e.bytes.length,
        sha256: e.sha256.toString('hex'),
        kind: e.kind,
        title: e.title,
        headings: e.headings,
        needs: e.needs,
        note: e.note,
      });
    else if (e.type === 'refused')
      refused.push({
        path: e.path,
        code: e.problem.code,
        message: e.problem.message,
        where: e.problem.where,
        remedy: e.problem.remedy,
      });
    else ignored.push({ path: e.path, why: e.why });
  }
  return { entries, refused, ignored };
};

export const verbs: Record<string, Verb> = { inspect };
