/** Shared by the verbs: files, points, numbers, each refused with a Problem. */
import { must } from '@/core/must';
import { closeSync, openSync, readFileSync, statSync } from 'node:fs';
import { Problem } from '@/core/problem';

const unreadable = (path: string, why: string): Problem =>
  new Problem('file-unreadable', `${path} cannot be read: ${why}.`, path, 'Check the path and its permissions.');

/** Refuses what is no file that can be opened, without reading it: it may be larger than memory. */
export function openInput(path: string): void {
  try {
    const f = openSync(path, 'r');
    closeSync(f);
  } catch (error) {
    throw unreadable(path, (error as NodeJS.ErrnoException).code ?? (error as Error).message);
  }
  if (!statSync(path).isFile()) throw unreadable(path, 'it is no file');
}

export function readInput(path: string | undefined, what = 'file'): Buffer {
  if (!path) throw new Problem('usage', `A ${what} is missing.`, 'command line', `Name the ${what}.`);
  try {
    return readFileSync(path);
  } catch (error) {
    throw unreadable(path, (error as NodeJS.ErrnoException).code ?? (error as Error).message);
  }
}

/** A JSON array of lists of numbers, all of one length from 1 to 4. */
export function readNumbers(path: string | undefined): number[][] {
  let value: unknown;
  try {
    value = JSON.parse(readInput(path, 'points file').toString('utf8'));
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem('points-json', 'The points are no JSON.', path ?? '', 'Give a JSON array of number triples.');
  }
  const list = value as number[][];
  if (
    !Array.isArray(value) ||
    value.some(
      (any) =>
        !Array.isArray(any) ||
        any.length < 1 ||
        any.length > 4 ||
        any.length !== must(list[0]).length ||
        any.some((n) => typeof n !== 'number' || !Number.isFinite(n)),
    )
  )
    throw new Problem(
      'points-json',
      'The points are not lists of numbers, all of one length.',
      path ?? '',
      'Give a JSON array of lists of numbers, one number a channel.',
    );
  return list;
}

/** A JSON array of number triples. */
export function readPoints(path: string | undefined): number[][] {
  const valueses = readNumbers(path);
  if (valueses.some((p) => p.length !== 3))
    throw new Problem(
      'points-json',
      'The points are not an array of number triples.',
      path ?? '',
      'Give a JSON array of number triples.',
    );
  return valueses;
}

export function numberOption(
  value: string | undefined,
  name: string,
  low: number,
  high: number,
  fallback: number,
): number {
  if (value === undefined) return fallback;
  const n = Number(value);
  if (value.trim() === '' || !Number.isFinite(n) || n < low || n > high)
    throw new Problem(
      'usage',
      `--${name} must be a number from ${low} to ${high}.`,
      `--${name}`,
      'Correct the option.',
    );
  return n;
}

export function choice<T extends string>(
  value: string | undefined,
  name: string,
  allowed: readonly T[],
  fallback: T,
): T {
  if (value === undefined) return fallback;
  if (!(allowed as readonly string[]).includes(value))
    throw new Problem('usage', `--${name} must be one of ${allowed.join(', ')}.`, `--${name}`, 'Correct the option.');
  return value as T;
}
