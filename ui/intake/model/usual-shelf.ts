/** Which shelf an arrival is offered first. */

const words = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/**
 * The shelf of which every word stands in the arrival's name, the longest of them. Where there is none: null for a pack, which
 * is offered a shelf of its own; the last shelf for a single file.
 */
export function usualShelf(
  shelves: readonly { id: string; name: string }[],
  arrival: string,
  files: number,
): string | null {
  const said = new Set(words(arrival));
  const fits = shelves
    .filter((s) => words(s.name).every((w) => said.has(w)) && words(s.name).length > 0)
    .sort((a, b) => words(b.name).length - words(a.name).length);
  return (fits[0] ?? (files > 1 ? null : shelves.at(-1)))?.id ?? null;
}

/** The name of an arrival as a shelf's: without the ending of an archive, and without its version. */
export const shelfNameOf = (arrival: string): string =>
  arrival
    .replace(/\.(zip|cube|xmp|dcp|icc|icm|json|xml|ini|png)$/i, '')
    .replace(/[\s_-]+v?\d+(\.\d+)*$/i, '')
    .replace(/_/g, ' ')
    .trim();

/** The shelf whose name is that of a kind ("Camera profiles"), which its items are offered first; null where there is none. */
export function shelfOfKind(shelves: readonly { id: string; name: string }[], kind: string): string | null {
  const said = kind.replace('-', ' ');
  return shelves.find((s) => words(s.name).join(' ').replace(/s$/, '') === said)?.id ?? null;
}
