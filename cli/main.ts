/** The command line: bin/etagere <noun> <verb> …. Core verbs answer without database or web. */
import { Problem } from '@/core/problem';

export type Verb = (args: string[]) => Promise<unknown>;
type Noun = () => Promise<{ verbs: Record<string, Verb> }>;

const nouns: Record<string, Noun> = {
  look: () => import('./look'),
  camera: () => import('./camera'),
  icc: () => import('./icc'),
  preset: () => import('./preset'),
  docs: () => import('./docs'),
  pack: () => import('./pack'),
  station: () => import('./station'),
  db: () => import('./admin').then((m) => ({ verbs: m.db })),
  demo: () => import('./admin').then((m) => ({ verbs: m.demo })),
  people: () => import('./admin').then((m) => ({ verbs: m.people })),
  agent: () => import('./admin').then((m) => ({ verbs: m.agent })),
};

/** What is done to the whole, with a file and no verb. */
const whole: Record<string, () => Promise<Verb>> = {
  backup: () => import('./backup').then((m) => m.backupVerb),
  restore: () => import('./backup').then((m) => m.restoreVerb),
};

const [noun = '', verb = '', ...rest] = process.argv.slice(2);
const json = rest.includes('--json') || verb === '--json';
try {
  const found = nouns[noun];
  const alone = whole[noun];
  if (!found && !alone)
    throw new Problem(
      'usage',
      noun ? `There is no noun ${noun}.` : 'A noun and a verb are needed.',
      'command line',
      `Use: etagere <${Object.keys(nouns).join('|')}> <verb> …, or etagere backup|restore FILE.`,
    );
  const verbs = found ? (await found()).verbs : {};
  const run = alone ? await alone() : verbs[verb];
  if (!run)
    throw new Problem(
      'usage',
      verb ? `${noun} has no verb ${verb}.` : `${noun} needs a verb.`,
      'command line',
      `Verbs of ${noun}: ${Object.keys(verbs).join(', ')}.`,
    );
  const out = await run((alone ? [verb, ...rest] : rest).filter((a) => a !== '--json'));
  if (out !== undefined) {
    const text = json || typeof out !== 'string' ? JSON.stringify(out, null, json ? undefined : 2) + '\n' : out;
    // large results must reach a pipe whole before the process ends
    await new Promise<void>((done, bad) => process.stdout.write(text, (e) => (e ? bad(e) : done())));
  }
  process.exit(0);
} catch (error) {
  if (error instanceof Problem) {
    process.stderr.write(JSON.stringify({ error: error.toJSON() }) + '\n');
    process.exit(2);
  }
  if (
    error &&
    typeof error === 'object' &&
    'code' in error &&
    String((error as { code: unknown }).code).startsWith('ERR_PARSE_ARGS')
  ) {
    process.stderr.write(
      JSON.stringify({
        error: {
          code: 'usage',
          message: (error as unknown as Error).message,
          where: 'command line',
          remedy: `See docs/command-line.md for the options of ${noun} ${verb}.`,
        },
      }) + '\n',
    );
    process.exit(2);
  }
  process.stderr.write(
    JSON.stringify({
      error: {
        code: 'bug',
        message: (error as Error).message ?? String(error),
        where: `${noun} ${verb}`,
        remedy: 'This is a fault of Etagere; report it with the text below.',
      },
    }) +
      '\n' +
      ((error as Error).stack ?? '') +
      '\n',
  );
  process.exit(1);
}
