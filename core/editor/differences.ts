/** What one descriptor says otherwise than another, for the person who decides on it. */
import type { Descriptor } from './descriptor';

export interface Difference {
  /** such as `places › looks › macos` */ at: string;
  /** null where it is not there */ before: string | null;
  after: string | null;
}

/** Every value of a JSON tree by its place; entries of lists that say what they are (a place, a step) go by that. */
function leaves(value: unknown, at: readonly string[], into: Map<string, string>): Map<string, string> {
  if (Array.isArray(value) && value.some((one) => typeof one === 'object'))
    value.forEach((one, n) => leaves(one, [...at, String(n + 1)], into));
  else if (typeof value === 'object' && value !== null && !Array.isArray(value))
    for (const [key, one] of Object.entries(value)) leaves(one, [...at, key], into);
  else if (value !== undefined) into.set(at.join(' › '), Array.isArray(value) ? value.join(', ') : String(value));
  return into;
}

/** In the order of the newer one; what has gone comes last. `before` is null where the editor was not known. */
export function differences(before: Descriptor | null, after: Descriptor): Difference[] {
  const old = leaves(before ?? {}, [], new Map());
  const young = leaves(after, [], new Map());
  const changed = [...young].flatMap(([at, value]) =>
    old.get(at) === value ? [] : [{ at, before: old.get(at) ?? null, after: value }],
  );
  const gone = [...old].flatMap(([at, value]) => (young.has(at) ? [] : [{ at, before: value, after: null }]));
  return [...changed, ...gone];
}
