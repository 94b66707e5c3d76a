/** What lists need everywhere. */

/** Each value once, in the order of its first. */
export function distinct<T>(values: Iterable<T>): T[] {
  return [...new Set(values)];
}
