const words = (s: string): string[] => s.toLowerCase().split(/[^\p{L}\p{N}]+/u).filter(Boolean);

/** The shelf that an arrival is offered first: the one whose every word stands in the arrival's name, the longest of them; else the last. */
export function usualShelf(shelves: readonly { id: string; name: string }[], arrival: string): string | null {
  const said = new Set(words(arrival)), fits = shelves.filter((s) => words(s.name).every((w) => said.has(w)) && words(s.name).length > 0).sort((a, b) => words(b.name).length - words(a.name).length);
  return (fits[0] ?? shelves[shelves.length - 1])?.id ?? null;
}
