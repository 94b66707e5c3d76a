/** Values behind options: points, numbers, words; each refused with a Problem. */
import { Problem } from '@/core/problem';
import { readInput } from './files';

const MOST_CHANNELS = 4;

const isRow = (value: unknown): value is number[] =>
  Array.isArray(value) &&
  value.length >= 1 &&
  value.length <= MOST_CHANNELS &&
  value.every((entry) => typeof entry === 'number' && Number.isFinite(entry));

/** A JSON array of lists of numbers, all of one length from 1 to 4. */
export function readNumbers(path: string | undefined): number[][] {
  const text = readInput(path, 'points file').toString('utf8');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem('points-json', 'The points are no JSON.', path ?? '', 'Give a JSON array of number triples.');
  }
  const rows = Array.isArray(value) && value.every(isRow) ? value : null;
  if (!rows || rows.some((row) => row.length !== rows[0]?.length))
    throw new Problem(
      'points-json',
      'The points are not lists of numbers, all of one length.',
      path ?? '',
      'Give a JSON array of lists of numbers, one number a channel.',
    );
  return rows;
}

/** A JSON array of number triples. */
export function readPoints(path: string | undefined): number[][] {
  const rows = readNumbers(path);
  if (rows.some((row) => row.length !== 3))
    throw new Problem(
      'points-json',
      'The points are not an array of number triples.',
      path ?? '',
      'Give a JSON array of number triples.',
    );
  return rows;
}

export function numberOption(
  value: string | undefined,
  name: string,
  low: number,
  high: number,
  fallback: number,
): number {
  if (value === undefined) return fallback;
  const number = Number(value);
  if (value.trim() === '' || !Number.isFinite(number) || number < low || number > high)
    throw new Problem(
      'usage',
      `--${name} must be a number from ${low} to ${high}.`,
      `--${name}`,
      'Correct the option.',
    );
  return number;
}

export function wholeOption(
  value: string | undefined,
  name: string,
  low: number,
  high: number,
  fallback: number,
): number {
  const number = numberOption(value, name, low, high, fallback);
  if (!Number.isInteger(number))
    throw new Problem('usage', `--${name} must be a whole number.`, `--${name}`, 'Correct the option.');
  return number;
}

/** Points an axis. */
export const sizeOption = (value: string | undefined, most: number, fallback: number): number =>
  wholeOption(value, 'size', 2, most, fallback);

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

/** Words with commas between. */
export const listed = (value: string | undefined): string[] | undefined =>
  value
    ?.split(',')
    .map((word) => word.trim())
    .filter(Boolean);
