/** What goes between threads without being copied: the memory of typed arrays. */

const DEEPEST = 4;

/** The memory of all typed arrays in a value, each once. */
export function buffersIn(value: unknown, depth = 0, into = new Set<ArrayBuffer>()): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) {
    if (value.buffer instanceof ArrayBuffer) into.add(value.buffer);
  } else if (typeof value === 'object' && value !== null && depth < DEEPEST)
    for (const inner of Object.values(value)) buffersIn(inner, depth + 1, into);
  return [...into];
}

/** The same value, its bytes in memory of their own: a view may be a small part of something large, or of something in use. */
export function ownBytes<T>(value: T, depth = 0): T {
  if (value instanceof Uint8Array) return new Uint8Array(value) as T;
  if (Array.isArray(value) && depth < DEEPEST) return value.map((inner: unknown) => ownBytes(inner, depth + 1)) as T;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value) || value instanceof Date) return value;
  if (depth >= DEEPEST) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, ownBytes(inner, depth + 1)])) as T;
}
