/** Items by key, in the order in which the keys come. */
export function groupBy<T, K>(list: readonly T[], key: (t: T) => K): Map<K, T[]> {
  const out = new Map<K, T[]>();
  for (const t of list) {
    const k = key(t);
    const l = out.get(k);
    if (l) l.push(t);
    else out.set(k, [t]);
  }
  return out;
}
