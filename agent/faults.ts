/** The server said no, and would say so again. */
export class ServerError extends Error {}

/** The way to the server broke, or it was not well: what was under way is gone on with in a later round. */
export class BrokenOff extends Error {}

/** The time of an operation has not come: it is neither done nor failed. */
export class NotNow extends Error {}

/**
 * The server was not reached, or gave no answer in time: nothing that the program could do better. What `fetch` says of the
 * network has a cause; a fault in the program itself has none.
 */
export function isUnreachable(error: unknown): boolean {
  if (error instanceof BrokenOff) return true;
  if (error instanceof DOMException) return error.name === 'TimeoutError' || error.name === 'AbortError';
  return error instanceof TypeError && error.cause !== undefined;
}
