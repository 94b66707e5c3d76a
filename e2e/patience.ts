/** How long the browser tests wait. A machine of CI may be slow: there they wait longer, and test the same. */

const TIMES = process.env.CI ? 3 : 1;

/** So many seconds on a machine of one's own, in milliseconds. */
export const seconds = (count: number): number => count * 1000 * TIMES;
