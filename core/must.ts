/** A value that has to be there: its absence is a bug, told where it is noticed rather than further on. */
export function must<T>(value: T, what = 'a value'): NonNullable<T> {
  if (value === null || value === undefined) throw new Error(`${what} is missing where there always is one`);
  return value;
}
