/** What PostgreSQL and the pool say when something does not go, as what a person can do about it. */
import { Problem } from '@/core/problem';

const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error && typeof error.code === 'string' ? error.code : '';

/** Which rule of the database it was, in words as far as its name has them. */
const constraintOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'constraint' in error && typeof error.constraint === 'string'
    ? error.constraint.replaceAll('_', ' ')
    : 'the request';

/** Codes of PostgreSQL (appendix A of its manual) and of the network, by what they come to. */
const lostAgainstAnother = new Set(['40001', '40P01']);
const tookTooLong = new Set(['57014', '55P03', '25P03', '53300']);
const isAway = new Set(['57P01', '57P02', '57P03', '08000', '08003', '08006', 'ECONNREFUSED', 'ECONNRESET', 'EPIPE']);

/** Messages of node-postgres that come without a code. */
const poolIsFull = /timeout exceeded when trying to connect/i;
const connectionBroke = /connection terminated|client has encountered a connection error|not queryable/i;

/** Whether the same work may well go if it is done again from its beginning. */
export const isWorthAnotherTry = (error: unknown): boolean => lostAgainstAnother.has(codeOf(error));

/** A fault of the database that passes by itself, as a Problem; null for any other. */
export function passingFault(error: unknown): Problem | null {
  const code = codeOf(error);
  const words = error instanceof Error ? error.message : '';
  if (isAway.has(code) || connectionBroke.test(words))
    return new Problem(
      'database-away',
      'The database cannot be reached at the moment.',
      'the server',
      'Try again in a moment; nothing that was confirmed is lost.',
    );
  if (tookTooLong.has(code) || lostAgainstAnother.has(code) || poolIsFull.test(words))
    return new Problem(
      'busy',
      'The server has too much to do at the moment.',
      'the server',
      'Try again in a moment; nothing was changed.',
    );
  return null;
}

/**
 * What the database itself refused, where a service had not said no before: two were at it at once, or a value is one
 * that it cannot hold. As a Problem; null for any other fault.
 */
export function refusalOf(error: unknown): Problem | null {
  switch (codeOf(error).slice(0, 5)) {
    case '23505':
      return new Problem(
        'taken',
        'That is there already: somebody was faster, or it has been done before.',
        constraintOf(error),
        'Reload the page and look.',
      );
    case '23503':
      return new Problem(
        'in-use',
        'Something that this needs is gone, or something else needs what would go.',
        constraintOf(error),
        'Reload the page and look.',
      );
    case '23514':
    case '23502':
    case '22001':
    case '22003':
    case '22021':
    case '22P02':
    case '22P05':
      return new Problem(
        'input-invalid',
        'A field holds a value that cannot be kept.',
        constraintOf(error),
        'Correct the input and try again.',
      );
    default:
      return null;
  }
}
