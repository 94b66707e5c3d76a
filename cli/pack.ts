import { parseArgs } from 'node:util';
import { Problem } from '@/core/problem';
import { inspectPack } from '@/server/arrivals/inspect';
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
  for await (const inspected of inspectPack(file, shipped())) {
    if (inspected.type === 'entry')
      entries.push({
        path: inspected.path,
        size: inspected.bytes.length,
        sha256: inspected.sha256.toString('hex'),
        kind: inspected.kind,
        title: inspected.title,
        headings: inspected.headings,
        needs: inspected.needs,
        note: inspected.note,
      });
    else if (inspected.type === 'refused')
      refused.push({
        path: inspected.path,
        code: inspected.problem.code,
        message: inspected.problem.message,
        where: inspected.problem.where,
        remedy: inspected.problem.remedy,
      });
    else ignored.push({ path: inspected.path, why: inspected.why });
  }
  return { entries, refused, ignored };
};

export const verbs: Record<string, Verb> = { inspect };
