/** What lists need everywhere. */

/** Each value once, in the order of its first. */
export const distinct = <T>(values: Iterable<T>): T[] => [...new Set(values)];
