/** Headings of one long shelf that are folded, as the address holds them: left out of the list, and told above it. */

/** What is between one and the next in the address. */
const BETWEEN = '|';

export const wordsOfHeadings = (headings: readonly string[]): string => headings.join(' / ');

export const foldedIn = (address: URLSearchParams): ReadonlySet<string> =>
  new Set((address.get('folded') ?? '').split(BETWEEN).filter(Boolean));

/** What the address is to hold once some headings are folded, or are not any more; null for none. */
export function withFolding(folded: ReadonlySet<string>, words: string, on: boolean): string | null {
  const next = new Set(folded);
  if (on) next.add(words);
  else next.delete(words);
  return [...next].join(BETWEEN) || null;
}
