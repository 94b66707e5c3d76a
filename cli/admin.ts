/** Administration: migrations, demo data, people, the agent's bundle. Needs the database (bin/start or bin/db start). */
import { copyFileSync, chmodSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { Problem } from '@/core/problem';
import { loadDemo, removeDemo, bringBuiltIn, bringFrames } from '@/demo/load';
import { databaseUrl } from '@/server/db/pool';
import { migrate } from '@/server/db/migrate';
import { addPerson, anyone } from '@/server/people/service';
import { roles, type Role } from '@/server/people/roles';
import type { Verb } from './main';

const root = join(dirname(fileURLToPath(import.meta.url)), import.meta.url.includes('/chunks/') ? '../..' : '..');
const say = (text: string): void => {
  process.stderr.write(`etagere: ${text}\n`);
};

export const db: Record<string, Verb> = {
  migrate: async () => {
    const applied = await migrate(databaseUrl(), join(root, 'db/migrations'));
    await bringBuiltIn();
    return { applied };
  },
};

export const demo: Record<string, Verb> = {
  load: async () => {
    process.chdir(root);
    const { loaded, signIns } = await loadDemo(say);
    return { loaded, people: signIns.map(({ name, email, role }) => ({ name, email, role })) };
  },
  frames: async () => {
    process.chdir(root);
    await bringFrames(say);
    return { done: true };
  },
  remove: async () => {
    await removeDemo();
    return { removed: true };
  },
};

export const people: Record<string, Verb> = {
  add: async (args) => {
    const { values } = parseArgs({
      args,
      options: {
        name: { type: 'string' },
        email: { type: 'string' },
        role: { type: 'string' },
        password: { type: 'string' },
        'password-stdin': { type: 'boolean' },
      },
    });
    const role = values.role ?? 'librarian';
    if (!(roles as readonly string[]).includes(role))
      throw new Problem('usage', `--role must be one of ${roles.join(', ')}.`, '--role', 'Correct the option.');
    let password = values.password ?? process.env.ETAGERE_PASSWORD;
    if (values['password-stdin']) {
      const parts: Buffer[] = [];
      for await (const c of process.stdin) parts.push(c as Buffer);
      password = Buffer.concat(parts)
        .toString('utf8')
        .replace(/\r?\n$/, '');
    }
    if (!values.name || !values.email || !password)
      throw new Problem(
        'usage',
        'A name, an e-mail address and a password are needed.',
        'command line',
        'Use: etagere people add --name N --email A --role R --password-stdin < file',
      );
    // whoever may run this command owns the data folder, and so may add people
    const owner = (await anyone())
      ? { id: null as unknown as string, name: 'command line', email: '', role: 'librarian' as const }
      : null;
    const person = await addPerson(owner, { name: values.name, email: values.email, role: role as Role, password });
    return { id: person.id, name: person.name, email: person.email, role: person.role };
  },
};

export const agent: Record<string, Verb> = {
  bundle: async (args) => {
    const { values } = parseArgs({ args, options: { output: { type: 'string', short: 'o' } } });
    if (!values.output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
    copyFileSync(join(root, 'dist/agent.mjs'), values.output);
    chmodSync(values.output, 0o755);
    return { written: values.output };
  },
};
