/** For tests: what was refused, as the Problem that says so. */
import { Problem } from './problem';

export function refusalOf(run: () => unknown): Problem {
  try {
    run();
  } catch (error) {
    if (error instanceof Problem) return error;
    throw error;
  }
  throw new Error('nothing was refused');
}
