/** Whether a table can be used as a look at all: what can be read is not yet what can be rendered with. */
import { Problem } from '../problem';
import type { Look } from './look';

/** The largest number of a 16-bit float: no encoding of a picture goes beyond it. */
const MOST_VALUE = 65504;
/** All colors within so little are one color. */
const FLAT = 1e-6;

const again = 'Ask the supplier for the file again, or export it anew from the program that made it.';

const rowOf = (index: number): string => `row ${Math.floor(index / 3) + 1} of the table`;

/** Throws a Problem for a table with numbers that no picture has, or that makes all colors the same. */
export function checkLook({ table, domain }: Pick<Look, 'table' | 'domain'>): void {
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < table.length; i++) {
    const value = table[i]!;
    if (!(Math.abs(value) <= MOST_VALUE))
      throw new Problem('look-absurd', `The table holds ${value}, which is no value of a picture.`, rowOf(i), again);
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  if (most - least < FLAT)
    throw new Problem(
      'look-flat',
      `The table makes one color of all: every number in it is ${least}.`,
      'the table',
      again,
    );
  const bound = [...domain.min, ...domain.max].find((value) => !(Math.abs(value) <= MOST_VALUE));
  if (bound !== undefined)
    throw new Problem(
      'look-absurd',
      `The domain goes to ${bound}, which is no value of a picture.`,
      'the domain',
      again,
    );
}
