const words = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** The shelf that an arrival is offered first: the one whose every word stands in the arrival's name, the longest of them; else the last. */
export function usualShelf(shelves: readonly { id: string; name: string }[], arrival: string): string | null {
  const said = new Set(words(arrival));
  const fits = shelves
    .filter((s) => words(s.name).every((w) => said.has(w)) && words(s.name).length > 0)
    .sort((a, b) => words(b.name).length - words(a.name).length);
  return (fits[0] ?? shelves[shelves.length - 1])?.id ?? null;
}

/** The shelf whose name is that of a kind ("Camera profiles"), which its items are offered first; null where there is none. */
export function shelfOfKind(shelves: readonly { id: string; name: string }[], kind: string): string | null {
  const said = kind.replace('-', ' ');
  return shelves.find((s) => words(s.name).join(' ').replace(/s$/, '') === said)?.id ?? null;
}
