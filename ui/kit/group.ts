/** Items by key, in the order in which the keys come. */
export function groupBy<T, K>(list: readonly T[], key: (t: T) => K): Map<K, T[]> {
  const out = new Map<K, T[]>();
  for (const item of list) {
    const group = key(item);
    const members = out.get(group);
    if (members) members.push(item);
    else out.set(group, [item]);
  }
  return out;
}
