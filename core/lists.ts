/** What lists need everywhere. */

/** Each value once, in the order of its first. */
export function distinct<T>(values: Iterable<T>): T[] {
  return [...new Set(values)];
}

/** Values by what a function says of each, in the order of the first. */
export function groupBy<T, K>(values: Iterable<T>, keyOf: (value: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const value of values) {
    const key = keyOf(value);
    const group = groups.get(key);
    if (group) group.push(value);
    else groups.set(key, [value]);
  }
  return groups;
}
