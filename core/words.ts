/** Numbers with their nouns. */

/** "1 frame", "2 frames"; the plural is the noun with an s unless it is given. */
export const counted = (count: number, noun: string, plural = `${noun}s`): string =>
  `${count} ${count === 1 ? noun : plural}`;

/** The noun alone. */
export const nounFor = (count: number, noun: string, plural = `${noun}s`): string => (count === 1 ? noun : plural);
