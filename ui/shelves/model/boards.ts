/** How many boards are painted before the page is awake. */

/** Rows of spines that a window of 1,000 px shows; in a taller one the last of them come when the page is awake. */
const ROWS = 4;

/**
 * @param counts spines on each board, from the top
 * @returns so many boards fill a window, the last of them whole
 */
export function boardsInWindow(counts: readonly number[], columns: number): number {
  let rows = 0;
  let boards = 0;
  while (boards < counts.length && rows < ROWS) {
    rows += Math.max(1, Math.ceil((counts[boards] ?? 0) / columns));
    boards++;
  }
  return boards;
}
