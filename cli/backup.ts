import { join } from 'node:path';
import { Problem } from '@/core/problem';
import { backup, restore } from '@/server/backup/service';
import type { Verb } from './main';

const file = (args: string[]): string => {
  const file = args.find((a) => !a.startsWith('-'));
  if (!file) throw new Problem('usage', 'A file is missing.', 'command line', 'Name the file of the backup.');
  return file;
};

export const backupVerb: Verb = async (args) => backup(file(args));
export const restoreVerb: Verb = async (args) => restore(file(args), join(process.cwd(), 'db', 'migrations'));
