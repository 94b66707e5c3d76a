/** Looks as the verbs take them. */
import { readAnyLook } from '@/core/icc/look';
import type { Interpolation, Program } from '@/core/look';
import { encodingNames, encodingOf } from '@/core/look/encoding';
import { readInput } from '../files';
import { choice, numberOption } from '../values';

export const interpolations = ['tetrahedral', 'trilinear'] as const;

export const bytesOf = (path: string | undefined): Uint8Array => new Uint8Array(readInput(path, 'look'));

export const load = async (path: string | undefined): Promise<Program> => readAnyLook(bytesOf(path));

/** The interpolation that was asked for; without one, the file's own holds. */
export const interpolationOption = (value: string | undefined): Interpolation | undefined =>
  value === undefined ? undefined : choice(value, 'interpolation', interpolations, 'tetrahedral');

export const encodingOption = (value: string | undefined, name: string) =>
  value === undefined ? null : encodingOf(choice(value, name, encodingNames, 'srgb'));

/** A strength in percent as a factor. */
export const strengthOption = (value: string | undefined): number => numberOption(value, 'strength', 0, 400, 100) / 100;

/** An entry of a row of numbers within its bounds; 0 beyond them. */
export const at = (row: ArrayLike<number>, i: number): number => row[i] ?? 0;
