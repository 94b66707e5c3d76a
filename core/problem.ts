/** A problem as it is sent and kept. */
export interface ToldProblem {
  code: string;
  message: string;
  where: string;
  remedy: string;
}

/** The same in each copy of this module: pages, routes and programs are bundled apart, and throw across one another. */
const brand = Symbol.for('etagere problem');

/**
 * An error that a user can mend: what happened, where, and what to do. Anything else that is thrown is a bug.
 * `code` is stable and lower-case with dashes; `where` is a place in a file (entry, line, byte, tag) or a field.
 */
export class Problem extends Error {
  static override [Symbol.hasInstance](value: unknown): boolean {
    // a kind of problem of its own is known as usual
    if (this !== Problem) return Function.prototype[Symbol.hasInstance].call(this, value) as boolean;
    return typeof value === 'object' && value !== null && brand in value;
  }
  readonly [brand] = true;
  readonly code: string;
  readonly where: string;
  readonly remedy: string;
  constructor(code: string, message: string, where: string, remedy: string) {
    super(message);
    this.name = 'Problem';
    this.code = code;
    this.where = where;
    this.remedy = remedy;
  }
  toJSON(): ToldProblem {
    return { code: this.code, message: this.message, where: this.where, remedy: this.remedy };
  }
}

/** What is asked for, or null where a Problem says why it cannot be had; a bug stays one. */
export async function orNull<T>(asked: Promise<T>): Promise<T | null> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof Problem) return null;
    throw error;
  }
}

/** The same problem, found inside something that is named: "line 4" becomes "looks/a.cube, line 4". */
export function within(place: string, problem: Problem): Problem {
  return new Problem(
    problem.code,
    problem.message,
    problem.where ? `${place}, ${problem.where}` : place,
    problem.remedy,
  );
}
