/** Administration: migrations, demo data, people, the agent's bundle. Needs the database (bin/start or bin/db start). */
import { chmodSync, copyFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Problem } from '@/core/problem';
import { bringBuiltIn, bringFrames, loadDemo, removeDemo } from '@/demo/load';
import { collectContents, measureContents, USUAL_AGE_DAYS } from '@/server/blobs/collect';
import { dropKept, keptDatabases } from '@/server/backup/service';
import { migrate } from '@/server/db/migrate';
import { databaseUrl } from '@/server/db/pool';
import { pool } from '@/server/db/pool';
import { listPeople } from '@/server/people/queries';
import { roles, type Role } from '@/server/people/roles';
import { makeSetupCode } from '@/server/people/setup-code';
import { setActive, signOutEverywhere } from '@/server/people/sessions';
import { addPerson, anyone } from '@/server/people/service';
import { outputPath } from './files';
import { choice, numberOption } from './values';
import { verb, writes, type Verb } from './verb';

const root = join(dirname(fileURLToPath(import.meta.url)), import.meta.url.includes('/chunks/') ? '../..' : '..');
const EXECUTABLE = 0o755;

const say = (text: string): void => {
  process.stderr.write(`etagere: ${text}\n`);
};

export const db: Record<string, Verb> = {
  migrate: verb({
    about: 'brings the database up to date',
    example: 'db migrate',
    run: async () => {
      const applied = await migrate(databaseUrl(), join(root, 'db/migrations'));
      await bringBuiltIn();
      return { applied };
    },
  }),
  collect: verb({
    about: 'takes away contents that nothing refers to',
    example: 'db collect --older 30 --dry-run',
    options: {
      older: { value: 'DAYS', about: `untouched for so many days; ${USUAL_AGE_DAYS} without` },
      'dry-run': { about: 'only says how much that would be' },
    },
    run: async ({ options }) => {
      const days = numberOption(options.older, 'older', 1, 36_500, USUAL_AGE_DAYS);
      if (options['dry-run']) return { days, dryRun: true, ...(await measureContents(null, days)).unused };
      return { days, dryRun: false, ...(await collectContents(null, days)) };
    },
  }),
  kept: verb({
    about: 'databases that restores have put aside',
    example: 'db kept',
    run: async () => ({ kept: await keptDatabases() }),
  }),
  drop: verb({
    about: 'drops one that a restore has put aside; it cannot be brought back',
    takes: '<name>',
    names: true,
    example: 'db drop etagere_before_1a2b3c4d',
    run: async ({ files: [name = ''] }) => {
      await dropKept(name);
      return { dropped: name };
    },
  }),
};

export const demo: Record<string, Verb> = {
  load: verb({
    about: 'the demo studio, with its people, stations and packs',
    example: 'demo load',
    run: async () => {
      process.chdir(root);
      const { loaded, signIns } = await loadDemo(say);
      return { loaded, people: signIns.map(({ name, email, role }) => ({ name, email, role })) };
    },
  }),
  frames: verb({
    about: 'the reference frames alone',
    example: 'demo frames',
    run: async () => {
      process.chdir(root);
      await bringFrames(say);
      return { done: true };
    },
  }),
  remove: verb({
    about: 'takes the demo studio away again',
    example: 'demo remove',
    run: async () => {
      await removeDemo();
      return { removed: true };
    },
  }),
};

async function passwordOnInput(): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of process.stdin) parts.push(part as Buffer);
  return Buffer.concat(parts)
    .toString('utf8')
    .replace(/\r?\n$/, '');
}

const add = verb({
  about: 'adds a person',
  example:
    'people add --name "Odile Wren" --email odile@wrenandtallow.example --role librarian --password-stdin < file',
  options: {
    name: { value: 'TEXT', about: 'as others see it' },
    email: { value: 'ADDRESS', about: 'by which the person signs in' },
    role: { value: 'ROLE', about: 'librarian without', words: roles },
    password: { value: 'TEXT', about: 'seen by whoever lists processes: better --password-stdin' },
    'password-stdin': { about: 'the password comes on standard input' },
  },
  run: async ({ options }) => {
    const role: Role = choice(options.role, 'role', roles, 'librarian');
    const { name, email } = options;
    const password = options['password-stdin']
      ? await passwordOnInput()
      : (options.password ?? process.env.ETAGERE_PASSWORD);
    if (!name || !email || !password)
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
    const person = await addPerson(owner, { name, email, role, password });
    return { id: person.id, name: person.name, email: person.email, role: person.role };
  },
});

const switches = ['on', 'off'] as const;

const list = verb({
  about: 'who may sign in, with roles and how many sessions each has',
  example: 'people list',
  run: async () => {
    const rows = await listPeople(pool());
    return rows.map(({ name, email, role, active, sessions }) => ({ name, email, role, active, sessions }));
  },
});

const needed = (email: string | undefined): string => {
  if (email) return email;
  throw new Problem('usage', 'Whose it is is missing.', '--email', 'Name the person by --email ADDRESS.');
};

const set = verb({
  about: 'lets a person in, or not any more; whoever is not let in is signed out everywhere at once',
  example: 'people set --email mirre@wrenandtallow.example --active off',
  options: {
    email: { value: 'ADDRESS', about: 'by which the person signs in' },
    active: { value: 'SWITCH', about: 'may the person sign in', words: switches },
  },
  run: async ({ options }) => {
    const email = needed(options.email);
    const active = choice(options.active, 'active', switches, 'on') === 'on';
    await setActive(null, email, active);
    return { email, active };
  },
});

const signOut = verb({
  about: 'ends every session of a person',
  example: 'people sign-out --email mirre@wrenandtallow.example',
  options: { email: { value: 'ADDRESS', about: 'by which the person signs in' } },
  run: async ({ options }) => signOutEverywhere(null, needed(options.email)),
});

const code = verb({
  about: 'a new code for the welcome page of a studio in which nobody is yet',
  example: 'people code',
  run: async () => ({ code: await makeSetupCode() }),
});

export const people: Record<string, Verb> = { add, code, list, set, 'sign-out': signOut };

export const agent: Record<string, Verb> = {
  bundle: verb({
    about: 'the workstation agent as one file',
    example: 'agent bundle -o etagere-agent',
    options: writes,
    run: async ({ options }) => {
      const path = outputPath(options);
      copyFileSync(join(root, 'dist/agent.mjs'), path);
      chmodSync(path, EXECUTABLE);
      return { written: path };
    },
  }),
};
