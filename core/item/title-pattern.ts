/** Titles for many at once: a pattern with placeholders, the same for renaming and for naming what is made. */

export interface TitleParts {
  title: string;
  /** its place among those that are named, from 1 */ place: number;
  camera: string;
  supplier: string;
  /** the innermost */ heading: string;
}

/** The placeholders that a pattern may hold. */
export const placeholders = ['{title}', '{n}', '{camera}', '{supplier}', '{heading}'] as const;

/** The title that a pattern gives; an empty pattern keeps the title. Spaces that an empty part leaves are closed up. */
export function titleByPattern(pattern: string, { title, place, camera, supplier, heading }: TitleParts): string {
  const parts: Record<string, string> = { title, n: String(place), camera, supplier, heading };
  return (pattern || '{title}')
    .replace(/\{(title|n|camera|supplier|heading)\}/g, (_, key: string) => parts[key] ?? '')
    .replace(/\s+/g, ' ')
    .trim();
}
