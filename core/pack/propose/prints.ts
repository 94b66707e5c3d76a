/** Fingerprints side by side, as the search among them takes them. */

/** Numbers that a fingerprint has. */
const LENGTH = 192;

/** Those of a list in one array; the list holds only what has one. */
export function printsOf(list: readonly { fingerprint: Int16Array | null }[]): Int16Array {
  const all = new Int16Array(list.length * LENGTH);
  list.forEach((one, i) => {
    if (one.fingerprint) all.set(one.fingerprint, i * LENGTH);
  });
  return all;
}

/** Adds to the list under a key. */
export function addTo<T>(groups: Map<string, T[]>, key: string, value: T): void {
  const list = groups.get(key);
  if (list) list.push(value);
  else groups.set(key, [value]);
}
