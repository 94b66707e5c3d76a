/**
 * Whether two values are the same in all their parts: of JSON, whatever its keys are called. Packages that compare look at
 * `constructor`, `valueOf` or `toString` of a value, which data may have as keys of its own.
 */
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** The order of an object's keys says nothing. */
export function equal(one: unknown, other: unknown): boolean {
  if (Object.is(one, other) || one === other) return true;
  if (!isObject(one) || !isObject(other) || Array.isArray(one) !== Array.isArray(other)) return false;
  const keys = Object.keys(one);
  return (
    keys.length === Object.keys(other).length &&
    keys.every((key) => Object.hasOwn(other, key) && equal(one[key], other[key]))
  );
}

/** The same, where a missing value is as null. */
export const same = (a: unknown, b: unknown): boolean => equal(a ?? null, b ?? null);
