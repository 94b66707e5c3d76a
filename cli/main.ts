/** The command line: bin/etagere <noun> <verb> …. Core verbs answer without database or web. */
import { CommanderError } from 'commander';
import { Problem } from '@/core/problem';
import { problemIn, programFor } from './command';
import { alone, nouns } from './nouns';
import { tellProblem, ToldAlready } from './run';

const BAD_INPUT = 2;
const BUG = 1;

const [noun = '', verb = ''] = process.argv.slice(2);
const isHelp = noun === '--help' || noun === '-h';
const path = [noun, noun in alone ? '' : verb].filter((word) => word && !word.startsWith('-')).join(' ');
const asJson = process.argv.includes('--json');

function refuse(problem: Problem): never {
  tellProblem(problem, asJson);
  process.exit(BAD_INPUT);
}

function tellBug(error: Error): never {
  const told = {
    code: 'bug',
    message: error.message ?? String(error),
    where: path,
    remedy: 'This is a fault of Etagere; report it with the text below.',
  };
  process.stderr.write(`${JSON.stringify({ error: told })}\n${error.stack ?? ''}\n`);
  process.exit(BUG);
}

try {
  if (!isHelp && !(noun in nouns) && !(noun in alone))
    throw new Problem(
      'usage',
      noun ? `There is no noun ${noun}.` : 'A noun and a verb are needed.',
      'command line',
      `Use: etagere <${Object.keys(nouns).join('|')}> <verb> …, or etagere ${Object.keys(alone).join('|')} FILE.`,
    );
  const program = await programFor(noun);
  await program.parseAsync();
  process.exit(0);
} catch (error) {
  if (error instanceof ToldAlready) process.exit(BAD_INPUT);
  if (error instanceof Problem) refuse(error);
  if (error instanceof CommanderError) {
    const problem = problemIn(error, path);
    if (problem) refuse(problem);
    process.exit(0);
  }
  tellBug(error as Error);
}
