/** Files as the verbs name them: patterns filled in, "-" for standard input and output, nothing overwritten unasked. */
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, extname, isAbsolute, join } from 'node:path';
import { globSync, isDynamicPattern } from 'tinyglobby';
import { Problem } from '@/core/problem';

export const STANDARD = '-';

const unreadable = (path: string, why: string): Problem =>
  new Problem('file-unreadable', `${path} cannot be read: ${why}.`, path, 'Check the path and its permissions.');

const reasonOf = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? (error as Error).message;

/** The files that the arguments name, in their order. A pattern that the shell left alone is filled in here. */
export function filesNamed(args: readonly string[]): string[] {
  return args.flatMap((arg) => {
    if (arg === STANDARD || existsSync(arg) || !isDynamicPattern(arg)) return [arg];
    const found = globSync(arg, { expandDirectories: false, dot: false, absolute: isAbsolute(arg) }).sort();
    if (!found.length) throw unreadable(arg, 'no file has such a name');
    return found;
  });
}

/** Refuses what is no file that can be opened, without reading it: it may be larger than memory. */
export function openInput(path: string): void {
  try {
    closeSync(openSync(path, 'r'));
  } catch (error) {
    throw unreadable(path, reasonOf(error));
  }
  if (!statSync(path).isFile()) throw unreadable(path, 'it is no file');
}

/** A file's bytes, or all that comes on standard input. */
export function readInput(path: string | undefined, what = 'file'): Buffer {
  if (!path) throw new Problem('usage', `A ${what} is missing.`, 'command line', `Name the ${what}.`);
  try {
    return readFileSync(path === STANDARD ? 0 : path);
  } catch (error) {
    throw unreadable(path === STANDARD ? 'standard input' : path, reasonOf(error));
  }
}

interface Wanted {
  output: string | undefined;
  force: boolean;
}

/** What stands on standard output is no place for an answer beside it. */
export const isStandard = (path: string | undefined): boolean => path === STANDARD;

/** What would be lost if it were overwritten: an empty file and a device hold nothing. */
const holdsSomething = (path: string): boolean => {
  const found = statSync(path, { throwIfNoEntry: false });
  return !!found && (found.isDirectory() || (found.isFile() && found.size > 0));
};

/** Where something may be written. Refuses to overwrite what is there, before anything is computed. */
export function outputPath({ output, force }: Wanted, hint = 'Name it with -o.'): string {
  if (!output) throw new Problem('usage', 'The output is missing.', '-o', hint);
  if (!force && !isStandard(output) && holdsSomething(output))
    throw new Problem(
      'output-exists',
      `${output} is there already.`,
      output,
      'Name another file, or say --force to overwrite it.',
    );
  return output;
}

/** Writes a file, or all of it to standard output before the process ends. */
export async function writeOutput(path: string, data: string | Uint8Array): Promise<void> {
  if (!isStandard(path)) {
    writeFileSync(path, data);
    return;
  }
  await new Promise<void>((done, fail) => process.stdout.write(data, (error) => (error ? fail(error) : done())));
}

/**
 * The kind of file that an output is to be, as an extension with its dot: --format says it, or the name does.
 * Into a folder each input goes under its own name.
 */
export function outputFor(
  wanted: Wanted & { format?: string | undefined },
  input: string,
  usual?: string,
): { path: string; kind: string } {
  const { output, format } = wanted;
  const said = format ? `.${format.replace(/^\./, '').toLowerCase()}` : '';
  const isFolder = !!output && !isStandard(output) && (output.endsWith('/') || isDirectory(output));
  if (output && !said && (isFolder || isStandard(output)) && !usual)
    throw new Problem('usage', 'What kind of file it is to be is missing.', '--format', 'Say it, as in --format cube.');
  const kind = said || (isFolder || isStandard(output) ? (usual ?? '') : extname(output ?? '').toLowerCase());
  const stem = basename(input === STANDARD ? 'input' : input, extname(input));
  const named = isFolder ? join(output, stem + kind) : output;
  return { path: outputPath({ ...wanted, output: named }), kind };
}

/** Several files are written into a folder; one that is named with a slash at its end is made. */
export function folderForSeveral(output: string | undefined): void {
  if (!output || isDirectory(output)) return;
  if (!output.endsWith('/'))
    throw new Problem(
      'usage',
      'Several files cannot be written into one.',
      '-o',
      `Name a folder, with a slash at its end: -o ${isStandard(output) ? 'out' : output}/`,
    );
  mkdirSync(output, { recursive: true });
}

function isDirectory(path: string): boolean {
  try {
    return statSync(path).isDirectory();
  } catch {
    return false;
  }
}
