/** A list in which one has been taken from its place and put at another, those between having moved up. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const out = [...list];
  const taken = out.splice(from, 1);
  out.splice(to, 0, ...taken);
  return out;
}
