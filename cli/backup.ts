/** Everything as one file, and back. */
import { join } from 'node:path';
import { backup, restore } from '@/server/backup/service';
import { outputPath } from './files';
import { force, verb } from './verb';

export const backupVerb = verb({
  about: 'everything as one file, made while people work',
  takes: '<file>',
  names: true,
  example: 'backup studio.backup',
  options: { force },
  run: async ({ files: [file], options }) =>
    backup(outputPath({ output: file, force: options.force }, 'Name the file of the backup.')),
});

export const restoreVerb = verb({
  about: 'a backup, in the place of what is there; that stays as a database beside it until a person drops it',
  takes: '<file>',
  names: true,
  example: 'restore studio.backup',
  run: async ({ files: [file = ''] }) => restore(file, join(process.cwd(), 'db', 'migrations')),
});
