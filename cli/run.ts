/** Runs a verb on what was typed and says what came of it: as JSON for scripts, as text for people. */
import { Problem } from '@/core/problem';
import { filesNamed, folderForSeveral, isStandard } from './files';
import { Progress } from './progress';
import { tell } from './tell';
import type { Given, Options, Verb } from './verb';

interface Typed {
  args: string[];
  options: Record<string, unknown>;
  json: boolean;
  /** the noun and the verb */ path: string;
}

type AnyGiven = Given<Options>;

/** Bad input was told already; the rest went well. */
export class ToldAlready extends Error {}

const isFields = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Answers go where the written file does not. */
async function say(text: string, options: Record<string, unknown>): Promise<void> {
  const stream = isStandard(options.output as string | undefined) ? process.stderr : process.stdout;
  // large results must reach a pipe whole before the process ends
  await new Promise<void>((done, fail) => stream.write(text, (error) => (error ? fail(error) : done())));
}

export function tellProblem(problem: Problem, asJson: boolean): void {
  const { message, where, remedy } = problem.toJSON();
  const text = `etagere: ${message}\n  ${where}\n  ${remedy}\n`;
  process.stderr.write(process.stderr.isTTY && !asJson ? text : `${JSON.stringify({ error: problem.toJSON() })}\n`);
}

export async function runVerb(verb: Verb, { args, options, json }: Typed): Promise<void> {
  if (json && isStandard(options.output as string | undefined))
    throw new Problem(
      'usage',
      'Standard output cannot hold the file and the JSON.',
      '--json',
      'Leave one of them out, or name a file with -o.',
    );
  const files = verb.names ? args : filesNamed(args);
  const given = { files, options } as AnyGiven;
  if (!verb.each || files.length < 2) {
    const progress = new Progress();
    const answer = await verb.run(given).finally(() => progress.end());
    if (answer !== undefined) await say(json ? `${JSON.stringify(answer)}\n` : tell(answer), options);
    return;
  }
  await runEach(verb, given, json);
}

/** One result a file; what fails is told, leaves a null, and does not stop the rest. */
async function runEach(verb: Verb, { files, options }: AnyGiven, json: boolean): Promise<void> {
  if ('output' in options && verb.options?.force) folderForSeveral(options.output as unknown as string | undefined);
  const answers: unknown[] = [];
  const progress = new Progress();
  let failed = 0;
  for (const [place, file] of files.entries()) {
    progress.at(`${place + 1} of ${files.length}, ${file}`);
    try {
      const answer = await verb.run({ files: [file], options });
      answers.push(isFields(answer) ? { file, ...answer } : answer);
      if (!json && answer !== undefined) await say(`${place ? '\n' : ''}${file}\n${tell(answer)}`, options);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      failed++;
      answers.push(null);
      tellProblem(new Problem(error.code, error.message, `${file}: ${error.where}`, error.remedy), json);
    }
  }
  progress.end();
  if (json) await say(`${JSON.stringify(answers)}\n`, options);
  if (failed) throw new ToldAlready(`${failed} of ${files.length} files failed`);
}
