/** Grays around the pictures, equal in red, green and blue. */
export const surrounds = [
  { gray: '#d6d6d6', word: 'light' },
  { gray: '#777777', word: 'middle' },
  { gray: '#1f1f1f', word: 'dark' },
] as const;
