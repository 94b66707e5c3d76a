/**
 * The signs that an editor takes in file names, as a descriptor writes them: single signs and ranges such as `A-Za-z0-9_-`.
 * A small language of its own instead of a pattern: it is read once and asked sign by sign, in linear time.
 */
import { Problem } from '../problem';

interface Range {
  from: number;
  to: number;
}

/** Reads the signs; throws a Problem where they are none that can stand in a file name. */
export function allowedSigns(text: string): (sign: string) => boolean {
  const signs = [...text];
  const ranges: Range[] = [];
  const wrong = (why: string): Problem =>
    new Problem(
      'descriptor-invalid',
      `The signs allowed in names, "${text}", ${why}.`,
      'names.allowed',
      'Write single signs and ranges, such as A-Za-z0-9_-',
    );
  if (!signs.length) throw wrong('are none');
  for (let i = 0; i < signs.length; i++) {
    const sign = signs[i]!;
    if (/[\u0000-\u001f<>:"/\\|?*[\]^]/.test(sign)) throw wrong(`name ${sign}, which no file name may hold`);
    const isRange = signs[i + 1] === '-' && i + 2 < signs.length;
    const last = isRange ? signs[i + 2]! : sign;
    if (last < sign) throw wrong(`have a range that runs backwards, ${sign}-${last}`);
    ranges.push({ from: sign.codePointAt(0)!, to: last.codePointAt(0)! });
    if (isRange) i += 2;
  }
  return (sign) => {
    const code = sign.codePointAt(0)!;
    return ranges.some(({ from, to }) => code >= from && code <= to);
  };
}
