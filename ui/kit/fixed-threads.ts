/** The fixed colors of a selvedge, as `core/look/selvedge` makes them and `app/globals.css` has them; a test compares the three. */
export const fixedThreads = [
  '#bf5350',
  '#d78951',
  '#dab249',
  '#95b338',
  '#419363',
  '#49a9ae',
  '#2677b2',
  '#7565bb',
  '#b95a93',
  '#d7d7d7',
  '#747474',
  '#1b1b1b',
] as const;
